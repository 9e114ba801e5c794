import type { CareRow } from '../messages/book'
import { careState } from './care-state'

/**
 * What was used, for the sheet the owner gets: each product once, with how many points it went to.
 *
 * Such as “light oil (3 points), gear grease (1 point)”
 */
export function oiledInWords(care: readonly CareRow[]): string {
  const points = new Map<string, number>()
  for (const { product } of careState(care).oiled.values()) points.set(product, (points.get(product) ?? 0) + 1)
  return [...points].map(([product, count]) => `${product} (${count} ${count === 1 ? 'point' : 'points'})`).join(', ')
}
