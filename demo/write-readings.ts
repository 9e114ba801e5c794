import { v7 as newId } from 'uuid'
import type { MeterRow } from '../messages/book'
import type { SheetFields } from '../messages/bench-entries'
import type { ReadingFields } from '../messages/readings/reading-kinds'
import type { RecordedQuantity } from '../messages/readings/recorded-quantity'
import { understandLine } from '../messages/readings/typed-line'
import { writeReading } from '../server/commands/add-reading'
import { hashOf, runOnce } from '../server/commands/run-command'
import { relayEventOf } from '../work/relay-lines'
import type { JobPen } from './job-pen'
import type { DemoJob } from './jobs'
import { demoLines, type DemoSheet } from './sheets'

/** A sheet typed at the bench. */
export async function writeSheet(
  pen: JobPen,
  station: 'first-run' | 'prove',
  demo: DemoSheet,
  seed: number,
): Promise<void> {
  const sheetId = newId()
  const { type, meterRows } = pen
  const ac = type.fields.power === 'ac'
  const meter = (name: string): MeterRow | null => meterRows.find((row) => row.name.startsWith(name)) ?? null
  const used = { voltage: meter('Bench meter, 20 V'), current: meter(ac ? 'Track meter' : 'Bench meter, 400 mA') }
  await pen.write(
    'sheet.save',
    {
      id: sheetId,
      jobId: pen.jobId,
      fields: {
        station,
        withMeter: demo.withMeter,
        roomCelsius: demo.celsius ?? null,
        warmedUp: false,
        supply: ac ? 'ac' : type.fields.power === 'dcc' ? 'dcc' : 'smooth-dc',
        voltageMeterId: demo.withMeter ? (used.voltage?.id ?? null) : null,
        currentMeterId: demo.withMeter ? (used.current?.id ?? null) : null,
        remarks: '',
      },
    },
    2,
  )
  for (const line of demoLines(type, demo, seed)) {
    const { fields, errors } = understandLine(line, 'rotation', used)
    if (!fields)
      throw new Error(`The scenario holds a line that cannot be understood: ${JSON.stringify({ line, errors })}`)
    await pen.write('reading.add', { id: newId(), jobId: pen.jobId, sheetId, supersedesId: null, fields }, 0.5)
  }
}

/** Readings the supply took by itself, as its runs write them. */
async function measured(
  pen: JobPen,
  fields: Omit<SheetFields, 'withMeter' | 'roomCelsius' | 'warmedUp' | 'voltageMeterId' | 'currentMeterId' | 'remarks'>,
  readings: readonly ReadingFields[],
): Promise<void> {
  const sheetId = newId()
  await pen.write(
    'sheet.save',
    {
      id: sheetId,
      jobId: pen.jobId,
      fields: {
        ...fields,
        withMeter: true,
        roomCelsius: 20,
        warmedUp: false,
        voltageMeterId: null,
        currentMeterId: null,
        remarks: '',
      },
    },
    2,
  )
  for (const reading of readings) {
    const payload = { id: newId(), jobId: pen.jobId, sheetId, supersedesId: null, fields: reading }
    await runOnce(
      pen.database,
      {
        commandId: newId(),
        name: 'reading.add',
        bodyHash: hashOf('reading.add', payload),
        actor: pen.actor,
        capturedAt: pen.later(0.1),
      },
      (write) => writeReading(write, payload, 'measured'),
    )
  }
}

export async function writeTurns(pen: JobPen, steps: NonNullable<DemoJob['rebuild']>): Promise<void> {
  const readings = steps.flatMap(([step, milliamps, turns]) =>
    milliamps.map((current) => ({
      kind: 'step' as const,
      step,
      turns,
      vouched: false,
      quantities: { voltage: supplyRead(4, 0.001), current: supplyRead(current / 1000, 0.0001) },
    })),
  )
  await measured(pen, { station: 'rebuild', supply: 'smooth-dc' }, readings)
}

export async function writeSeries(pen: JobPen, series: NonNullable<DemoJob['series']>): Promise<void> {
  for (const supply of ['smooth-dc', 'ac'] as const) {
    await measured(
      pen,
      { station: 'first-run', supply },
      series[supply].map(([kind, volts, amps, rpm]) => ({
        kind,
        direction: 'forward' as const,
        vouched: false,
        quantities: {
          voltage: supplyRead(volts, 0.001),
          current: supplyRead(amps, 0.0001),
          ...(rpm === null
            ? {}
            : { rotation: { typed: '', value: (rpm * 2 * Math.PI) / 60, resolution: 1, meter: null } }),
        },
      })),
    )
  }
}

export async function writeSequence(
  pen: JobPen,
  { seen, failures, pullIn }: NonNullable<DemoJob['sequence']>,
): Promise<void> {
  const count = (value: number) => ({ typed: '', value, resolution: 1, meter: null })
  await measured(pen, { station: 'first-run', supply: 'ac' }, [
    ...seen.map(([position, volts, amps], number) => ({
      kind: 'sequence' as const,
      interruption: number,
      position,
      vouched: false,
      quantities: { voltage: supplyRead(volts, 0.001), current: supplyRead(amps, 0.0001) },
    })),
    {
      kind: 'sequence-count' as const,
      pullIn,
      vouched: false,
      quantities: { failures: count(failures), attempts: count(seen.length - 1) },
    },
  ])
}

export async function writeRelay(pen: JobPen, { pullsIn, letsGo }: NonNullable<DemoJob['relay']>): Promise<void> {
  const between = (volts: number): [number, number] => [volts - 0.05, volts + 0.05]
  const line = (event: Parameters<typeof relayEventOf>[0]) => ({
    kind: 'relay' as const,
    ...relayEventOf(event),
    vouched: false,
    quantities: {
      voltage: supplyRead(event.volts, event.kind === 'on-ac' ? 0.001 : 0.1),
      current: supplyRead(event.amps, 0.0001),
    },
  })
  // With its contact closed the horn's 18 Ω lie beside coil and lamp; open they do not.
  await measured(pen, { station: 'first-run', supply: 'smooth-dc' }, [
    ...pullsIn.flatMap((volts, index) => [
      line({ kind: 'pull-in', repeat: index + 1, between: between(volts), volts, amps: volts * 0.085 }),
      line({
        kind: 'drop-out',
        repeat: index + 1,
        between: between(letsGo[index] ?? 2),
        volts: letsGo[index] ?? 2,
        amps: (letsGo[index] ?? 2) * 0.0296,
      }),
    ]),
    line({ kind: 'on-ac', between: null, volts: 13.96, amps: 0.412 }),
  ])
}

function supplyRead(value: number, resolution: number): RecordedQuantity {
  return {
    typed: '',
    value,
    resolution,
    meter: { id: newId(), name: 'Simulated bench supply', percentOfReading: 0.1, digits: 3 },
  }
}
