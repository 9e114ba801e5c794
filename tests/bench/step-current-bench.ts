import { Casualty } from '../../bench/casualty/casualty'
import { SeededRandom } from '../../bench/casualty/random'
import type { CasualtyFault } from '../../bench/casualty/faults'
import { driveTrain } from '../../core/engine/drive-train'
import type { EngineDescription } from '../../core/engine/description-schema'
import { constructionPlans, describeConstruction } from '../../core/knowledge/constructions'
import { expectedCurrent } from '../../core/strip/step-current'

/**
 * The expected current of a step held against a machine of independent physics: a machine that was tried without one
 * axle, then with it, sound (it adds a little friction) or put together wrongly (it rubs).
 * `tsx tests/bench/step-current-bench.ts [SEEDS]`
 */
const seeds = Number(process.argv[2] ?? 50)
const VOLTS = 4
/** What one sound axle adds, and one that is put together wrongly, of the dry friction of the whole: from nothing up. */
const SOUND_ADDS = 0.12
const RUBS = [0.4, 1.2] as const

function readAmps(
  description: EngineDescription,
  faults: CasualtyFault[],
  seed: number,
): { amps: number; spread: number; stands: boolean } {
  const casualty = new Casualty(description, faults, { seed, onStand: true })
  const [motor] = description.motors
  const terminal = (pole: 'plus' | 'minus'): string =>
    description.components.find((component) => component.id === motor?.feeds[pole])?.to ?? ''
  const [plus, minus] = [terminal('plus'), terminal('minus')]
  casualty.apply({ plus, minus, volts: VOLTS, ohms: 0.1, limitAmps: 2, hertz: 0 })
  casualty.run(1.5, 2e-4)
  const means: number[] = []
  for (let repeat = 0; repeat < 5; repeat++) {
    let sum = 0
    let count = 0
    casualty.run(0.3, 2e-4, () => {
      sum += Math.abs(casualty.meter.amps)
      count++
    })
    means.push(sum / count)
  }
  const amps = means.reduce((total, mean) => total + mean, 0) / means.length
  return {
    amps,
    spread: Math.max(...means) - Math.min(...means),
    stands: Math.abs(casualty.meter.radPerSecond) < 1,
  }
}

let [passed, stopped, count] = [0, 0, 0]
const plans = constructionPlans.map((plan) => describeConstruction(plan.id))
const machines = plans.filter((one) => one.power === 'dc' && one.motors.length === 1 && one.motors[0]?.field === null)
for (let seed = 1; seed <= seeds; seed++) {
  const description = machines[seed % machines.length] as EngineDescription
  const [motor] = description.motors
  const turning = driveTrain(description).turning
  const axle = description.rotors.find((rotor) => rotor.kind === 'axle' && turning.has(rotor.id))
  if (!motor || !axle) continue
  const random = new SeededRandom(seed)
  const rub = (share: number): CasualtyFault[] => [
    { kind: 'rubbing', motor: motor.id, torque: share * motor.coulombTorque },
  ]
  const without = readAmps(description, [], seed)
  const before = {
    off: new Set([axle.part]),
    amps: without.amps,
    uncertainty: Math.max(without.spread, 0.005 * without.amps),
  }
  const expected = expectedCurrent(description, new Set(), before, VOLTS)
  if (!expected) continue
  const sound = readAmps(description, rub(SOUND_ADDS * random.next()), seed + 1000)
  const wrong = readAmps(description, rub(RUBS[0] + (RUBS[1] - RUBS[0]) * random.next()), seed + 2000)
  count++
  if (sound.amps - sound.spread <= expected.high) passed++
  if (wrong.amps - wrong.spread > expected.high || wrong.stands) stopped++
}
console.log(`${count} sound steps: ${passed} pass; ${count} put together wrongly: ${stopped} are stopped`)
