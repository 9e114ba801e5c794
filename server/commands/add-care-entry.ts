import { eq } from 'drizzle-orm'
import { finishRows } from '../../core/care/finish-tasks'
import { careKnowledge } from '../../core/knowledge/care/care-knowledge'
import type { CareEntry } from '../../messages/care-entries'
import type { CommandPayload } from '../../messages/commands'
import { careEntry, job } from '../db/schema'
import { cannotBeWritten } from '../problems'
import { careRows } from '../services/book-rows'
import { refuseStrike } from './refuse-strike'
import type { Write } from './write'

/** One entry of cleaning and oiling. What cannot be so by what stands before it is refused. */
export async function addCareEntry(write: Write, { id, jobId, entry }: CommandPayload<'care.add'>) {
  await write.lock(job, jobId, 'job')
  refuseUnknown(entry)
  if (entry.kind === 'struck')
    refuseStrike(await careRows(write.transaction, eq(careEntry.jobId, jobId)), entry.entryId)
  await write.transaction.insert(careEntry).values({
    id,
    jobId,
    entry,
    authorId: write.actor.id,
    capturedAt: write.capturedAt,
    receivedAt: write.receivedAt,
  })
  write.journal({ subject: 'care', subjectId: id, jobId, summary: summaryOf(entry), after: entry })
  return { id }
}

/** An agent or a tool that nobody knows is no way to clean anything. */
function refuseUnknown(entry: CareEntry): void {
  const { agents, methods, soils } = careKnowledge
  const known = (rows: ReadonlyArray<{ id: string }>, id: string): boolean => rows.some((row) => row.id === id)
  if (entry.kind === 'soil') {
    const wrong = entry.soils.find((soil) => !known(soils, soil))
    if (wrong !== undefined) throw cannotBeWritten(`“${wrong}” is no soil that is known here.`, 'entry.soils')
  }
  if (entry.kind === 'finish' || entry.kind === 'finished') {
    const row = finishRows.find(({ id }) => id === entry.task)
    if (!row) throw cannotBeWritten(`“${entry.task}” is no work on finish or detail that is known here.`, 'entry.task')
    if (entry.kind === 'finished' && entry.step > row.steps.length)
      throw cannotBeWritten(`“${row.name}” has ${row.steps.length} steps.`, 'entry.step')
  }
  if (entry.kind !== 'way' && entry.kind !== 'cleaned') return
  if (entry.agent !== null && !known(agents, entry.agent))
    throw cannotBeWritten(`Nobody here knows what the agent “${entry.agent}” does.`, 'entry.agent')
  if (!known(methods, entry.method))
    throw cannotBeWritten(`Nobody here knows what the tool “${entry.method}” does.`, 'entry.method')
}

function summaryOf(entry: CareEntry): string {
  switch (entry.kind) {
    case 'soil':
      return entry.soils.length === 0 ? `Clean: ${entry.words}` : `Dirty: ${entry.words}`
    case 'way':
      return entry.word ? `Overruled, “${entry.word}”: ${entry.words}` : `Another way: ${entry.words}`
    case 'cleaned':
      return `Cleaned: ${entry.words}`
    case 'oiled':
      return `Oiled: ${entry.words}`
    case 'soaked-off':
      return `Too much oil soaked off: ${entry.words}`
    case 'finish':
      return `${entry.wanted ? 'Wanted' : 'Not wanted any more'}: ${entry.words}${entry.word ? `, overruled, “${entry.word}”` : ''}`
    case 'finished':
      return `Done: ${entry.words}`
    case 'near-mint':
      return entry.words
    case 'left':
      return `Left: ${entry.words}`
    case 'struck':
      return `Struck out: ${entry.words}`
  }
}
