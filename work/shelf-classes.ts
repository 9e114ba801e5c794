import type { ShelfRow } from '../messages/book'

/** Oils and greases by what is their household kin: what a label forbids on plastic counts as that. */
const kin: Readonly<Record<string, string>> = {
  'light oil': 'thin household oil',
  'medium oil': 'thin household oil',
  'gear oil': 'thin household oil',
  'gear grease': 'petroleum jelly',
  'heavy gear lubricant': 'petroleum jelly',
}

/**
 * Classes of agents and lubricants that stand on the shelf, by their labels; an empty bottle is none. Nothing at all
 * where the shop has never entered any: then the cards take everything for granted.
 */
export function shelfClasses(shelf: readonly ShelfRow[]): string[] | undefined {
  if (shelf.length === 0) return undefined
  return [
    ...new Set(
      shelf
        .filter((row) => row.left !== 'empty')
        .map(({ product, labelled }) => {
          if (product === 'contact-cleaner' && labelled === 'plastic-safe') return 'contact-cleaner-safe'
          if (product === 'contact-cleaner-safe' && labelled === 'off-plastic') return 'contact-cleaner'
          return labelled === 'off-plastic' ? (kin[product] ?? product) : product
        }),
    ),
  ]
}
