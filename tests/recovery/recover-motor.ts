import { Casualty } from '../../bench/casualty/casualty'
import type { CasualtyFault } from '../../bench/casualty/faults'
import { SeededRandom } from '../../bench/casualty/random'
import { sweepMotor, usualPlan } from '../../bench/supply/motor-sweep'
import { SimulatedSupply } from '../../bench/supply/simulated-supply'
import { SupplyClient } from '../../bench/supply/supply-client'
import { SupplyServer } from '../../bench/supply/supply-server'
import { Circuit, offTheTrack, ohmsBetween } from '../../core/engine/circuit'
import { fitSweep, isWholeRefusal } from '../../core/motor/sweep-fit'
import type { SweepPoint } from '../../core/motor/sweep-point'
import { constructionPlans, describeConstruction } from '../../core/knowledge/constructions'
import { speedOfReading } from '../../core/trace/speed-of-reading'

export interface Recovered {
  readonly seed: number
  readonly construction: string
  readonly truth: { readonly resistance: number; readonly backEmf: number; readonly keepsTurningDownTo: number }
  /** Null where the fit refused. */
  readonly found: {
    readonly resistance: number | null
    readonly backEmf: number | null
    readonly keepsTurningDownTo: number | null
  }
  readonly stopped: string | null
}

/**
 * A motor measured through the whole chain: simulated machine, SCPI supply on TCP, client, sweep, speed from ripple,
 * fit. What it truly is comes from the casualty's own figures, which the chain never sees.
 */
export async function recoverMotor(seed: number): Promise<Recovered> {
  const random = new SeededRandom(seed)
  const plan = random.pick(constructionPlans.filter((entry) => entry.power === 'dc'))
  const usual = describeConstruction(plan.id)
  const [motor] = usual.motors
  if (!motor) throw new Error(`${plan.id} has no motor.`)
  const description = {
    ...usual,
    components: usual.components.map((component) =>
      component.id === motor.armature
        ? { ...component, ohms: (component.ohms ?? 10) * random.between(0.7, 1.4) }
        : component,
    ),
    motors: [{ ...motor, backEmf: motor.backEmf * random.between(0.85, 1.2), segments: random.pick([3, 5, 5, 7]) }],
  }
  const [made] = description.motors as [typeof motor]
  const strength = random.between(0.65, 1.1)
  const dry = random.between(0.7, 2)
  const grease = random.between(1, 3)
  // The motor's own leads are off: through them the lamps would draw as well.
  const leadsOff = [motor.feeds.plus, motor.feeds.minus].map((component): CasualtyFault => ({
    kind: 'component',
    component,
    state: 'open',
  }))
  const faults: CasualtyFault[] = [
    ...leadsOff,
    { kind: 'magnet', motor: motor.id, strength },
    { kind: 'dry-bearing', motor: motor.id, factor: dry },
    { kind: 'hard-grease', motor: motor.id, factor: grease },
  ]
  const casualty = new Casualty(description, faults, { seed, onStand: true })
  const terminals = {
    plus: description.components.find((component) => component.id === motor.feeds.plus)?.to ?? '',
    minus: description.components.find((component) => component.id === motor.feeds.minus)?.to ?? '',
  }
  const circuit = new Circuit(description)
  const resistance = ohmsBetween(
    circuit,
    { states: { ...offTheTrack(description), [motor.feeds.plus]: 'open', [motor.feeds.minus]: 'open' } },
    terminals.plus,
    terminals.minus,
  )
  const backEmf = made.backEmf * strength
  const coulomb = made.coulombTorque * (0.4 * dry + 0.6 * Math.sqrt(grease))
  const truth = { resistance, backEmf, keepsTurningDownTo: (resistance * coulomb) / backEmf }

  let seconds = 0
  const noise = new SeededRandom(seed + 1)
  const supply = new SimulatedSupply({ clock: () => seconds, noise: () => noise.normal() })
  supply.clamp({ casualty, ...terminals })
  const server = new SupplyServer(supply)
  const client = await SupplyClient.open({ host: '127.0.0.1', port: await server.listen(), patienceMs: 20_000 })
  const points: SweepPoint[] = []
  let stopped: string | null = null
  try {
    const surroundings = {
      pause: (more: number) => {
        seconds += more
        return Promise.resolve()
      },
      held: (turn: number) => {
        supply.hold(turn * 0.37 + random.between(0, 0.2))
        return Promise.resolve()
      },
      free: () => {
        supply.hold(null)
        return Promise.resolve()
      },
    }
    for await (const event of sweepMotor(client, usualPlan(12), surroundings)) {
      if (event.kind === 'locked')
        points.push({
          voltage: event.volts,
          current: event.amps,
          speed: 0,
          locked: true,
          direction: 'forward',
          hold: event.turn,
        })
      if (event.kind === 'stopped') stopped = event.sentence
      if (event.kind !== 'running' || !event.record) continue
      const volts = Math.abs(event.volts)
      const amps = Math.abs(event.amps)
      const locked = points.filter((point) => point.locked)
      const ohms = locked.reduce((sum, point) => sum + point.voltage / point.current, 0) / Math.max(1, locked.length)
      const speed = speedOfReading(
        { volts, amps, rate: event.record.rate, record: event.record.amps },
        { heldOhms: ohms, usualBackEmf: motor.backEmf, segments: made.segments },
      )
      points.push(
        speed === 'standing'
          ? { voltage: volts, current: amps, speed: 0, locked: true, direction: event.direction }
          : {
              voltage: volts,
              current: amps,
              speed: speed?.radPerSecond ?? null,
              locked: false,
              direction: event.direction,
            },
      )
    }
  } finally {
    await client.close()
    await server.close()
  }
  const fit = fitSweep(points, { nominalVoltage: 12 })
  const figure = (name: 'resistance' | 'backEmf' | 'keepsTurningDownTo'): number | null => {
    if (isWholeRefusal(fit)) return null
    const found = fit.figures[name]
    return 'value' in found ? found.value : null
  }
  return {
    seed,
    construction: plan.id,
    truth,
    found: {
      resistance: figure('resistance'),
      backEmf: figure('backEmf'),
      keepsTurningDownTo: figure('keepsTurningDownTo'),
    },
    stopped,
  }
}
