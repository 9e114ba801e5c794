import { eq } from 'drizzle-orm'
import type { CommandPayload } from '../../messages/commands'
import { setting } from '../db/schema'
import { staleWrite } from '../problems'
import { mustBeSoundCareRows } from './sound-care-rows'
import type { Write } from './write'

/** Name, address, rate and tax of the shop. */
export async function saveWorkshop(write: Write, { fields }: CommandPayload<'workshop.save'>) {
  mustBeSoundCareRows(fields.careRows)
  const [before] = await write.transaction.select().from(setting).where(eq(setting.key, 'workshop')).for('update')
  const current = before?.version ?? 0
  if ((write.expectedVersion ?? 0) !== current) throw staleWrite('workshop setting', before)
  const version = current + 1
  if (before) await write.transaction.update(setting).set({ value: fields, version }).where(eq(setting.key, 'workshop'))
  else await write.transaction.insert(setting).values({ key: 'workshop', value: fields, version })
  write.journal({
    subject: 'setting',
    subjectId: 'workshop',
    summary: 'Workshop settings changed',
    before: before?.value,
    after: fields,
  })
  return { id: 'workshop', version }
}
