import type { SeededRandom } from '../casualty/random'
import type { CasualtyFault } from '../casualty/faults'
import type { EngineDescription } from '../../core/engine/description-schema'
import type { Place } from '../../core/diagnosis/places/places-of'
import { predictAssembly } from '../../core/diagnosis/places/polarity'

/** One thing that really is wrong with a drawn casualty. */
export interface TrueFault {
  readonly name: string
  /** Place of the engine, as the repairer would name it. */
  readonly place: Place
  /** Remedies at this place that mend it. */
  readonly remedies: readonly string[]
  /** What it is in the physics. */
  readonly physics: readonly CasualtyFault[]
  /** What it is once the machine is rocked and pressed; as before where not given. */
  readonly rocked?: readonly CasualtyFault[]
  /** What it is to a decoder. */
  readonly decoder?: 'no-dc' | 'another-address' | 'dead'
  /** Comes and goes. */
  readonly intermittent: boolean
  /** How often it is brought to a bench, against the others. */
  readonly weight: number
}

type Draw = (place: Place, description: EngineDescription, random: SeededRandom) => Omit<TrueFault, 'place'> | null

const state = (
  place: Place,
  what: 'open' | 'high-resistance' | 'shorted' | 'intermittent',
  which: readonly string[] = place.components,
): CasualtyFault[] => which.map((component) => ({ kind: 'component', component, state: what }))
/** Bad enough that the whole place is without contact for a good part of the time, however many wheels it has. */
const film = (place: Place, random: SeededRandom): CasualtyFault[] => {
  const together = random.between(0.2, 0.6)
  const seconds = random.between(0.05, 0.25)
  return place.components.map((component) => ({
    kind: 'film',
    component,
    brokenShare: together ** (1 / place.components.length),
    seconds,
  }))
}

/** What the shop's door brings in, place by place. Incidences of the benchmark's own, not of the knowledge. */
const draws: Readonly<Partial<Record<Place['role'], readonly Draw[]>>> = {
  treads: [
    (place, _, random) =>
      random.next() < 0.4
        ? {
            name: 'dead film',
            remedies: ['clean-treads'],
            physics: state(place, 'open'),
            rocked: film(place, random),
            intermittent: true,
            weight: 7,
          }
        : { name: 'film', remedies: ['clean-treads'], physics: film(place, random), intermittent: true, weight: 7 },
    (place) => ({
      name: 'even layer',
      remedies: ['clean-treads'],
      physics: state(place, 'high-resistance'),
      intermittent: false,
      weight: 3,
    }),
  ],
  'axle-contacts': [
    (place, _, random) => ({
      name: 'tarnish',
      remedies: ['clean-contacts', 'set-contacts'],
      physics: film(place, random),
      intermittent: true,
      weight: 5,
    }),
    (place) => ({
      name: 'do not touch',
      remedies: ['set-contacts', 'clean-contacts'],
      physics: state(place, 'open'),
      intermittent: false,
      weight: 2,
    }),
    (place, _, random) => ({
      name: 'bent',
      remedies: ['set-contacts', 'clean-contacts'],
      physics: film(place, random),
      intermittent: true,
      weight: 3,
    }),
  ],
  'linkage-contacts': [
    (place) => ({
      name: 'loose',
      remedies: ['clean-linkage'],
      physics: state(place, 'intermittent'),
      intermittent: true,
      weight: 3,
    }),
    (place) => ({
      name: 'open',
      remedies: ['clean-linkage'],
      physics: state(place, 'open'),
      intermittent: false,
      weight: 2,
    }),
  ],
  leads: [
    (place) => ({
      name: 'lead off',
      remedies: ['solder-lead'],
      physics: state(place, 'open'),
      intermittent: false,
      weight: 1.6,
    }),
    (place) => ({
      name: 'by a strand',
      remedies: ['solder-lead'],
      physics: state(place, 'intermittent'),
      intermittent: true,
      weight: 0.8,
    }),
  ],
  choke: [
    (place) => ({
      name: 'choke open',
      remedies: ['bridge-choke'],
      physics: state(place, 'open'),
      intermittent: false,
      weight: 1,
    }),
  ],
  suppressor: [
    (place) => ({
      name: 'suppressor short',
      remedies: ['lift-suppressor'],
      physics: state(place, 'shorted'),
      intermittent: false,
      weight: 1.2,
    }),
  ],
  'other-insulation': [
    (place) => ({
      name: 'insulation short',
      remedies: ['mend-insulation'],
      physics: state(place, 'shorted'),
      intermittent: false,
      weight: 0.8,
    }),
  ],
  'wheel-insulation': [
    (place) => ({
      name: 'wheel short',
      remedies: ['mend-insulation'],
      physics: state(place, 'shorted'),
      intermittent: false,
      weight: 0.5,
    }),
  ],
  lamps: [
    (place) => ({
      name: 'lamp burnt',
      remedies: ['new-lamp'],
      physics: state(place, 'open'),
      intermittent: false,
      weight: 2,
    }),
  ],
  brushes: [
    (place, _, random) => ({
      name: 'black commutator',
      remedies: ['clean-commutator'],
      physics: film(place, random),
      intermittent: true,
      weight: 6,
    }),
    (place) => ({
      name: 'oiled',
      remedies: ['clean-commutator'],
      physics: state(place, 'high-resistance'),
      intermittent: false,
      weight: 2.5,
    }),
    (place) => ({
      name: 'brush sticks',
      remedies: ['free-brush', 'new-brushes'],
      physics: state(place, 'intermittent'),
      intermittent: true,
      weight: 2.5,
    }),
    (place) => ({
      name: 'brush stands off',
      remedies: ['free-brush', 'new-brushes'],
      physics: state(place, 'open'),
      intermittent: false,
      weight: 1.5,
    }),
    (place) => ({
      name: 'brush worn',
      remedies: ['new-brushes'],
      physics: state(place, 'intermittent'),
      intermittent: true,
      weight: 2,
    }),
  ],
  'brush-springs': [
    (place) => ({
      name: 'spring weak',
      remedies: ['new-springs'],
      physics: state(place, 'intermittent'),
      intermittent: true,
      weight: 1.5,
    }),
    (place) => ({
      name: 'spring off',
      remedies: ['new-springs'],
      physics: state(place, 'open'),
      intermittent: false,
      weight: 1,
    }),
  ],
  gaps: [
    (place, _, random) => ({
      name: 'carbon bridge',
      remedies: ['clean-gaps'],
      physics: [{ kind: 'carbon-bridge', motor: place.motor ?? '', gap: 0, ohms: random.between(1, 12) }],
      intermittent: false,
      weight: 3,
    }),
  ],
  winding: [
    (place) => ({
      name: 'open coil',
      remedies: ['rewind'],
      physics: [{ kind: 'open-coil', motor: place.motor ?? '', coil: 0 }],
      intermittent: false,
      weight: 1,
    }),
    (place) => ({
      name: 'shorted coil',
      remedies: ['rewind'],
      physics: [{ kind: 'shorted-coil', motor: place.motor ?? '', coil: 0 }],
      intermittent: false,
      weight: 1,
    }),
  ],
  motor: [
    // A wound field has no magnet to grow weak.
    (place, description, random) =>
      description.motors.find(({ id }) => id === place.id)?.field === null
        ? {
            name: 'weak magnet',
            remedies: ['remagnetise'],
            physics: [{ kind: 'magnet', motor: place.id, strength: random.between(0.45, 0.7) }],
            intermittent: false,
            weight: 3,
          }
        : null,
    (place, _, random) => ({
      name: 'dry bearing',
      remedies: ['oil-bearings'],
      physics: [{ kind: 'dry-bearing', motor: place.id, factor: random.between(2, 4) }],
      intermittent: false,
      weight: 4,
    }),
    (place, description) => ({
      name: 'stuck armature',
      remedies: ['free-armature'],
      physics: [{ kind: 'rubbing', motor: place.id, torque: 50 * torqueOf(description) }],
      intermittent: false,
      weight: 1,
    }),
    () => ({ name: 'end play', remedies: ['shim-end-play'], physics: [], intermittent: false, weight: 2.5 }),
    () => ({ name: 'worn bearings', remedies: ['bush-bearings'], physics: [], intermittent: false, weight: 2 }),
  ],
  mesh: [
    (place, description, random) => ({
      name: 'hard grease',
      remedies: ['clean-gears'],
      physics: [
        {
          kind: 'rubbing',
          motor: description.motors[0]?.id ?? '',
          torque: random.between(1.5, 4) * torqueOf(description),
        },
      ],
      intermittent: false,
      weight: 5,
    }),
    (place, description) => ({
      name: 'jammed gears',
      remedies: ['clean-gears'],
      physics: [{ kind: 'rubbing', motor: description.motors[0]?.id ?? '', torque: 50 * torqueOf(description) }],
      intermittent: false,
      weight: 1.2,
    }),
    slips('gear loose', 'fix-gear', 0.8),
    (place, description, random) => tight('split gear', ['new-gear'], 1.5, description, random, random.between(1.5, 3)),
    (place, description, random) =>
      tight('hair in the gears', ['clean-gears'], 2.5, description, random, random.between(0.8, 1.6)),
  ],
  'worm-seat': [slips('worm slips', 'fix-worm', 1)],
  joint: [slips('joint out', 'seat-joint', 1.2)],
  rods: [
    (place, description, random) =>
      tight('out of quarter', ['quarter', 'true-rods'], 1.5, description, random, random.between(2, 5)),
    (place, description, random) => tight('bent rods', ['true-rods'], 1, description, random, random.between(1.5, 3)),
    () => ({ name: 'oval holes', remedies: ['true-rods'], physics: [], intermittent: false, weight: 1.5 }),
  ],
  'wheel-sets': [
    (place, description, random) => ({
      name: 'dry axles',
      remedies: ['oil-axles'],
      physics: [
        {
          kind: 'rubbing',
          motor: description.motors[0]?.id ?? '',
          torque: random.between(0.8, 2) * torqueOf(description),
        },
      ],
      intermittent: false,
      weight: 3,
    }),
    () => ({ name: 'off gauge', remedies: ['gauge-wheels'], physics: [], intermittent: false, weight: 1.5 }),
  ],
  tyres: [
    () => ({ name: 'perished tyres', remedies: ['new-tyres'], physics: [], intermittent: false, weight: 5 }),
    () => ({ name: 'missing tyre', remedies: ['new-tyres'], physics: [], intermittent: false, weight: 2 }),
  ],
  decoder: [
    () => ({
      name: 'no DC set',
      remedies: ['set-dc-operation'],
      physics: [],
      decoder: 'no-dc',
      intermittent: false,
      weight: 5,
    }),
    () => ({
      name: 'another address',
      remedies: ['set-address'],
      physics: [],
      decoder: 'another-address',
      intermittent: false,
      weight: 4,
    }),
    () => ({
      name: 'decoder dead',
      remedies: ['replace-decoder'],
      physics: [],
      decoder: 'dead',
      intermittent: false,
      weight: 3,
    }),
  ],
  'decoder-leads': [
    (place, _, random) => ({
      name: 'lead off',
      remedies: ['solder-lead'],
      physics: state(place, 'open', [random.pick(place.components)]),
      intermittent: false,
      weight: 1.5,
    }),
    (place, _, random) => ({
      name: 'by a strand',
      remedies: ['solder-lead'],
      physics: state(place, 'intermittent', [random.pick(place.components)]),
      intermittent: true,
      weight: 0.8,
    }),
  ],
  'decoder-separation': [
    (place, _, random) => ({
      name: 'not separated',
      remedies: ['mend-insulation'],
      physics: state(place, 'shorted', [random.pick(place.components)]),
      intermittent: false,
      weight: 0.8,
    }),
  ],
  sequence: [
    (place, _, random) => ({
      name: 'dirty drum',
      remedies: ['clean-sequence'],
      physics: place.components.map((component) => ({
        kind: 'film',
        component,
        brokenShare: random.between(0.2, 0.5),
        seconds: random.between(0.05, 0.25),
      })),
      intermittent: true,
      weight: 7,
    }),
    () => ({ name: 'drum sticks', remedies: ['free-sequence'], physics: [], intermittent: false, weight: 4 }),
    (place) => ({
      name: 'finger off',
      remedies: ['set-sequence'],
      physics: state(place, 'open'),
      intermittent: false,
      weight: 1.5,
    }),
  ],
  'sequence-coil': [
    (place) => ({
      name: 'coil open',
      remedies: ['rewind'],
      physics: state(place, 'open'),
      intermittent: false,
      weight: 1.5,
    }),
    (place) => ({
      name: 'coil shorted',
      remedies: ['rewind'],
      physics: state(place, 'shorted'),
      intermittent: false,
      weight: 0.5,
    }),
  ],
  'relay-load': [
    (place) => ({
      name: 'horn dead',
      remedies: ['new-lamp'],
      physics: state(place, 'open'),
      intermittent: false,
      weight: 1.5,
    }),
  ],
  field: [
    (place) => ({
      name: 'field open',
      remedies: ['rewind'],
      physics: state(place, 'open'),
      intermittent: false,
      weight: 0.8,
    }),
    (place) => ({
      name: 'field shorted',
      remedies: ['rewind'],
      physics: state(place, 'shorted'),
      intermittent: false,
      weight: 0.6,
    }),
  ],
  turnable: [
    (place, description) => {
      const turned = description.turnables.find((entry) => entry.id === place.turnable)
      return turned && predictAssembly(description, [turned]) === 'reverse'
        ? {
            name: 'mirrored',
            remedies: ['turn-back'],
            physics: [{ kind: 'turned', turnable: turned.id }],
            intermittent: false,
            weight: 1.5,
          }
        : null
    },
  ],
}

/** What lies behind the place's first link is no longer driven. */
function slips(name: string, remedy: string, weight: number): Draw {
  return ({ links: [link] }) =>
    link ? { name, remedies: [remedy], physics: [{ kind: 'slipping-link', link }], intermittent: false, weight } : null
}

function torqueOf(description: EngineDescription): number {
  return description.motors[0]?.coulombTorque ?? 1e-3
}

/** Heavy at one place of a wheel's turn. */
function tight(
  name: string,
  remedies: readonly string[],
  weight: number,
  description: EngineDescription,
  random: SeededRandom,
  times: number,
): Omit<TrueFault, 'place'> {
  const wheelSet =
    description.wheelSets.find((entry) =>
      description.links.some((link) => link.to === entry.rotor || link.from === entry.rotor),
    ) ?? description.wheelSets[0]
  return {
    name,
    remedies,
    weight,
    intermittent: false,
    physics: [
      {
        kind: 'tight-spot',
        rotor: wheelSet?.rotor ?? '',
        torque: times * torqueOf(description),
        at: random.between(0, 6.28),
        width: random.between(0.5, 1),
      },
    ],
  }
}

/**
 * Between one and four faults at different places of an engine.
 *
 * @param description the engine
 * @param places of it
 * @param random seeded
 */
export function drawTrueFaults(
  description: EngineDescription,
  places: readonly Place[],
  random: SeededRandom,
  most = 4,
): TrueFault[] {
  const luck = random.next()
  // Not quite a third has one thing, a quarter two, a fifth three; the rest more, up to as many as are asked for.
  const few = 1 + [0.3, 0.55, 0.75].filter((bound) => luck >= bound).length
  const wanted = few < 4 ? few : Math.min(most, 4 + Math.floor(4 * (luck - 0.75) * (most - 3)))
  const pool = places.flatMap((place) =>
    (draws[place.role] ?? []).flatMap((draw): TrueFault[] => {
      const drawn = draw(place, description, random)
      return drawn ? [{ ...drawn, place }] : []
    }),
  )
  const found: TrueFault[] = []
  const isFree = (fault: TrueFault): boolean => !found.some(({ place }) => place.id === fault.place.id)
  while (found.length < wanted && pool.length > 0) {
    let at = random.next() * pool.reduce((sum, fault) => sum + fault.weight, 0)
    const index = pool.findIndex((fault) => (at -= fault.weight) <= 0)
    const [chosen] = pool.splice(Math.max(0, index), 1)
    if (!chosen || !isFree(chosen)) continue
    found.push(chosen)
    if (!comesWithYears.has(chosen.name)) continue
    for (const like of pool.filter((fault) => fault.name === chosen.name && isFree(fault)))
      if (found.length < most && random.next() < TOGETHER) found.push(like)
  }
  return found
}

/** Dirt and wear of two trucks or two motors that ran through the same years: where one has it, the other as often as not. */
const comesWithYears: ReadonlySet<string> = new Set([
  'film',
  'dead film',
  'even layer',
  'tarnish',
  'oiled',
  'black commutator',
  'brush worn',
  'dry bearing',
  'worn bearings',
  'weak magnet',
])
const TOGETHER = 0.5
