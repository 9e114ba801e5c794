import type { RunningSince } from '../core/care/due-list'
import type { Circumstance } from '../core/knowledge/knowledge-schema'

/** One step of a search as somebody took it; what was believed at each is worked out by write-searches.ts. */
export type DemoSearchStep =
  | readonly ['saw', test: string, outcome: string]
  | readonly ['could-not', test: string]
  | readonly ['confirmed' | 'repaired' | 'ruled-out', suspect: string]

export interface DemoSearch {
  readonly engine: string
  /** Days before today its job was taken in, of one that went home; none: the job in hand. */
  readonly daysAgo?: number
  readonly construction: string
  readonly power: 'dc' | 'ac' | 'dcc'
  readonly circumstances: readonly Circumstance[]
  readonly steps: readonly DemoSearchStep[]
}

/** By which a job's search is found again. */
export function searchKey(engine: string, daysAgo?: number): string {
  return daysAgo === undefined ? engine : `${engine}:${daysAgo}`
}

/** Three engines in mid-search, one whose search is done, and some of the years before. */
export const demoSearches: readonly DemoSearch[] = [
  {
    engine: 'salt-204',
    construction: 'side-brush-bogie',
    power: 'dc',
    circumstances: ['complained-of', 'damp-store', 'idle-ten-years'],
    steps: [
      // On the track: dead, but it wakes when it is pressed.
      ['saw', 'track-run', 'stands'],
      ['saw', 'track-current', 'nothing'],
      ['saw', 'smell', 'none'],
      ['saw', 'track-rocked', 'falters'],
      // Turned over.
      ['saw', 'treads-look@treads.motor-bogie', 'black'],
      ['saw', 'treads-look@treads.trailing-bogie', 'black'],
      ['saw', 'contacts-look@axle-contacts.trailing-bogie', 'green'],
      ['saw', 'tyres-look', 'cracked'],
      ['saw', 'spacers-look', 'free'],
      ['confirmed', 'treads-oxide@treads.motor-bogie'],
      ['confirmed', 'treads-oxide@treads.trailing-bogie'],
      ['confirmed', 'contacts-oxide@axle-contacts.trailing-bogie'],
      ['confirmed', 'tyre-perished@tyres'],
      ['repaired', 'treads-oxide@treads.motor-bogie'],
      ['repaired', 'treads-oxide@treads.trailing-bogie'],
      ['repaired', 'contacts-oxide@axle-contacts.trailing-bogie'],
      ['repaired', 'tyre-perished@tyres'],
      ['saw', 'track-run', 'stands'],
      ['saw', 'track-current', 'nothing'],
      // Opened.
      ['saw', 'leads-tug', 'off'],
      ['saw', 'gears-look', 'fouled'],
      ['confirmed', 'lead-strand@leads.lead.trailing'],
      ['confirmed', 'grease-hard@mesh'],
      ['repaired', 'lead-strand@leads.lead.trailing'],
      ['repaired', 'grease-hard@mesh'],
      ['saw', 'track-run', 'falters'],
      ['saw', 'track-current', 'high'],
      // The motor.
      ['saw', 'brushes-look', 'oily'],
      ['saw', 'commutator-look', 'bridged'],
      ['confirmed', 'brushes-oiled@motor.brushes'],
      ['confirmed', 'gap-bridged@motor.gaps'],
      ['repaired', 'brushes-oiled@motor.brushes'],
      ['repaired', 'gap-bridged@motor.gaps'],
      ['saw', 'track-run', 'runs'],
      ['saw', 'track-current', 'usual'],
      ['saw', 'track-rocked', 'runs'],
      ['saw', 'direction', 'right'],
      ['saw', 'lamp-on-track', 'bright'],
      ['saw', 'wheels-turn', 'all'],
      ['saw', 'smell', 'none'],
      ['saw', 'start-anywhere', 'anywhere'],
      ['saw', 'both-ways', 'alike'],
      ['saw', 'light-speed', 'usual'],
      ['saw', 'stop-pattern', 'none'],
      ['saw', 'noise', 'quiet'],
      ['saw', 'creep', 'steady'],
      ['saw', 'wobble', 'true'],
      ['saw', 'haul', 'usual'],
    ],
  },
  {
    engine: 'vale-411',
    construction: 'tender-pickup',
    power: 'dc',
    circumstances: ['complained-of', 'attic-store', 'idle-ten-years', 'old'],
    steps: [
      ['saw', 'track-run', 'stands'],
      ['saw', 'track-current', 'flickers'],
      ['saw', 'track-rocked', 'falters'],
      ['saw', 'treads-look@treads.tender-axles', 'dull'],
      ['could-not', 'supply-at-pickups'],
    ],
  },
  {
    engine: 'fjell-90',
    construction: 'articulated',
    power: 'dc',
    circumstances: ['complained-of', 'damp-store'],
    steps: [
      ['saw', 'other-engine', 'runs'],
      ['saw', 'lamp-on-track', 'bright'],
      ['saw', 'track-run', 'falters'],
      ['saw', 'motor-volts', 'low'],
    ],
  },
  {
    engine: 'glen-15',
    construction: 'axle-cup',
    power: 'dcc',
    circumstances: ['complained-of', 'lubricated-freely'],
    steps: [
      ['saw', 'dcc-run', 'runs'],
      ['saw', 'sound-restarts', 'often'],
      ['saw', 'stop-pattern', 'same-place'],
      ['saw', 'contacts-look@axle-contacts.driven-bogie', 'green'],
    ],
  },
  earlier(
    'orrin-12',
    48,
    'tank-open',
    ['unknown-past'],
    [
      ['saw', 'track-run', 'stands'],
      ['saw', 'track-current', 'nothing'],
      ['saw', 'leads-run', 'stands'],
      ['saw', 'brushes-look', 'stuck'],
      ['confirmed', 'brush-stuck-off@motor.brushes'],
      ['repaired', 'brush-stuck-off@motor.brushes'],
      ['saw', 'track-run', 'runs'],
    ],
  ),
  earlier(
    'orrin-7',
    371,
    'tank-open',
    ['lubricated-freely'],
    [
      ['saw', 'track-run', 'falters'],
      ['saw', 'treads-look', 'black'],
      ['confirmed', 'treads-film@treads.frame-axles'],
      ['repaired', 'treads-film@treads.frame-axles'],
      ['saw', 'track-run', 'falters'],
      ['saw', 'contacts-look', 'green'],
      ['confirmed', 'contacts-oxide@axle-contacts.frame-axles'],
      ['repaired', 'contacts-oxide@axle-contacts.frame-axles'],
      ['saw', 'track-run', 'runs'],
    ],
  ),
  earlier(
    'salt-211',
    96,
    'side-brush-bogie',
    ['carpet'],
    [
      ['saw', 'track-run', 'falters'],
      ['saw', 'gears-look', 'fouled'],
      ['confirmed', 'gears-hair@mesh'],
      ['repaired', 'gears-hair@mesh'],
      ['saw', 'tyres-look', 'cracked'],
      ['confirmed', 'tyre-perished@tyres'],
      ['repaired', 'tyre-perished@tyres'],
      ['saw', 'track-run', 'runs'],
    ],
  ),
  earlier(
    'shunter-2',
    398,
    'side-brush-bogie',
    ['exhibition'],
    [
      ['saw', 'track-run', 'falters'],
      ['saw', 'contacts-look@axle-contacts.motor-bogie', 'bent'],
      ['confirmed', 'contacts-bent@axle-contacts.motor-bogie'],
      ['repaired', 'contacts-bent@axle-contacts.motor-bogie'],
      ['saw', 'track-run', 'runs'],
    ],
  ),
  earlier(
    'shunter-9',
    61,
    'side-brush-bogie',
    ['idle-ten-years'],
    [
      ['saw', 'track-run', 'stands'],
      ['saw', 'track-current', 'usual'],
      ['saw', 'gears-look', 'fouled'],
      ['confirmed', 'grease-hard@mesh'],
      ['repaired', 'grease-hard@mesh'],
      ['saw', 'track-run', 'falters'],
      ['saw', 'contacts-look@axle-contacts.trailing-bogie', 'green'],
      ['confirmed', 'contacts-oxide@axle-contacts.trailing-bogie'],
      ['repaired', 'contacts-oxide@axle-contacts.trailing-bogie'],
      ['saw', 'track-run', 'runs'],
    ],
  ),
  earlier(
    'vale-418',
    30,
    'tender-pickup',
    ['worked-on-by-others'],
    [
      ['saw', 'track-run', 'trips'],
      ['saw', 'wheel-insulation-ohms@wheel-insulation.tender-axles', 'wrong'],
      ['confirmed', 'wheel-insulation-short@wheel-insulation.tender-axles'],
      ['repaired', 'wheel-insulation-short@wheel-insulation.tender-axles'],
      ['saw', 'track-run', 'runs'],
    ],
  ),
]

function earlier(
  engine: string,
  daysAgo: number,
  construction: string,
  circumstances: readonly Circumstance[],
  steps: readonly DemoSearchStep[],
): DemoSearch {
  return { engine, daysAgo, construction, power: 'dc', circumstances, steps }
}

/** What jobs without a search of their own taught all the same: suspects by job. */
export const demoLearned: Readonly<Record<string, readonly string[]>> = {
  'orrin-7:742': ['bearing-dry@motor'],
  'orrin-3:212': ['magnet-weak@motor'],
  'vale-418:655': ['mesh-tight@mesh'],
  'salt-230:25': ['tyre-perished@tyres'],
  'salt-230:402': [],
  'salt-230:1120': ['gear-split@mesh'],
  'shunter-2:33': [],
  'shunter-2:1495': ['grease-hard@mesh'],
  'bus-4:77': ['grease-hard@mesh'],
  'fjell-92:140': ['quartering-out@rods'],
  'pilgrim-2:1590': ['spring-collapsed@motor.springs'],
  'moor-5:190': [],
}

/** Of jobs in hand where it is known: how long the engine has run since it was cared for. */
export const demoRunning: Readonly<Record<string, RunningSince>> = {
  'moor-5': { hoursSinceOil: 31, hoursSinceWipe: null, shows: 2, yearsIdle: null },
}
