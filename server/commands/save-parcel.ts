import { eq } from 'drizzle-orm'
import type { CommandPayload } from '../../messages/commands'
import { job, owner, parcel } from '../db/schema'
import { cannotBeWritten } from '../problems'
import type { Write } from './write'

/** A parcel, or a change of it: it closes when all of it is packed, or with a word on what stays behind. */
export async function saveParcel(write: Write, { id, fields }: CommandPayload<'parcel.save'>) {
  const itsOwner = await write.lock(owner, fields.ownerId, 'owner')
  const engines = await write.transaction
    .select({ id: job.id, number: job.number })
    .from(job)
    .where(eq(job.parcelId, id))
  const jobs = new Set(engines.map((row) => row.id))
  const [known] = await write.transaction.select({ ownerId: parcel.ownerId }).from(parcel).where(eq(parcel.id, id))
  if (known && known.ownerId !== fields.ownerId && engines.length > 0)
    throw cannotBeWritten('Engines came in it already: it stays with the owner it came from.', 'fields.ownerId')
  const strange = fields.items.find((item) => item.jobId !== null && !jobs.has(item.jobId))
  if (strange)
    throw cannotBeWritten(
      `“${strange.what}” is said to belong to a job that did not come in this parcel.`,
      'fields.items',
    )
  const packed = new Set(fields.packed)
  const left = [
    ...engines.filter((row) => !packed.has(row.id)).map((row) => `job ${row.number}`),
    ...fields.items.filter((item) => !packed.has(item.id)).map((item) => item.what),
  ]
  if (fields.sentBackOn !== null && left.length > 0 && fields.remarks.trim() === '')
    throw cannotBeWritten(
      `Not packed yet: ${left.slice(0, 5).join(', ')}${left.length > 5 ? ` and ${left.length - 5} more` : ''}. Pack it, or say why it stays behind.`,
      'fields.sentBackOn',
    )
  const { before, version } = await write.save(parcel, id, 'parcel', fields)
  write.journal({
    subject: 'parcel',
    subjectId: id,
    summary: fields.sentBackOn
      ? `Parcel of ${itsOwner.name} sent back`
      : before
        ? `Parcel of ${itsOwner.name} changed`
        : `Parcel of ${itsOwner.name} came in`,
    before,
    after: fields,
  })
  return { id, version }
}
