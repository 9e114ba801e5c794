import { products } from '../../core/care/lubrication-card'
import { careKnowledge } from '../../core/knowledge/care/care-knowledge'
import { checkOwnCareRows, type OwnCareRows } from '../../core/knowledge/care/own-care-rows'
import { Problem } from '../problems'

/**
 * Own rows of cleaning and oil, refused row by row where they do not hold together.
 *
 * @throws Problem 422
 */
export function mustBeSoundCareRows(rows: OwnCareRows | null | undefined): void {
  if (!rows) return
  const flaws = checkOwnCareRows(
    careKnowledge,
    rows,
    products.map((product) => product.id),
  )
  const [first] = flaws
  if (first)
    throw new Problem(422, 'invalid', first.message, {
      fields: flaws.map(({ place, message }) => ({ field: `fields.careRows.${place}`, message })),
    })
}
