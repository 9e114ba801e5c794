import { sweepMotor, usualPlan, usualSeriesPlan, type SweepPlan } from '../../../bench/supply/motor-sweep'
import type { SweepEvent } from '../../../bench/supply/sweep-steps'
import { speedOfReading } from '../../../core/trace/speed-of-reading'
import { Problem } from '../../problems'
import { firstMotorClamp } from '../clamp-advice'
import { measuredQuantities } from '../measured-quantities'
import type { Procedure, RunContext } from '../measuring-runs'
import type { SheetMachine } from '../sheet-machine'

/** What is known of the motor before its speed is. */
interface MotorKnown {
  readonly segments: number
  readonly usualBackEmf: (amps: number) => number
  readonly heldOhms: number[]
}

function motorKnown({ description }: SheetMachine): MotorKnown {
  const [motor] = description.motors
  if (!motor) throw new Problem(422, 'no-motor', 'This machine has no motor.')
  // A wound field is as strong as the current through it.
  return {
    segments: motor.segments,
    usualBackEmf: (amps) => motor.backEmf * (motor.field === null ? 1 : amps),
    heldOhms: [],
  }
}

function planOf({ description, nominalVolts, supply }: SheetMachine): SweepPlan {
  const wound = description.motors[0]?.field !== null
  return wound ? usualSeriesPlan(nominalVolts, supply === 'ac' ? 'ac' : 'dc') : usualPlan(nominalVolts)
}

/** The motor alone: held at several angles, swept, repeated; a wound field on the supply its sheet is for. */
export const sweepProcedure: Procedure = {
  clamp: ({ description }) => firstMotorClamp(description),
  check(machine) {
    motorKnown(machine)
    if (machine.station === 'rebuild')
      throw new Problem(
        422,
        'station',
        'Between the steps of a rebuild the quick test is taken; the whole sweep belongs to First run and Prove.',
      )
  },
  async run(context) {
    const { opened, machine, tell } = context
    const motor = motorKnown(machine)
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
    for await (const event of sweepMotor(opened.client, planOf(machine), surroundings)) {
      if (context.stopped()) return
      await take(context, motor, event)
      if (event.kind === 'stopped') return
    }
    if (!context.stopped())
      tell({
        status: 'done',
        hold: null,
        done: context.state().of,
        says: `Done: ${context.state().readings} readings are in the sheet. The output is off.`,
      })
  },
}

async function take({ row, tell, keep }: RunContext, motor: MotorKnown, event: SweepEvent): Promise<void> {
  if (event.kind === 'doing')
    return tell({ status: 'running', says: event.what, done: event.done, of: event.of, hold: null })
  if (event.kind === 'hold')
    return tell({
      status: 'hold',
      hold: { turn: event.turn, of: event.of },
      says:
        event.turn === 1 ? 'Hold the armature still with a finger.' : 'Turn the armature a little further and hold it.',
    })
  if (event.kind === 'let-go') return tell({ says: 'Let go: it may turn now.', hold: null })
  if (event.kind === 'cooling') return tell({ says: `Cooling for ${event.seconds} s, the output is off.`, hold: null })
  if (event.kind === 'stopped') return tell({ status: 'failed', says: event.sentence, hold: null })
  const { volts, amps, quantities } = measuredQuantities(row, event.volts, event.amps)
  if (event.kind === 'locked') {
    motor.heldOhms.push(volts / amps)
    tell({ latest: { volts, amps, radPerSecond: 0 } })
    return keep({
      kind: 'locked',
      direction: 'forward',
      vouched: false,
      quantities: { ...quantities, hold: { typed: '', value: event.turn, resolution: 1, meter: null } },
    })
  }
  const mean = motor.heldOhms.reduce((sum, ohms) => sum + ohms, 0) / motor.heldOhms.length
  const speed =
    event.record && event.record.amps.length > 0
      ? speedOfReading(
          { volts, amps, rate: event.record.rate, record: event.record.amps },
          { heldOhms: mean, usualBackEmf: motor.usualBackEmf(amps), segments: motor.segments },
        )
      : null
  const rotation =
    speed && speed !== 'standing'
      ? { rotation: { typed: '', value: speed.radPerSecond, resolution: 2 * speed.deviation, meter: null } }
      : {}
  tell({ latest: { volts, amps, radPerSecond: speed === 'standing' ? 0 : (speed?.radPerSecond ?? null) } })
  return keep({
    kind: speed === 'standing' ? 'locked' : 'running',
    direction: event.direction,
    vouched: false,
    quantities: { ...quantities, ...rotation },
  })
}
