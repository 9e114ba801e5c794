import { sweepMotor, usualPlan, type SweepEvent } from '../../../bench/supply/motor-sweep'
import { speedOfReading } from '../../../core/trace/speed-of-reading'
import { Problem } from '../../problems'
import { measuredQuantities } from '../measured-quantities'
import type { Procedure, RunContext } from '../measuring-runs'
import type { SheetMachine } from '../sheet-machine'

interface MagnetMotor { readonly segments: number; readonly usualBackEmf: number; readonly heldOhms: number[] }

function magnetMotor({ description }: SheetMachine): Omit<MagnetMotor, 'heldOhms'> {
  const motor = description.motors.find((entry) => entry.field === null)
  if (!motor) throw new Problem(422, 'no-magnet', 'This machine has a wound field: the sweep of a motor with a magnet does not fit it.')
  return { segments: motor.segments, usualBackEmf: motor.backEmf }
}

/** The motor alone: held at several angles, swept both ways, repeated. */
export const sweepProcedure: Procedure = {
  place: 'motor',
  check(machine) {
    magnetMotor(machine)
    if (machine.station === 'rebuild') throw new Problem(422, 'station', 'Between the steps of a rebuild the quick test is taken; the whole sweep belongs to First run and Prove.')
  },
  async run(context) {
    const { opened, machine, tell } = context
    const motor: MagnetMotor = { ...magnetMotor(machine), heldOhms: [] }
    const surroundings = {
      ...opened.surroundings,
      held: async (turn: number): Promise<void> => {
        await context.hand()
        opened.hold(turn)
      },
      free: (): Promise<void> => {
        opened.hold(null)
        return Promise.resolve()
      },
    }
    for await (const event of sweepMotor(opened.client, usualPlan(machine.nominalVolts), surroundings)) {
      if (context.stopped()) return
      await take(context, motor, event)
      if (event.kind === 'stopped') return
    }
    if (!context.stopped()) tell({ status: 'done', hold: null, done: context.state().of, says: `Done: ${context.state().readings} readings are in the sheet. The output is off.` })
  },
}

async function take({ row, tell, keep }: RunContext, motor: MagnetMotor, event: SweepEvent): Promise<void> {
  if (event.kind === 'doing') return tell({ status: 'running', says: event.what, done: event.done, of: event.of, hold: null })
  if (event.kind === 'hold') return tell({ status: 'hold', hold: { turn: event.turn, of: event.of }, says: event.turn === 1 ? 'Hold the armature still with a finger.' : 'Turn the armature a little further and hold it.' })
  if (event.kind === 'let-go') return tell({ says: 'Let go: it may turn now.', hold: null })
  if (event.kind === 'stopped') return tell({ status: 'failed', says: event.sentence, hold: null })
  const { volts, amps, quantities } = measuredQuantities(row, event.volts, event.amps)
  if (event.kind === 'locked') {
    motor.heldOhms.push(volts / amps)
    tell({ latest: { volts, amps, radPerSecond: 0 } })
    return keep({ kind: 'locked', direction: 'forward', vouched: false, quantities: { ...quantities, hold: { typed: '', value: event.turn, resolution: 1, meter: null } } })
  }
  const mean = motor.heldOhms.reduce((sum, ohms) => sum + ohms, 0) / motor.heldOhms.length
  const speed = event.record && event.record.amps.length > 0
    ? speedOfReading({ volts, amps, rate: event.record.rate, record: event.record.amps }, { heldOhms: mean, usualBackEmf: motor.usualBackEmf, segments: motor.segments })
    : null
  const rotation = speed && speed !== 'standing' ? { rotation: { typed: '', value: speed.radPerSecond, resolution: 2 * speed.deviation, meter: null } } : {}
  tell({ latest: { volts, amps, radPerSecond: speed === 'standing' ? 0 : speed?.radPerSecond ?? null } })
  return keep({ kind: speed === 'standing' ? 'locked' : 'running', direction: event.direction, vouched: false, quantities: { ...quantities, ...rotation } })
}
