import { eq } from 'drizzle-orm'
import { products } from '../../core/care/lubrication-card'
import { findScale } from '../../core/measure/scales'
import type { CommandPayload } from '../../messages/commands'
import { engine, engineType } from '../db/schema'
import { cannotBeWritten } from '../problems'
import { refreshJobSearchText } from './job-search-text'
import { mustBeSoundCareRows } from './sound-care-rows'
import type { Write } from './write'

export async function saveEngineType(write: Write, { id, fields }: CommandPayload<'engine-type.save'>) {
  if (fields.scaleId !== null && !findScale(fields.scaleId))
    throw cannotBeWritten(`“${fields.scaleId}” is not a scale known here.`, 'fields.scaleId')
  const strange = (fields.makersAdvice ?? []).find(
    ({ product }) => product !== null && !products.some((row) => row.id === product),
  )
  if (strange)
    throw cannotBeWritten(
      `“${strange.product}” is no class of lubricant that is known: choose the one it belongs to.`,
      'fields.makersAdvice',
    )
  mustBeSoundCareRows(fields.careRows)
  const { before, version } = await write.save(engineType, id, 'engine type', fields)
  write.journal({
    subject: 'engine-type',
    subjectId: id,
    summary: `Type ${fields.maker} ${fields.name} ${before ? 'changed' : 'entered'}`,
    before,
    after: fields,
  })
  if (before && (before.name !== fields.name || before.maker !== fields.maker))
    await refreshJobSearchText(write, eq(engine.typeId, id))
  return { id, version }
}
