import type { Circumstance } from '../core/knowledge/knowledge-schema'

/** Why an engine came and what is known of its past, as it is ticked; in the order it is shown. */
export const circumstanceWords: Readonly<Partial<Record<Circumstance, string>>> = {
  'complained-of': 'Somebody complains of it',
  'damp-store': 'Stored damp',
  'attic-store': 'Stored in an attic',
  'dry-store': 'Stored dry',
  'idle-a-year': 'Idle a year or more',
  'idle-ten-years': 'Idle ten years or more',
  carpet: 'Run on carpet',
  garden: 'Run in a garden',
  exhibition: 'Run at shows',
  'worked-on-by-others': 'Others worked on it',
  'just-refitted': 'Just put together again',
  'unknown-past': 'Past unknown',
  'short-lived-leads': 'Old stiff leads',
  old: 'Decades old',
  'battery-inside': 'A battery leaked inside',
  'lubricated-freely': 'Oiled freely',
}
