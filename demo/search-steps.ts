import type { Circumstance } from '../core/diagnosis/knowledge-schema'

/** One step of a search as somebody took it; what was believed at each is worked out by write-searches.ts. */
export type DemoSearchStep =
  | readonly ['saw', test: string, outcome: string]
  | readonly ['could-not', test: string]
  | readonly ['confirmed' | 'repaired' | 'ruled-out', suspect: string]

export interface DemoSearch {
  readonly engine: string
  readonly construction: string
  readonly power: 'dc' | 'ac' | 'dcc'
  readonly circumstances: readonly Circumstance[]
  readonly steps: readonly DemoSearchStep[]
}

/** Three engines in mid-search, and one whose search is done. */
export const demoSearches: readonly DemoSearch[] = [
  {
    engine: 'salt-204', construction: 'side-brush-bogie', power: 'dc', circumstances: ['damp-store', 'idle-ten-years'],
    steps: [
      ['saw', 'track-run', 'stands'], ['saw', 'track-current', 'nothing'], ['saw', 'track-rocked', 'falters'], ['saw', 'pickups-run', 'runs'], ['saw', 'treads-look@treads.motor-bogie', 'dull'],
      ['saw', 'leads-tug', 'off'], ['confirmed', 'lead-strand@leads.lead.trailing'], ['repaired', 'lead-strand@leads.lead.trailing'],
      ['saw', 'track-run', 'falters'], ['saw', 'contacts-look@axle-contacts.trailing-bogie', 'green'], ['confirmed', 'contacts-oxide@axle-contacts.trailing-bogie'], ['repaired', 'contacts-oxide@axle-contacts.trailing-bogie'],
      ['saw', 'commutator-look', 'bright'], ['repaired', 'treads-film@treads.motor-bogie'], ['repaired', 'treads-film@treads.trailing-bogie'],
      ['saw', 'track-run', 'runs'], ['saw', 'track-current', 'usual'], ['saw', 'tyres-look', 'cracked'], ['confirmed', 'tyre-perished@tyres'], ['repaired', 'tyre-perished@tyres'],
      ['saw', 'track-run', 'runs'], ['saw', 'track-rocked', 'runs'], ['saw', 'both-ways', 'alike'], ['saw', 'noise', 'quiet'], ['saw', 'start-anywhere', 'anywhere'], ['saw', 'haul', 'usual'],
    ],
  },
  { engine: 'vale-411', construction: 'tender-pickup', power: 'dc', circumstances: ['attic-store', 'idle-ten-years', 'old'], steps: [['saw', 'track-run', 'stands'], ['saw', 'track-current', 'flickers'], ['saw', 'track-rocked', 'falters'], ['saw', 'treads-look@treads.tender-axles', 'black'], ['could-not', 'pickups-run']] },
  { engine: 'fjell-90', construction: 'articulated', power: 'dc', circumstances: [], steps: [['saw', 'other-engine', 'runs'], ['saw', 'lamp-on-track', 'bright'], ['saw', 'track-run', 'falters'], ['saw', 'motor-volts', 'low']] },
  { engine: 'glen-15', construction: 'axle-cup', power: 'dcc', circumstances: ['lubricated-freely'], steps: [['saw', 'dcc-run', 'runs'], ['saw', 'sound-restarts', 'often'], ['saw', 'stop-pattern', 'same-place'], ['saw', 'contacts-look@axle-contacts.driven-bogie', 'green']] },
]
