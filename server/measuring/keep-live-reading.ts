import { and, desc, eq, inArray, ne } from 'drizzle-orm'
import { v7 as newId } from 'uuid'
import type { KeptReading } from '../../messages/live-bench'
import { writeReading } from '../commands/add-reading'
import { hashOf, runOnce } from '../commands/run-command'
import type { Actor, Write } from '../commands/write'
import type { Database } from '../db/book'
import { instrument, job, sheet } from '../db/schema'
import { notInTheBook, Problem } from '../problems'
import type { LiveBenches } from './live-benches'
import { measuredQuantities } from './measured-quantities'

/** The kept reading is the mean of this last stretch. */
const SECONDS = 1
/** Where the current wanders by more than this share within it, it has not settled. */
const STEADY_SHARE = 0.25
const LEAST_AMPS = 0.002

/**
 * Writes what a live supply reads now into the latest sheet with a meter of the engine's open job, once however often it
 * is sent. A speed reckoned from the usual winding is not a measured one: it is left out.
 *
 * @param held a hand holds the armature
 * @throws Problem 404, 409 when there is no bench, engine or sheet for it, 422 when there is no reading to keep
 */
export async function keepLiveReading(
  database: Database,
  benches: LiveBenches,
  actor: Actor,
  instrumentId: string,
  { commandId, held }: { commandId: string; held: boolean },
): Promise<KeptReading> {
  const { result } = await runOnce(
    database,
    {
      commandId,
      name: 'reading.live',
      bodyHash: hashOf('reading.live', { instrumentId, held }),
      actor,
      capturedAt: new Date(),
    },
    async (write) => {
      const [row] = await write.transaction.select().from(instrument).where(eq(instrument.id, instrumentId))
      if (!row) throw notInTheBook('instrument')
      const { state, readings } = benches.now(instrumentId)
      const found = await sheetFor(write.transaction, state.engine)
      const mean = settled(state.settings.on, readings)
      // The ring has the loss in the leads taken off already.
      const { volts, quantities } = measuredQuantities({ ...row, leadOhms: 0 }, mean.volts, mean.amps)
      const kind = held ? ('locked' as const) : ('running' as const)
      const direction = !held && state.settings.reversed ? ('reverse' as const) : ('forward' as const)
      const readingId = newId()
      await writeReading(
        write,
        {
          id: readingId,
          jobId: found.jobId,
          sheetId: found.sheetId,
          supersedesId: null,
          fields: { kind, direction, vouched: false, quantities },
        },
        'measured',
      )
      return { readingId, ...found, kind, direction, volts, amps: mean.amps } satisfies KeptReading
    },
  )
  return result as KeptReading
}

/** The latest sheet with a meter of the engine's open job. */
async function sheetFor(
  transaction: Write['transaction'],
  engine: ReturnType<LiveBenches['now']>['state']['engine'],
): Promise<Pick<KeptReading, 'sheetId' | 'jobId' | 'jobNumber' | 'station'>> {
  if (!engine)
    throw new Problem(
      409,
      'no-engine',
      'No engine was named for this bench: close it and choose one, then there is a sheet to write into.',
    )
  const [found] = await transaction
    .select({ sheetId: sheet.id, jobId: job.id, jobNumber: job.number, station: sheet.station })
    .from(sheet)
    .innerJoin(job, eq(sheet.jobId, job.id))
    .where(
      and(
        eq(job.engineId, engine.id),
        ne(job.state, 'handed-back'),
        eq(sheet.withMeter, true),
        inArray(sheet.station, ['first-run', 'prove']),
      ),
    )
    .orderBy(desc(sheet.openedAt), desc(sheet.id))
    .limit(1)
  if (!found)
    throw new Problem(
      409,
      'no-sheet',
      `${engine.name} has no open job with a sheet for a meter: open one at First run or Prove.`,
    )
  return found
}

/** The mean of the last stretch of a ring, where it has settled. */
function settled(
  on: boolean,
  readings: ReturnType<LiveBenches['now']>['readings'],
): { readonly volts: number; readonly amps: number } {
  const since = (readings.at(-1)?.at ?? 0) - SECONDS * 1000
  const latest = readings.filter((reading) => reading.at >= since)
  if (!on || latest.length === 0) throw new Problem(422, 'off', 'The output is off: there is nothing to keep.')
  if (latest.some((reading) => reading.limited))
    throw new Problem(422, 'limited', 'The supply is at its current limit: what it reads is the limit, not the motor.')
  const mean = (pick: (reading: (typeof latest)[number]) => number): number =>
    latest.reduce((sum, reading) => sum + Math.abs(pick(reading)), 0) / latest.length
  const amps = mean((reading) => reading.amps)
  if (amps < LEAST_AMPS)
    throw new Problem(422, 'no-current', 'Nothing flows: a dead machine is written down as Dead, not as a reading.')
  const sizes = latest.map((reading) => Math.abs(reading.amps))
  if (Math.max(...sizes) - Math.min(...sizes) > STEADY_SHARE * amps)
    throw new Problem(
      422,
      'unsteady',
      `The current still wanders between ${milliamps(Math.min(...sizes))} and ${milliamps(Math.max(...sizes))} mA: wait until it has settled.`,
    )
  return { volts: mean((reading) => reading.volts), amps }
}

function milliamps(amps: number): string {
  return (amps * 1000).toFixed(0)
}
