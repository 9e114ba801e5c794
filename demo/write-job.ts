import { v7 as newId } from 'uuid'
import { stationIds } from '../messages/vocabulary'
import { drawPhotograph } from './draw-photograph'
import { DAY_MS, type JobPen } from './job-pen'
import type { DemoJob } from './jobs'
import { writeRelay, writeSequence, writeSeries, writeSheet, writeTurns } from './write-readings'
import { writeCare, writeFinding, writeSearch } from './write-search-and-care'
import { photographSister, writeStrip } from './write-steps'

/** Where a job stands in the book besides itself. */
export interface JobPlace {
  readonly ownerId: string
  readonly engineId: string
  readonly parcelId: string | null
  /** Its number in the scenario: pictures and readings differ by it. */
  readonly index: number
  readonly takenIn: Date
  readonly now: Date
}

/** Writes one job as the bench would have: taken in, searched, stripped, measured, moved on, handed back. */
export async function writeJob(pen: JobPen, demo: DemoJob, place: JobPlace): Promise<void> {
  const version = await takeIn(pen, demo, place)
  await photographArrival(pen, demo, place.index)
  if (demo.first) await writeSheet(pen, 'first-run', demo.first, place.index * 2 + 1)
  const taught = await writeSearch(pen, demo)
  await writeCare(pen, demo)
  if (demo.handBack) await photographSister(pen)
  else await writeStrip(pen)
  await writeLedger(pen, demo)
  if (demo.wait) {
    const [label, hours] = demo.wait
    const endsAt = new Date(place.now.getTime() + hours * 3600 * 1000).toISOString()
    const fields = { jobId: pen.jobId, station: demo.station, label, endsAt }
    await pen.write('timer.begin', { id: newId(), fields }, 1)
  }
  if (demo.prove) await writeSheet(pen, 'prove', demo.prove, place.index * 2 + 2)
  if (demo.series) await writeSeries(pen, demo.series)
  if (demo.sequence) await writeSequence(pen, demo.sequence)
  if (demo.relay) await writeRelay(pen, demo.relay)
  if (demo.rebuild) await writeTurns(pen, demo.rebuild)
  const moved = await moveOn(pen, demo, version)
  if (demo.handBack) await handBack(pen, demo, demo.handBack, place, moved, taught)
}

/** @returns the job's version */
async function takeIn(pen: JobPen, demo: DemoJob, { ownerId, engineId, parcelId, now }: JobPlace): Promise<number> {
  const day = (days: number): string => new Date(now.getTime() + days * DAY_MS).toISOString().slice(0, 10)
  const { version = 1 } = await pen.write(
    'job.take-in',
    {
      jobId: pen.jobId,
      owner: { existing: ownerId },
      type: null,
      engine: { existing: engineId },
      job: {
        complaint: demo.complaint,
        trial: demo.trial ?? '',
        trialAttempts: demo.first?.trial?.[1] ?? 10,
        wanted: demo.wanted ?? '',
        moneyLimit: demo.limit ?? null,
        sentimental: demo.sentimental ?? false,
        consent: demo.consent ?? '',
        conditionOnArrival: demo.condition ?? '',
        dueOn: demo.dueIn === undefined ? null : day(demo.dueIn),
        estimateMinutes: demo.estimate ?? null,
        arrivals: (demo.arrivals ?? []).map(([kind, what, fate]) => ({ id: newId(), kind, what, fate: fate ?? null })),
        told: (demo.told ?? []).map(([test, outcome, words]) => ({ test, outcome, words })),
        parcelId,
      },
    },
    0,
  )
  return version
}

async function photographArrival(pen: JobPen, demo: DemoJob, index: number): Promise<void> {
  for (const [ordinal, caption] of (demo.photographs ?? []).entries()) {
    const bytes = await drawPhotograph(pen.engine.livery, pen.type.looks, index * 10 + ordinal + 1)
    const station = ordinal === 0 ? ('take-in' as const) : ('find' as const)
    await pen.photograph({ id: newId(), station, caption, about: null }, 2, bytes)
  }
}

/** Findings, notes and parts. */
async function writeLedger(pen: JobPen, demo: DemoJob): Promise<void> {
  const { jobId } = pen
  for (const [what, place, state, origin, remedy, suspect] of demo.findings ?? []) {
    const findingId = await writeFinding(pen, { what, place, origin, remedy }, state)
    if (!suspect) continue
    const entry = { kind: 'confirmed' as const, suspect, words: what, findingId, believed: [] }
    await pen.write('search.add', { id: newId(), jobId, entry }, 1)
  }
  for (const [station, text, minutes] of demo.notes ?? []) {
    const fields = { station, text, minutes, supersedesId: null }
    await pen.write('note.add', { id: newId(), jobId, fields }, minutes)
  }
  for (const [what, quantity, state, price] of demo.parts ?? []) {
    const fields = { what, quantity, state, price: price ?? null }
    await pen.write('part.save', { id: newId(), jobId, fields }, 1)
  }
}

/** From station to station up to where it stands. @returns the job's version */
async function moveOn(pen: JobPen, demo: DemoJob, taken: number): Promise<number> {
  let version = taken
  const move = async (station: DemoJob['station'], waits: boolean): Promise<void> => {
    const state = waits ? ('waiting' as const) : ('open' as const)
    const fields = { station, state, waitingFor: waits || station === demo.station ? (demo.waitingFor ?? '') : '' }
    const moved = await pen.write('job.move', { id: pen.jobId, fields }, 1, { expectedVersion: version })
    version = moved.version ?? version
  }
  const reached = stationIds.indexOf(demo.station)
  for (const station of stationIds.slice(1, reached + 1))
    if (!(demo.handBack && station === 'hand-back'))
      await move(station, station === demo.station && demo.state === 'waiting')
  if (reached === 0 && demo.state === 'waiting') await move('take-in', true)
  return version
}

async function handBack(
  pen: JobPen,
  demo: DemoJob,
  { leftUndone = '', lubricants = '', dueAgain = '', partsReturned = '', price }: NonNullable<DemoJob['handBack']>,
  { takenIn }: JobPlace,
  expectedVersion: number,
  taught: readonly string[] | undefined,
): Promise<void> {
  const { jobId } = pen
  pen.clock = Math.max(pen.clock, takenIn.getTime() + (demo.outAfter ?? 1) * DAY_MS)
  const fields = { leftUndone, lubricants, dueAgain, partsReturned, price }
  await pen.write('job.hand-back', { id: jobId, fields }, 0, { expectedVersion })
  if (taught)
    await pen.write(
      'knowledge.learn',
      { id: newId(), jobId, fields: { suspects: [...taught], typeNote: '', withdrawn: false } },
      0,
    )
}
