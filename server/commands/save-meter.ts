import type { CommandPayload } from '../../messages/commands'
import { meter } from '../db/schema'
import type { Write } from './write'

/** A meter's range and accuracy. Readings keep them as they were when taken. */
export async function saveMeter(write: Write, { id, fields }: CommandPayload<'meter.save'>) {
  const { before, version } = await write.save(meter, id, 'meter', fields)
  write.journal({
    subject: 'meter',
    subjectId: id,
    summary: `Meter ${fields.name} ${before ? 'changed' : 'entered'}`,
    before,
    after: fields,
  })
  return { id, version }
}
