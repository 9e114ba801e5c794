import type { School } from './schools-of-practice'
import rows from './schools.json'

/** Where practitioners disagree: common practice on both sides, no published source. */
export const schools = rows as readonly School[]
