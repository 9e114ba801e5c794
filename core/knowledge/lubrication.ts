import type { CarePoint } from '../engine/description-schema'
import rows from './lubrication.json'

/** What a kind of care point gets, and how much. */
export interface LubricationRow {
  readonly point: CarePoint['kind']
  /** Class of product; null where nothing goes. */
  readonly product: string | null
  readonly drops: number
  readonly amount: string
  readonly source: string
}

export const lubrication = new Map((rows as LubricationRow[]).map((row) => [row.point, row]))
