import type { CommandPayload } from '../../messages/commands'
import { constructionTemplate, engine, engineType } from '../db/schema'
import type { Write } from './write'

/** How one engine departs from its type. The list is kept as it is; what cannot be applied is flagged when it is read. */
export async function adaptEngine(write: Write, { id, fields }: CommandPayload<'engine.adapt'>) {
  await write.lock(engine, id, 'engine')
  const { before, version } = await write.save(engine, id, 'engine', fields)
  write.journal({
    subject: 'engine',
    subjectId: id,
    summary: summaryOf(fields.adaptations.length, 'Engine as its type'),
    before: before?.adaptations,
    after: fields.adaptations,
  })
  return { id, version }
}

/** How a type departs from its construction, or which of the shop's own constructions it has. */
export async function adaptEngineType(write: Write, { id, fields }: CommandPayload<'engine-type.adapt'>) {
  await write.lock(engineType, id, 'engine type')
  if (fields.templateId !== null) await write.lock(constructionTemplate, fields.templateId, 'construction')
  const { before, version } = await write.save(engineType, id, 'engine type', fields)
  write.journal({
    subject: 'engine-type',
    subjectId: id,
    summary: summaryOf(fields.adaptations.length, 'Type as its construction'),
    before: before && { templateId: before.templateId, adaptations: before.adaptations },
    after: fields,
  })
  return { id, version }
}

const summaryOf = (count: number, none: string): string =>
  count === 0 ? none : count === 1 ? 'One difference noted' : `${count} differences noted`
