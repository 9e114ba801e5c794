import { inSentence } from '../../engine/name-in-sentence'
import type { EngineDescription } from '../../engine/description-schema'
import type { PlaceRole } from '../../knowledge/knowledge-schema'
import type { Place } from '../places/places-of'

/** What the current passes from the rails to the motor, then the turning to the wheels; last what lies beside it. */
export const chainStations = [
  'track',
  'treads',
  'contacts',
  'leads',
  'board',
  'motor-leads',
  'brushes',
  'armature',
  'shaft',
  'gears',
  'wheels',
  'beside',
] as const
export type ChainStation = (typeof chainStations)[number]

/** One place of the chain as it stands now. */
export interface ChainLink {
  readonly place: string
  /** What tells it from the others of its station: the truck or motor it is of, or its name. */
  readonly words: string
  /** Chance that something is wrong with it to which what was found points. */
  readonly chance: number
  /** Chance that anything is wrong with it, pointed to or there anyway. */
  readonly atAll: number
  /** Something wrong with it was found and is not mended. */
  readonly found: boolean
}

/** One stretch of the chain, with all that lies side by side in it. */
export interface ChainStretch {
  readonly station: ChainStation
  readonly chance: number
  readonly atAll: number
  readonly found: boolean
  readonly links: readonly ChainLink[]
}

/** How the chain is judged: the chance that something is wrong at any of these places, pointed to or at all, and what was found where. */
export interface ChainJudged {
  readonly chanceAt: (places: ReadonlySet<string>, pointedTo: boolean) => number
  readonly foundAt: ReadonlySet<string>
}

const stationOfRole: Readonly<Record<PlaceRole, ChainStation>> = {
  engine: 'beside',
  outside: 'track',
  treads: 'treads',
  'axle-contacts': 'contacts',
  'linkage-contacts': 'contacts',
  leads: 'leads',
  choke: 'leads',
  suppressor: 'beside',
  'wheel-insulation': 'beside',
  'other-insulation': 'beside',
  motor: 'armature',
  'brush-springs': 'brushes',
  brushes: 'brushes',
  gaps: 'armature',
  winding: 'armature',
  'winding-insulation': 'beside',
  field: 'armature',
  lamps: 'beside',
  decoder: 'board',
  'decoder-leads': 'board',
  'decoder-separation': 'beside',
  sequence: 'board',
  'sequence-coil': 'beside',
  relay: 'beside',
  'relay-load': 'beside',
  'worm-seat': 'shaft',
  joint: 'shaft',
  mesh: 'gears',
  muff: 'wheels',
  rods: 'wheels',
  'driven-wheels': 'wheels',
  'wheel-sets': 'wheels',
  tyres: 'wheels',
  turnable: 'beside',
}

/**
 * The chain of one engine from the rails to the wheels, stretch by stretch, with what is left to suspect in each.
 *
 * @param description the engine
 * @param places where its faults can sit
 * @param judged what is believed and found now
 * @returns only stretches this engine has, in the order of the current and then of the drive
 */
export function chainLeft(
  description: EngineDescription,
  places: readonly Place[],
  { chanceAt, foundAt }: ChainJudged,
): ChainStretch[] {
  return chainStations.flatMap((station): ChainStretch[] => {
    const here = places.filter((place) => stationOf(description, place) === station)
    if (here.length === 0) return []
    const judge = (judged: readonly Place[]) => {
      const ids = new Set(judged.map(({ id }) => id))
      const found = judged.some(({ id }) => foundAt.has(id))
      return { found, chance: found ? 1 : chanceAt(ids, true), atAll: found ? 1 : chanceAt(ids, false) }
    }
    const alike = here.every(({ role }) => role === here[0]?.role)
    return [
      {
        station,
        ...judge(here),
        links: here.map((place) => ({
          place: place.id,
          words: (alike ? belongsTo(description, place) : null) ?? shortName(description, place),
          ...judge([place]),
        })),
      },
    ]
  })
}

/** A lead lies before the board or behind it: what is the motor's, or ends at its leads, is behind. */
function stationOf(description: EngineDescription, { role, motor, components }: Place): ChainStation {
  const station = stationOfRole[role]
  if (station !== 'leads') return station
  const own = new Set(components)
  const ends = new Set(description.components.filter(({ id }) => own.has(id)).flatMap(({ from, to }) => [from, to]))
  const atMotor = description.nodes.some(({ id, stage }) => ends.has(id) && stage === 'motor-lead')
  return motor !== null || atMotor ? 'motor-leads' : 'leads'
}

function belongsTo({ trucks, motors }: EngineDescription, { truck, motor }: Place): string | null {
  const owner =
    trucks.find(({ id }) => id === truck) ?? (motors.length > 1 ? motors.find(({ id }) => id === motor) : null)
  return owner ? inSentence(owner.name) : null
}

/** Of the only motor nobody needs to be told whose brushes they are. */
function shortName({ motors }: EngineDescription, { name, motor }: Place): string {
  const [only] = motors
  return only && motors.length === 1 && motor === only.id ? name.replace(` of the ${inSentence(only.name)}`, '') : name
}
