import type { CarePoint } from '../engine/description-schema'
import rows from './lubrication.json'

/** What a kind of care point gets, and how much. */
export interface LubricationRow {
  /** A care point’s kind; rollers and felt pads are told by the part they are. */
  readonly point: CarePoint['kind'] | 'roller-spindle' | 'felt-pad'
  /** Class of product; null where nothing goes. */
  readonly product: string | null
  readonly drops: number
  readonly amount: string
  /** Why nothing goes there; empty where something does. */
  readonly because: string
  readonly source: string
}

export const lubrication = new Map((rows as LubricationRow[]).map((row) => [row.point, row]))
