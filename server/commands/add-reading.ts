import { readingKinds, type ReadingFields } from '../../shared/messages/bench-entries'
import type { CommandPayload } from '../../shared/messages/commands'
import { reading, sheet } from '../db/schema'
import { cannotBeWritten, notInTheBook } from '../problems'
import type { Write } from './write'

/** What each kind of line cannot do without. */
const needed: Record<ReadingFields['kind'], ReadonlyArray<keyof ReadingFields['quantities']>> = {
  running: ['voltage', 'current'],
  locked: ['voltage', 'current'],
  timed: ['distance', 'duration'],
  creep: ['distance', 'duration'],
  stops: ['stops', 'laps'],
  trial: ['failures', 'attempts'],
  dead: [],
}

/** A line of a sheet. It is never changed: a correction is a new line that supersedes it. */
export function addReading(write: Write, payload: CommandPayload<'reading.add'>) {
  return writeReading(write, payload, 'typed')
}

/** A line that was typed, or that an instrument measured. */
export async function writeReading(write: Write, { id, jobId, sheetId, supersedesId, fields }: CommandPayload<'reading.add'>, source: 'typed' | 'measured') {
  for (const quantity of needed[fields.kind]) {
    if (!fields.quantities[quantity]) throw cannotBeWritten(`A line of kind “${readingKinds[fields.kind]}” needs its ${quantity}.`, `fields.quantities.${quantity}`)
  }
  const { failures, attempts } = fields.quantities
  if (failures && attempts && (attempts.value < 1 || failures.value > attempts.value)) {
    throw cannotBeWritten('A trial cannot fail more often than it was attempted.', 'fields.quantities.failures')
  }
  const itsSheet = await write.lock(sheet, sheetId, 'sheet')
  if (itsSheet.jobId !== jobId) throw notInTheBook('sheet of that job')
  await write.transaction.insert(reading).values({
    id, sheetId, kind: fields.kind, direction: fields.direction, quantities: fields.quantities, vouched: fields.vouched, source, step: fields.step ?? '',
    struck: false, strikeReason: '', supersedesId, authorId: write.actor.id, capturedAt: write.capturedAt, receivedAt: write.receivedAt,
  })
  write.journal({ subject: 'reading', subjectId: id, jobId, summary: `Reading: ${describe(fields)}`, after: { supersedesId, ...fields } })
  return { id }
}

function describe({ kind, direction, quantities, step }: ReadingFields): string {
  const typed = Object.entries(quantities).map(([name, quantity]) => `${name} ${quantity?.typed ?? ''}`).join(', ')
  return [step, readingKinds[kind].toLowerCase(), direction, typed].filter(Boolean).join(' ')
}
