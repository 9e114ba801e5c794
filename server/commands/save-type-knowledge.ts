import { checkKnowledge } from '../../core/knowledge/check-knowledge'
import { changedKnowledge, countChanges, noChanges } from '../../core/knowledge/knowledge-changes'
import { diagnosisKnowledge } from '../../core/knowledge/diagnosis-knowledge'
import type { CommandPayload } from '../../messages/commands'
import { engineType, typeKnowledge } from '../db/schema'
import { Problem } from '../problems'
import type { Write } from './write'

const MOST_FLAWS = 20

/** A type's own copy of the knowledge; refused, row by row, where it does not hold together. */
export async function saveTypeKnowledge(write: Write, { id, fields }: CommandPayload<'type-knowledge.save'>) {
  const type = await write.lock(engineType, id, 'engine type')
  const flaws = checkKnowledge(changedKnowledge(diagnosisKnowledge, fields.changes))
  if (flaws.length > 0)
    throw new Problem(422, 'invalid', flaws[0]?.message ?? '', {
      fields: flaws.slice(0, MOST_FLAWS).map(({ place, message }) => ({ field: place, message })),
    })
  const { before, version } = await write.save(typeKnowledge, id, 'copy of the knowledge', { changes: fields.changes })
  const count = countChanges(fields.changes)
  write.journal({
    subject: 'knowledge',
    subjectId: id,
    summary:
      count === 0
        ? `What is known of ${type.maker} ${type.name} was set back to what ships`
        : `What is known of ${type.maker} ${type.name}: ${count} ${count === 1 ? 'row differs' : 'rows differ'} from what ships`,
    before: before?.changes ?? noChanges,
    after: fields.changes,
  })
  return { id, version }
}
