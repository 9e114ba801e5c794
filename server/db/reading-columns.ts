import type { ReadingFields } from '../../messages/readings/reading-kinds'
import type { reading } from './schema'

type ReadingColumns = Pick<typeof reading.$inferSelect, 'kind' | 'direction' | 'quantities' | 'vouched' | 'detail'>

/** A reading as its row holds it: what every kind may have in columns, what is its kind's own in `detail`. */
export function readingColumns(fields: ReadingFields): ReadingColumns {
  const {
    kind,
    quantities,
    vouched,
    direction = null,
    ...detail
  } = fields as ReadingFields & {
    direction?: 'forward' | 'reverse'
  }
  return { kind, direction, quantities, vouched, detail: Object.keys(detail).length > 0 ? detail : null }
}

/** The reading of a row; what is written was checked, so it is one of its kind. */
export function readingOfColumns({ kind, direction, quantities, vouched, detail }: ReadingColumns): ReadingFields {
  return { kind, ...(direction ? { direction } : {}), quantities, vouched, ...detail } as ReadingFields
}
