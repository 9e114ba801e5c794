import type { CommandPayload } from '../../messages/commands'
import { instrument } from '../db/schema'
import { whyNotInShop } from '../measuring/instrument-address'
import { cannotBeWritten } from '../problems'
import type { Write } from './write'

/** A supply, its address and how it is spoken to. */
export async function saveInstrument(write: Write, { id, fields }: CommandPayload<'instrument.save'>) {
  if (fields.kind === 'network' && fields.host.trim() === '')
    throw cannotBeWritten('An instrument on the network needs its address.', 'fields.host')
  if (fields.kind === 'network') {
    const sentence = whyNotInShop(fields.host, fields.port)
    if (sentence) throw cannotBeWritten(sentence, 'fields.host')
  }
  const { before, version } = await write.save(instrument, id, 'instrument', fields)
  write.journal({
    subject: 'instrument',
    subjectId: id,
    summary: `Instrument ${fields.name} ${before ? 'changed' : 'entered'}`,
    before,
    after: fields,
  })
  return { id, version }
}
