import type {
  FindingOrigin,
  FindingState,
  JobState,
  PartState,
  StationId,
  ArrivalKind,
  ArrivalFate,
} from '../messages/vocabulary'
import type { DemoSheet } from './sheets'

export interface DemoJob {
  readonly engine: string
  /** Days before today it was taken in. */
  readonly daysAgo: number
  /** Days from today it is due; negative is late. */
  readonly dueIn?: number
  readonly station: StationId
  readonly state?: JobState
  readonly waitingFor?: string
  readonly complaint: string
  readonly trial?: string
  readonly wanted?: string
  readonly limit?: number
  readonly consent?: string
  readonly sentimental?: boolean
  readonly condition?: string
  readonly estimate?: number
  /** What the owner tells, and what is seen over the counter. */
  readonly told?: ReadonlyArray<readonly [test: string, outcome: string, words: string]>
  readonly arrivals?: ReadonlyArray<readonly [ArrivalKind, string, ArrivalFate?]>
  readonly findings?: ReadonlyArray<
    readonly [
      what: string,
      place: string,
      FindingState,
      FindingOrigin,
      remedy: string,
      /** What the search called it, where it found it. */
      suspect?: string,
    ]
  >
  readonly notes?: ReadonlyArray<readonly [StationId, string, minutes: number]>
  readonly parts?: ReadonlyArray<readonly [what: string, quantity: number, PartState, price?: number]>
  readonly first?: DemoSheet
  readonly prove?: DemoSheet
  /** Tests on the way back together: step, mA of each repeat, and what it did. */
  readonly rebuild?: ReadonlyArray<
    readonly [step: string, milliamps: readonly number[], turns: 'forward' | 'reverse' | 'stands']
  >
  /** Readings of a wound field on both kinds of supply: kind, V, A, rpm. */
  readonly series?: Readonly<
    Record<
      'smooth-dc' | 'ac',
      ReadonlyArray<readonly [kind: 'locked' | 'running', volts: number, amps: number, rpm: number | null]>
    >
  >
  /** A sequence switch test: what it did as found and after each interruption, volts and amps, and what pulled it in. */
  readonly sequence?: {
    readonly seen: ReadonlyArray<readonly [position: 'forward' | 'reverse' | 'neutral', volts: number, amps: number]>
    readonly failures: number
    readonly pullIn: { readonly above: number; readonly below: number }
  }
  /** A relay test: V of DC it pulled in and let go at, each time; AC left it at rest. */
  readonly relay?: { readonly pullsIn: readonly number[]; readonly letsGo: readonly number[] }
  /** What dries or cures by itself, and for how many hours yet. */
  readonly wait?: readonly [label: string, hours: number]
  readonly handBack?: {
    leftUndone?: string
    lubricants?: string
    dueAgain?: string
    partsReturned?: string
    price: number
  }
  /** Days after take-in it went home. */
  readonly outAfter?: number
  readonly photographs?: readonly string[]
  readonly jonas?: boolean
}

/** The jobs in hand these weeks before the harbour festival. */
const inHand: readonly DemoJob[] = [
  {
    engine: 'salt-204',
    daysAgo: 6,
    dueIn: 4,
    station: 'prove',
    estimate: 150,
    limit: 9000,
    photographs: ['As it came from the cellar', 'Green wipers, trailing bogie', 'Pickup lead by one strand'],
    complaint: 'Dead since the cellar was cleared. Not a twitch on the track.',
    trial: 'Full oval at half speed, forward, count the stops',
    wanted: 'Runs again. It need not look new.',
    condition: 'Rust on the rail wheels, green on the wipers, smell of damp. No burn marks.',
    arrivals: [
      ['missing', 'Front coupling'],
      ['loose', 'Two bogie side-frame screws', 'placed'],
    ],
    findings: [
      ['Pickup lead hanging by a strand', 'trailing bogie, right', 'mended', 'inside', 'Cut back, tinned, soldered'],
      [
        'Wipers and treads oxidised green',
        'both bogies',
        'mended',
        'arrived',
        'Treads with alcohol and pad, wipers with fibreglass over a damp cloth',
      ],
      ['Commutator suspected black', 'motor', 'ruled-out', 'inside', 'Clean, gaps clear'],
      ['One traction tyre cracked', 'motor bogie', 'mended', 'inside', 'New pair fitted'],
    ],
    notes: [
      ['find', 'Needle flickers when the body is pressed down: pickup side. Lead found under the weight.', 22],
      ['clean', 'Treads, backs, wipers, axle ends. Hair out of the gears.', 35],
      ['mend', 'Lead soldered, tyres changed.', 18],
      ['lubricate', 'A trace on axle ends, a smear on the gears. Nothing near the commutator.', 8],
      ['rebuild', 'Ran at 6 V after each bogie.', 20],
    ],
    parts: [['Traction tyre 9.2 × 10.4 mm', 2, 'fitted', 120]],
    first: { withMeter: true, dead: true, celsius: 17 },
    prove: { withMeter: true, drag: 1.08, speeds: true, held: true, celsius: 19, trial: [0, 10] },
  },
  {
    engine: 'orrin-7',
    daysAgo: 3,
    dueIn: 1,
    station: 'mend',
    estimate: 90,
    limit: 6000,
    photographs: ['Orrin Seven on the cradle', 'Oil on the commutator'],
    complaint: 'Forward it is fine, backwards it hesitates and draws more.',
    trial: 'Start from standing in reverse at 4 V with three wagons',
    wanted: 'Ready for the festival, both ways the same.',
    condition: 'Oily underneath, clean above.',
    findings: [
      ['Commutator black with burnt oil', 'motor', 'mended', 'inside', 'Spirit on a bud, gaps with wood'],
      [
        'End play too large, no thrust washer',
        'worm shaft',
        'confirmed',
        'inside',
        'Fit a 0.2 mm washer behind the worm',
      ],
      ['Brush on the near side not seated', 'motor', 'confirmed', 'inside', 'Re-seat, 600 grit on the seat'],
      ['Step bent', 'left, front', 'left', 'arrived', 'The owner likes it so'],
    ],
    notes: [
      ['first-run', 'Both ways compared at 12 V: reverse well up.', 10],
      ['find', 'Shaft moves 0.5 mm by hand. Hears as a rattle when changing direction.', 15],
      ['clean', 'Motor cleaned in the frame, upside down so the brushes stay in.', 20],
    ],
    parts: [['Thrust washer 2 × 4 × 0.2 mm', 1, 'here', 40]],
    first: {
      withMeter: true,
      drag: 1.15,
      reverseDrag: 1.42,
      magnet: 0.88,
      speeds: true,
      held: true,
      celsius: 20,
      trial: [7, 10],
    },
  },
  {
    engine: 'vale-411',
    daysAgo: 11,
    dueIn: 12,
    station: 'find',
    estimate: 240,
    sentimental: true,
    consent: 'Aoife Brannagh by telephone, 3 days after take-in: clean and oil, nothing replaced without asking',
    photographs: ['Lady of the Vale, box open', 'Inside the tender: the signature'],
    complaint: 'It was Grandad’s. It has not run since 1994 and I would like to hear it once more.',
    trial: 'One lap at walking pace, forward',
    wanted: 'Runs again, everything original, paint untouched.',
    condition: 'Dried grease, brown and hard. Paint perfect. Smells of attic.',
    arrivals: [
      ['missing', 'Tender handrail, one'],
      ['loose', 'Small spring, origin unknown'],
    ],
    findings: [
      [
        'Grease set hard in the gear box',
        'worm and gears',
        'confirmed',
        'arrived',
        'Soften with mineral spirit, metal gears only',
      ],
      ['Drawbar pin may not conduct', 'drawbar', 'suspected', 'arrived', 'Measure across it under load'],
      ['Tender wheels oxidised', 'tender', 'suspected', 'arrived', ''],
    ],
    notes: [
      ['take-in', 'Photographed all round. Paint is not to meet any solvent.', 15],
      ['first-run', 'Supply straight to the motor: hums, does not turn. Not forced.', 10],
    ],
    first: { withMeter: false, dead: true, celsius: 18 },
  },
  {
    engine: 'fjell-90',
    daysAgo: 9,
    dueIn: -2,
    station: 'find',
    estimate: 180,
    limit: 14000,
    jonas: true,
    photographs: ['Old Fjell, front truck'],
    complaint: 'Stalls at walking pace, worst through the yard turnouts; well enough once it is moving.',
    trial: 'Through the yard ladder at 6 V, ten times',
    wanted: 'Runs like it did.',
    condition: 'Kept in the boathouse these last years. Treads dull, a green bloom on the wipers.',
    findings: [
      [
        'High resistance in one of the feeds',
        'front truck to board',
        'suspected',
        'arrived',
        'Volts at the motor terminals under load: 2 V of 10',
      ],
      ['Truck pivot contact worn', 'front truck', 'suspected', 'arrived', ''],
    ],
    notes: [
      [
        'first-run',
        'Stalled nine times of ten. 10 V on the track, 2 V at the motor while it stands; the lamp does not mind.',
        20,
      ],
      ['find', 'Motor taken off the list for now: a poor feed lights a lamp and collapses under a motor.', 12],
    ],
    first: { withMeter: false, stops: [17, 4], timed: [9.6, 9.9], celsius: 19, trial: [9, 10] },
  },
  {
    engine: 'glen-15',
    daysAgo: 8,
    dueIn: 6,
    station: 'clean',
    wait: ['Body shell dries after its wash', 5.5],
    estimate: 120,
    limit: 12000,
    photographs: ['Cups and axle ends, oil everywhere'],
    complaint: 'Will not start below half throttle, then leaps away; the sound drops out now and then.',
    trial: 'Eight starts from rest at the slowest step',
    wanted: 'A gentle start. A stay-alive if it is needed.',
    findings: [
      ['Oil in the axle cups', 'all cups', 'confirmed', 'inside', 'Clean out, a trace of contact-safe oil only'],
      ['Decoder faulty', 'board', 'ruled-out', 'arrived', 'Sound that restarts means the supply was lost'],
    ],
    notes: [['find', 'Steady on plain clean track at speed. Three of eight points open on the meter.', 25]],
    first: { withMeter: false, stops: [14, 5], creep: 6.2, timed: [5.1, 5.3], trial: [8, 8], celsius: 20 },
  },
  {
    engine: 'ridge-55',
    daysAgo: 2,
    dueIn: 9,
    station: 'first-run',
    estimate: 60,
    limit: 5000,
    jonas: true,
    complaint: 'Creeps badly and hums when it stands; only the front lamp burns.',
    told: [['creep', 'jerky', 'Creeps jerkily']],
    trial: 'Ten starts at the slowest setting that moves it',
    wanted: 'A slow start for the station platform, and both lamps.',
    first: { withMeter: true, speeds: true, held: true, celsius: 20, trial: [10, 10] },
  },
  {
    engine: 'bus-1',
    daysAgo: 5,
    dueIn: 3,
    station: 'strip',
    estimate: 110,
    limit: 7000,
    photographs: ['Hair, all of it'],
    complaint: 'Hesitates, jerks, and squeaks. The children say it is tired.',
    trial: 'Five laps of the carpet oval, count the stops',
    wanted: 'Happy children.',
    findings: [
      ['Hair wound into the gears', 'motor bogie', 'confirmed', 'arrived', 'Out with tweezers, axle by axle'],
      ['Grease across the commutator gaps', 'motor', 'confirmed', 'inside', 'Gaps with wood'],
      ['Springs of unequal length', 'brushes', 'suspected', 'inside', ''],
      ['Traction tyre cracked', 'driven axle', 'confirmed', 'arrived', 'New tyre while it is open'],
    ],
    notes: [
      ['first-run', 'Squeals on starting: dry bearing.', 8],
      ['strip', 'Bogie out, frame off. One truck at a time: the other is the pattern.', 18],
    ],
    parts: [['Traction tyre 8.6 × 9.9 mm', 1, 'ordered', 110]],
    first: { withMeter: false, stops: [19, 5], creep: 4.1, timed: [7.8, 8.9], celsius: 19 },
  },
  {
    engine: 'moor-5',
    daysAgo: 1,
    dueIn: 2,
    station: 'lubricate',
    estimate: 30,
    complaint: 'No complaint. Thirty-one hours since it was last oiled, two weekends of shows ahead.',
    trial: 'Ten starts at 3 V with the brake van',
    wanted: 'Oiled and looked over before the festival.',
    notes: [['first-run', 'Nothing wrong. Care, not fault finding.', 6]],
    first: { withMeter: true, drag: 1.12, volts: [3, 6, 9, 12], speeds: true, held: true, celsius: 20, trial: [0, 10] },
  },
  {
    engine: 'kontor-64',
    daysAgo: 4,
    dueIn: 15,
    station: 'find',
    estimate: 150,
    limit: 11000,
    complaint: 'Buzzes and will not change over to reverse every time.',
    trial: 'Twelve interruptions in a row: does each one step?',
    wanted: 'Changes over every time.',
    findings: [
      [
        'Sequence switch drum dirty',
        'under the cab',
        'suspected',
        'arrived',
        'Mineral spirit, paper strip between the points',
      ],
    ],
    first: { withMeter: true, speeds: false, volts: [6, 9, 12], celsius: 18, trial: [4, 12] },
    series: {
      'smooth-dc': [
        ['locked', 2.01, 0.229, null],
        ['locked', 2.5, 0.271, null],
        ['locked', 3.01, 0.336, null],
        ['locked', 3.5, 0.402, null],
        ['running', 8.02, 0.421, 3200],
        ['running', 12.01, 0.451, 5610],
      ],
      ac: [
        ['locked', 3.01, 0.306, null],
        ['locked', 4.01, 0.409, null],
        ['locked', 5, 0.505, null],
        ['running', 16.02, 0.498, null],
      ],
    },
    sequence: {
      seen: [
        ['forward', 11.86, 0.692],
        ['neutral', 11.97, 0.261],
        ['reverse', 11.85, 0.704],
        ['reverse', 11.86, 0.699],
        ['neutral', 11.97, 0.262],
        ['forward', 11.86, 0.695],
        ['neutral', 11.97, 0.261],
        ['neutral', 11.97, 0.26],
        ['reverse', 11.85, 0.701],
      ],
      failures: 2,
      pullIn: { above: 7.25, below: 7.5 },
    },
  },
  {
    engine: 'ridge-48',
    daysAgo: 14,
    dueIn: -5,
    station: 'rebuild',
    state: 'waiting',
    waitingFor: 'axle muff from Hinterau',
    estimate: 200,
    limit: 13000,
    jonas: true,
    photographs: ['Parcel as opened', 'Two bags of loose parts, counted'],
    complaint: 'Taken apart by my nephew. All the pieces should be there.',
    trial: 'Forward and back over two metres, no noise',
    wanted: 'One locomotive instead of two bags.',
    arrivals: [
      ['loose', 'Worm cover clip, two', 'placed'],
      ['loose', 'Bronze strip'],
      ['missing', 'One cup joint'],
      ['broken', 'Cab step'],
    ],
    findings: [
      ['Muff cracked on the third axle', 'rear truck', 'confirmed', 'inside', 'New muff ordered; gauge, then fix'],
      [
        'Bronze strip bent by us while fitting',
        'front truck',
        'mended',
        'here',
        'Straightened, tension checked against the other',
      ],
    ],
    notes: [
      ['take-in', 'Parcel counted in against the list, three parts short.', 25],
      ['strip', 'Was stripped already; laid out on the tray in order.', 40],
      ['rebuild', 'Front truck together, runs at 4 V.', 55],
    ],
    rebuild: [
      ['Motor alone', [61.2, 61.5, 61.1], 'forward'],
      ['Motor in its frame', [62.4, 61.9, 62.2], 'forward'],
      ['Front truck, both shafts', [66.8, 67.1, 66.5], 'forward'],
      ['Rear truck with the cracked muff', [94.3, 95.6, 93.9], 'forward'],
    ],
    parts: [
      ['Axle muff, acetal, 12 mm', 1, 'ordered', 280],
      ['Cup joint 1.5 mm', 1, 'here', 150],
    ],
  },
  {
    engine: 'pilgrim-2',
    daysAgo: 18,
    dueIn: 8,
    station: 'mend',
    wait: ['Glue on the frame spacer cures', 21],
    state: 'waiting',
    waitingFor: 'glue on the frame spacer until tomorrow',
    estimate: 160,
    limit: 15000,
    photographs: ['Frame halves, insulators out'],
    complaint: 'Short circuit now and then, worst on curves.',
    trial: 'Ten times round the tightest curve',
    wanted: 'No short, no guessing.',
    findings: [
      ['Two gaps bridged by carbon', 'commutator', 'confirmed', 'inside', '', 'gap-bridged@motor.gaps'],
      ['Insulating spacer split', 'frame, rear', 'confirmed', 'inside', 'Glued as a temporary; new one to be made'],
      [
        'Two washers too many',
        'from a previous strip',
        'confirmed',
        'inside',
        'Found where they belong: behind the gear',
      ],
    ],
    notes: [['find', 'Halves 0.4 Ω apart when the chassis is twisted.', 30]],
    first: { withMeter: true, drag: 1.3, speeds: true, held: false, celsius: 20, trial: [6, 10] },
  },
  {
    engine: 'atlas-1',
    daysAgo: 21,
    dueIn: 20,
    station: 'take-in',
    state: 'waiting',
    waitingFor: 'the owner’s word on the price',
    estimate: 300,
    limit: 20000,
    complaint: 'Growls since it left its glass case, and the rear truck hardly pulls.',
    wanted: 'Quiet enough for the club room.',
    arrivals: [
      ['missing', 'Dummy unit’s rear coupler'],
      ['broken', 'Horn grille'],
    ],
    // The horn, tried along with the rest: a pivot gummed with old oil wants far more than the few volts its button adds, and not the same twice.
    relay: { pullsIn: [8.65, 10.35, 9.15], letsGo: [2.15, 1.95, 2.05] },
  },
]

type Past = readonly [
  engine: string,
  daysAgo: number,
  complaint: string,
  found: string,
  remedy: string,
  minutes: number,
  price: number,
  jonas?: boolean,
  motor?: Pick<DemoSheet, 'magnet' | 'ohms' | 'drag'>,
]

/** Five years of jobs that went home. */
const past: readonly Past[] = [
  [
    'orrin-7',
    371,
    'Stalls on the quay turnout.',
    'Treads and wipers dirty',
    'Cleaned, wiper tension evened',
    55,
    3960,
    false,
    { magnet: 0.94 },
  ],
  [
    'orrin-7',
    742,
    'Squeals when cold.',
    'Front motor bearing dry',
    'One drop of light oil, run in',
    25,
    1800,
    false,
    { magnet: 0.97 },
  ],
  [
    'orrin-7',
    1493,
    'Bought new to the layout: look it over.',
    'Brushes bedded in on one edge',
    'Seats cleaned, run in two hours',
    50,
    3600,
    false,
    { magnet: 1 },
  ],
  [
    'orrin-12',
    48,
    'Does not run, house clearance.',
    'Brush stuck in its holder',
    'Freed, holder cleaned',
    70,
    5040,
    true,
  ],
  ['orrin-3', 212, 'Own stock: is the motor good?', 'Weak magnet, armature good', 'Kept as donor', 40, 0],
  [
    'vale-418',
    30,
    'Tender wheels new, stops on dead track.',
    'New tender wheels not insulated on one side',
    'Turned on the axles, back-to-back set',
    85,
    6120,
  ],
  ['vale-418', 655, 'Slow, gets warm.', 'Worm mesh too tight', 'Motor shimmed, current down', 75, 5400],
  [
    'salt-211',
    96,
    'Carpet engine, no longer pulls.',
    'Hair and a perished tyre',
    'Gears cleared, tyres renewed',
    80,
    5760,
    true,
  ],
  ['salt-211', 690, 'One lamp out.', 'Lamp blown', 'New lamp', 20, 1900],
  ['salt-230', 25, 'Loses its grip with the long goods.', 'Tyres hard', 'Tyres renewed, treads cleaned', 50, 4100],
  ['salt-230', 402, 'Before the festival: service.', 'Nothing wrong', 'Cleaned and oiled', 35, 2520],
  ['salt-230', 1120, 'Growls.', 'Idler split', 'Idler renewed', 95, 7400],
  [
    'shunter-2',
    33,
    'Eight hours a day at the festival: service.',
    'Brushes at half their length',
    'Left bedded in, contacts cleaned',
    45,
    3240,
  ],
  [
    'shunter-2',
    398,
    'Stops at the crossing.',
    'Wiper bent clear of its wheel',
    'Bent back, all six compared',
    30,
    2160,
  ],
  [
    'shunter-2',
    1495,
    'Bought at a swap meet, unknown.',
    'Dried grease throughout',
    'Stripped, cleaned, lubricated',
    130,
    9360,
  ],
  ['shunter-9', 61, 'Not run since about 2009.', 'Grease set, contacts black', 'Cleaned throughout', 120, 8640],
  [
    'ridge-61',
    18,
    'Club engine: runs hot since the decoder.',
    'Decoder limit set too high, bearing dry',
    'Oiled; values written down',
    65,
    4680,
    true,
  ],
  [
    'ridge-61',
    980,
    'Fit the club’s decoder.',
    'Motor insulated, suppressor removed',
    'Decoder fitted and proved',
    140,
    12100,
  ],
  ['bus-4', 77, 'Unused, will it run?', 'Grease hardened in the box', 'Cleaned, first run since new', 60, 4320],
  [
    'fjell-92',
    140,
    'Second-hand: check it over.',
    'Rear truck rods bind',
    'Quartering of axle two set right',
    110,
    7920,
  ],
  ['fjell-90', 1260, 'Valve gear clicks.', 'Rivet loose', 'Rivet closed', 45, 3240],
  ['glen-18', 205, 'Stutters.', 'Cups tarnished', 'Cups and axle ends polished', 70, 5040],
  ['glen-15', 860, 'Fit sound.', 'Speaker on foam, sealed', 'Decoder and speaker fitted', 190, 18400],
  ['moor-5', 190, 'After the spring shows.', 'Nothing wrong', 'Cleaned and oiled', 30, 2160],
  ['moor-6', 189, 'After the spring shows.', 'Crank pin loose', 'Pin fixed', 40, 2880],
  ['moor-6', 1010, 'Wobbles.', 'Wheel off square', 'Wheel re-seated, gauge set', 55, 3960, true],
  ['tarn-8', 120, 'Flea-market find.', 'Roof switch open', 'Contacts cleaned', 50, 3600],
  ['kontor-64', 365, 'Yearly look.', 'Drum dirty', 'Drum cleaned, points closed up', 60, 4320],
  [
    'pilgrim-2',
    1590,
    'Reverse is weak.',
    'Brush spring collapsed',
    'Spring pair renewed; winding had been hot',
    85,
    6900,
  ],
]

/** What went home unmended, by engine and days ago. */
const leftThen: Readonly<Record<string, NonNullable<DemoJob['findings']>[number]>> = {
  'kontor-64:365': [
    'Fingers of the sequence switch worn thin',
    'drum',
    'declined',
    'inside',
    'New fingers; the owner wanted to wait a year',
  ],
  'glen-15:860': [
    'Cups of the trailing bogie worn, axles rock',
    'trailing bogie',
    'left',
    'inside',
    'New cups were not to be had',
  ],
}

export const jobs: readonly DemoJob[] = [
  ...past.map(([engine, daysAgo, complaint, found, remedy, minutes, price, jonas, motor], index): DemoJob => {
    const nothingWrong = found === 'Nothing wrong'
    const withMeter = motor !== undefined || index % 4 !== 3
    const whole = motor !== undefined || index % 2 === 0
    return {
      engine,
      daysAgo,
      complaint,
      trial: 'Five laps at half speed, count the stops',
      station: 'hand-back',
      state: 'handed-back',
      outAfter: Math.min(daysAgo - 1, 4 + (index % 9)),
      estimate: Math.round((minutes * 1.1) / 5) * 5,
      jonas: jonas ?? false,
      findings: [
        ...(nothingWrong ? [] : [[found, '', 'mended', 'inside', remedy] as const]),
        ...(leftThen[`${engine}:${daysAgo}`]
          ? [leftThen[`${engine}:${daysAgo}`] as NonNullable<DemoJob['findings']>[number]]
          : []),
      ],
      notes: [
        ['find', nothingWrong ? 'Looked through, nothing found.' : `${found}.`, Math.round(minutes * 0.3)],
        [nothingWrong ? 'lubricate' : 'mend', `${remedy}.`, minutes - Math.round(minutes * 0.3)],
      ],
      first: withMeter
        ? {
            withMeter,
            drag: nothingWrong ? 1.05 : 1.35 + (index % 3) * 0.1,
            speeds: whole,
            held: whole,
            celsius: 18 + (index % 4),
            ...motor,
          }
        : { withMeter, stops: [nothingWrong ? 0 : 9 + (index % 5), 5], timed: [8.5, 9.1], creep: 5 },
      prove: withMeter
        ? { withMeter, drag: 1, speeds: whole, held: whole, celsius: 19, ...motor }
        : { withMeter, stops: [index % 2, 5], timed: [6.4, 6.5], creep: 11 },
      handBack: {
        price,
        lubricants: 'Light oil on bearings, plastic-safe grease on gears',
        dueAgain: 'After 24 h of running, or in a year',
      },
    }
  }),
  ...inHand,
].sort((a, b) => b.daysAgo - a.daysAgo)
