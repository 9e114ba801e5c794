import { and, eq, inArray, ne } from 'drizzle-orm'
import type { CommandPayload } from '../../messages/commands'
import { deviations, fates, type StripEntry } from '../../messages/strip-entries'
import { stripState } from '../../work/strip-state'
import { finding, job, searchEntry, stripEntry } from '../db/schema'
import { cannotBeWritten } from '../problems'
import { searchRows, stripRows } from '../services/book-rows'
import { refuseStrike } from './refuse-strike'
import type { Write } from './write'

/** One step of taking apart or putting together. What cannot be so by what stands before it is refused. */
export async function addStripEntry(write: Write, { id, jobId, entry }: CommandPayload<'strip.add'>) {
  await write.lock(job, jobId, 'job')
  const before = await stripRows(write.transaction, eq(stripEntry.jobId, jobId))
  if (entry.kind === 'not-as-planned' && entry.findingId !== null)
    await write.mustNotLieElsewhere(finding, entry.findingId, 'finding', { jobId })
  if (entry.kind === 'trays') await refuseSharedTrays(write, jobId, entry.trays)
  const searched = await searchRows(write.transaction, eq(searchEntry.jobId, jobId))
  const state = stripState(before, searched)
  if (entry.kind === 'off' && state.off.has(entry.part))
    throw cannotBeWritten(`${entry.words} is off already.`, 'entry.part')
  if (entry.kind === 'back' && !state.off.has(entry.part))
    throw cannotBeWritten(`${entry.words} is not off: it cannot go back.`, 'entry.part')
  if ((entry.kind === 'off' || entry.kind === 'moved') && entry.cell !== null) {
    const { tray, row, column } = entry.cell
    const lies = state.lying.find(
      ({ part, cell }) => part !== entry.part && cell?.tray === tray && cell.row === row && cell.column === column,
    )
    if (lies) throw cannotBeWritten(`In that cell lies ${lies.words} already.`, 'entry.cell')
  }
  if (entry.kind === 'struck') refuseStrike(before, entry.entryId)
  await write.transaction.insert(stripEntry).values({
    id,
    jobId,
    entry,
    authorId: write.actor.id,
    capturedAt: write.capturedAt,
    receivedAt: write.receivedAt,
  })
  write.journal({ subject: 'strip', subjectId: id, jobId, summary: summaryOf(entry), after: entry })
  return { id }
}

/** Two engines share no tray: one with something of another job in it is refused. */
async function refuseSharedTrays(write: Write, jobId: string, trays: readonly string[]): Promise<void> {
  if (trays.length === 0) return
  const others = await write.transaction
    .select({ id: job.id, number: job.number })
    .from(job)
    .where(and(inArray(job.state, ['open', 'waiting']), ne(job.id, jobId)))
  if (others.length === 0) return
  const rows = await stripRows(
    write.transaction,
    inArray(
      stripEntry.jobId,
      others.map((row) => row.id),
    ),
  )
  for (const { id, number } of others) {
    const state = stripState(rows.filter((row) => row.jobId === id))
    if (state.lying.some((thing) => thing.cell && trays.includes(thing.cell.tray)))
      throw cannotBeWritten(`Things of job ${number} lie in this tray: two engines share none.`, 'entry.trays')
  }
}

function summaryOf(entry: StripEntry): string {
  switch (entry.kind) {
    case 'goals':
      return entry.goals.length === 0
        ? 'Opened for nothing in particular'
        : `To be opened for ${entry.goals.length} things`
    case 'trays':
      return 'Trays chosen'
    case 'off':
      return `Off: ${entry.words}`
    case 'not-as-planned':
      return `${deviations[entry.what]}: ${entry.words}`
    case 'moved':
      return `Laid elsewhere: ${entry.words}`
    case 'back':
      return `${fates[entry.fate]}: ${entry.words}`
    case 'done':
      return `Done on the way back: ${entry.words}`
    case 'provisional':
      return `${entry.gone ? 'Taken away again' : 'Provisional'}: ${entry.words}`
    case 'signed-off':
      return `Signed off, “${entry.words}”: ${entry.open.join(', ')}`
    case 'struck':
      return `Struck out: ${entry.words}`
  }
}
