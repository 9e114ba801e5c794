import rows from './lubrication.json'
import type { LubricationPointKind } from './lubrication-points'

/** What a kind of care point gets, and how much. */
export interface LubricationRow {
  readonly point: LubricationPointKind
  /** Class of product; null where nothing goes. */
  readonly product: string | null
  readonly drops: number
  readonly amount: string
  /** Why nothing goes there; empty where something does. */
  readonly because: string
  readonly source: string
}

export const lubrication = new Map((rows as LubricationRow[]).map((row) => [row.point, row]))
