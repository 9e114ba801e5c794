import { products } from '../../core/care/lubrication-card'
import { careKnowledge } from '../../core/knowledge/care/care-knowledge'
import type { CommandPayload } from '../../messages/commands'
import { shelfProduct } from '../db/schema'
import { cannotBeWritten } from '../problems'
import type { Write } from './write'

/** A bottle of the shelf: of a class that is known, so that the cards can reckon with it. */
export async function saveShelf(write: Write, { id, fields }: CommandPayload<'shelf.save'>) {
  const known =
    fields.product === 'ultrasonic' ||
    careKnowledge.agents.some((agent) => agent.id === fields.product) ||
    products.some((product) => product.id === fields.product)
  if (!known)
    throw cannotBeWritten(
      `“${fields.product}” is no class of agent or lubricant that is known: choose the one it belongs to.`,
      'fields.product',
    )
  const { before, version } = await write.save(shelfProduct, id, 'product', fields)
  write.journal({
    subject: 'shelf',
    subjectId: id,
    summary: `Shelf: ${fields.name}, ${fields.left}`,
    before,
    after: fields,
  })
  return { id, version }
}
