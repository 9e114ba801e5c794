import { checkDescription } from '../../core/engine/check-description'
import type { CommandPayload } from '../../messages/commands'
import { constructionTemplate } from '../db/schema'
import { cannotBeWritten } from '../problems'
import type { Write } from './write'

/** A construction of the shop's own. It must be sound: what hangs on it would otherwise become unreadable. */
export async function saveConstruction(write: Write, { id, fields }: CommandPayload<'construction.save'>) {
  const problem = checkDescription(fields.description).find((entry) => entry.fatal)
  if (problem) throw cannotBeWritten(problem.message, `fields.description / ${problem.place}`)
  const { before, version } = await write.save(constructionTemplate, id, 'construction', fields)
  write.journal({
    subject: 'construction',
    subjectId: id,
    summary: `Construction “${fields.name}” ${before ? 'changed' : 'brought in'}`,
    before: before && { name: before.name },
    after: { name: fields.name },
  })
  return { id, version }
}
