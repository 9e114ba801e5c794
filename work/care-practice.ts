import { careKnowledge } from '../core/knowledge/care/care-knowledge'
import type { CareKnowledge } from '../core/knowledge/care/care-schema'
import { ownCareKnowledge, type OwnCareRows, type PointAmount } from '../core/knowledge/care/own-care-rows'
import type { JobBook } from '../messages/book'

type Own = Pick<JobBook, 'practice' | 'type'>

/** What the shop does otherwise, then what it does otherwise on this type: the later goes before the earlier. */
const ownRows = ({ practice, type }: Own): OwnCareRows[] =>
  [practice.careRows, type.careRows].filter((rows) => rows !== null && rows !== undefined)

/** What is known of cleaning, as this shop has it for this type. */
export function careKnowledgeOf(book: Own): CareKnowledge {
  const own = ownRows(book)
  return own.length === 0 ? careKnowledge : ownCareKnowledge(careKnowledge, own)
}

/** What this shop puts to which kind of point, the type’s own last. */
export const ownAmountsOf = (book: Own): PointAmount[] => ownRows(book).flatMap((rows) => rows.amounts)
