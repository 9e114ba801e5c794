import type { CommandPayload } from '../../shared/messages/commands'
import { instrument } from '../db/schema'
import { cannotBeWritten } from '../problems'
import type { Write } from './write'

/** A supply, its address and how it is spoken to. */
export async function saveInstrument(write: Write, { id, fields }: CommandPayload<'instrument.save'>) {
  if (fields.kind === 'network' && fields.host.trim() === '') throw cannotBeWritten('An instrument on the network needs its address.', 'fields.host')
  const { before, version } = await write.save(instrument, id, 'instrument', fields)
  write.journal({ subject: 'instrument', subjectId: id, summary: `Instrument ${fields.name} ${before ? 'changed' : 'entered'}`, before, after: fields })
  return { id, version }
}
