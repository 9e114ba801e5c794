import type { LubricationPointKind } from '../core/knowledge/lubrication-points'
/**
 * The trade's words that both sides of the wire use, each list once: its values, and what people read.
 */

export const stations = [
  { id: 'take-in', name: 'Take in', does: 'What came in, in what state, and what is wanted' },
  { id: 'first-run', name: 'First run', does: 'Readings before anything is touched' },
  { id: 'find', name: 'Find', does: 'Split the chain until the fault has a name' },
  { id: 'strip', name: 'Strip', does: 'No further apart than the work asks' },
  { id: 'clean', name: 'Clean', does: 'Dust, fibres, old grease, contacts' },
  { id: 'mend', name: 'Mend', does: 'What was confirmed is put right' },
  { id: 'lubricate', name: 'Lubricate', does: 'Little, and only where it belongs' },
  { id: 'rebuild', name: 'Rebuild', does: 'Back together, a test after each step' },
  { id: 'prove', name: 'Prove', does: 'The same readings again' },
  { id: 'hand-back', name: 'Hand back', does: 'The sheet that proves the work' },
] as const
export type StationId = (typeof stations)[number]['id']
export const stationIds = stations.map((station) => station.id) as [StationId, ...StationId[]]

/** The station after this one, or null at the end of the line. */
export function stationAfter(station: StationId): StationId | null {
  const index = stations.findIndex((entry) => entry.id === station)
  return stations[index + 1]?.id ?? null
}

export function stationBefore(station: StationId): StationId | null {
  const index = stations.findIndex((entry) => entry.id === station)
  return stations[index - 1]?.id ?? null
}

export function stationName(station: StationId): string {
  return stations.find((entry) => entry.id === station)?.name ?? station
}

export const roles = { owner: 'Owner of the shop', hand: 'Bench hand', reader: 'Reader' } as const
export type Role = keyof typeof roles

export const powers = { dc: 'Two-rail DC', ac: 'Three-rail AC', dcc: 'DCC' } as const
export type Power = keyof typeof powers

export const constructions = {
  'open-frame': 'Open-frame motor in the locomotive',
  'tender-pickup': 'Steam, collecting on locomotive and tender',
  'split-frame': 'Split frame, the halves are the poles',
  'tank-can': 'Tank engine with a can motor',
  'tank-open': 'Tank engine with an open-frame motor',
  articulated: 'Articulated steam, two trucks',
  'side-brush-bogie': 'Side-brush motor in one bogie',
  'centre-motor': 'Centre motor with worm towers',
  'motor-bogie-unit': 'Multiple unit with a motor bogie',
  'axle-cup': 'Axle-cup pickup diesel',
  'narrow-gauge': 'Narrow gauge, exposed gears',
  'three-rail-single': 'Three-rail AC, one motor',
  'three-rail-twin': 'Three-rail AC, twin motors and sequence switch',
  other: 'Other, or not known yet',
} as const
export type Construction = keyof typeof constructions

export const motorKinds = {
  'open-frame': 'Open frame',
  'side-brush': 'Flat side-brush',
  can: 'Closed can',
  coreless: 'Coreless',
  'ac-series': 'AC series, wound field',
  unknown: 'Not known yet',
} as const
export type MotorKind = keyof typeof motorKinds

/** Kinds of points that are oiled, or never. */
export const lubricationPointWords: Readonly<Record<LubricationPointKind, string>> = {
  'motor-bearing-far': 'Motor bearing, far from the commutator',
  'motor-bearing-commutator': 'Motor bearing by the commutator',
  worm: 'Worm',
  'gear-train': 'Gear train',
  'universal-joint': 'Joints of the shafts',
  'axle-bearing': 'Axle bearings',
  'axle-bearing-live': 'Axle bearings that carry current',
  rods: 'Rods and pins',
  'axle-box-worn': 'Worn axle boxes',
  'collecting-contact': 'Collecting contacts',
  commutator: 'Commutator',
  brushes: 'Brushes',
  'switch-contacts': 'Contacts of the sequence switch',
  'roller-spindle': 'Spindle of the roller',
  'felt-pad': 'Felt pad',
}

export const findingStates = {
  suspected: 'Suspected',
  confirmed: 'Confirmed',
  mended: 'Mended',
  left: 'Left as it is',
  declined: 'Declined by the owner',
  'ruled-out': 'Ruled out',
} as const
export type FindingState = keyof typeof findingStates

export const findingOrigins = { arrived: 'Arrived so', inside: 'Found inside', here: 'Happened here' } as const
export type FindingOrigin = keyof typeof findingOrigins

export const arrivalKinds = { missing: 'Missing', broken: 'Broken', loose: 'Loose in the box' } as const
export type ArrivalKind = keyof typeof arrivalKinds

export const arrivalFates = {
  placed: 'Put in its place',
  used: 'Used up',
  returned: 'Returned to the owner',
  replaced: 'Replaced',
  left: 'Left so',
} as const
export type ArrivalFate = keyof typeof arrivalFates

export const partStates = {
  wanted: 'Wanted',
  ordered: 'Ordered',
  here: 'Here',
  fitted: 'Fitted',
  dropped: 'No longer wanted',
} as const
export type PartState = keyof typeof partStates

export const jobStates = {
  open: 'On the bench',
  waiting: 'Waiting',
  'handed-back': 'Handed back',
  declined: 'Sent back undone',
} as const
export type JobState = keyof typeof jobStates

export const componentKinds = { motor: 'Motor', decoder: 'Decoder' } as const
export type ComponentKind = keyof typeof componentKinds

export const supplies = {
  'smooth-dc': 'Smooth DC bench supply',
  battery: 'Battery',
  controller: 'Controller (pulsed or rectified)',
  ac: 'AC transformer',
  dcc: 'DCC system',
} as const
export type Supply = keyof typeof supplies

export const currencies = ['GBP', 'EUR', 'USD', 'CHF', 'SEK', 'DKK', 'NOK', 'PLN', 'CZK', 'AUD', 'CAD', 'NZD'] as const
