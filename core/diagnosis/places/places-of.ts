import type { CircuitComponent, DriveLink, EngineDescription, Motor } from '../../engine/description-schema'
import { driveTrain } from '../../engine/drive-train'
import { accessTo } from '../../engine/access-to'
import { DECODER_SWITCH, hasDecoder } from '../../engine/fit-decoder'
import { inSentence } from '../../engine/name-in-sentence'
import { pickupMap } from '../../engine/pickup-map'
import { polesOf, type Pole } from '../../engine/poles'
import { predictAssembly, type AssemblyOutcome } from './polarity'
import type { PlaceRole, Reach } from '../../knowledge/knowledge-schema'

/** A piece of one engine that plays a role in the chain: where a fault can sit and a test can be made. */
export interface Place {
  readonly id: string
  readonly role: PlaceRole
  /** As it stands inside a sentence: “treads of the tender axles”. */
  readonly name: string
  readonly components: readonly string[]
  readonly links: readonly string[]
  readonly turnable: string | null
  readonly motor: string | null
  readonly truck: string | null
  readonly part: string | null
  /** What must be off to touch it; null: nothing. */
  readonly access: string | null
}

/**
 * Every place of an engine at which the trade looks for faults. Pieces that get dirty together and one remedy mends
 * together, such as the treads of one bogie or the two brushes of a motor, are one place.
 *
 * @param description the engine
 * @example placesOf(describeConstruction('tank-can')).filter(({ role }) => role === 'treads').length // 1
 */
export function placesOf(description: EngineDescription): readonly Place[] {
  const known = placesByDescription.get(description)
  if (known) return known
  const places = [
    ...wholePlaces(description),
    ...circuitPlaces(description),
    ...drivePlaces(description),
    ...drivenPlaces(description),
    ...turnablePlaces(description),
  ]
  placesByDescription.set(description, places)
  return places
}

/** A description never changes: one asked for again, as at every key of a search, has the places it had. */
const placesByDescription = new WeakMap<EngineDescription, readonly Place[]>()

/** What must be off to reach as far as a test or remedy at a place asks; null where this engine has no such way. */
export function reachOf(
  description: EngineDescription,
  place: Place,
  reach: Reach,
): readonly (readonly string[])[] | null {
  const motor = description.motors.find((entry) => entry.id === place.motor) ?? description.motors[0]
  const access = (id: string | null): readonly (readonly string[])[] | null =>
    id === null ? [] : (description.accesses.find((entry) => entry.id === id)?.off ?? null)
  switch (reach) {
    case 'as-it-stands':
      return []
    case 'place':
      return access(place.access)
    case 'part-out':
      return description.parts.some((part) => part.id === place.part && part.removal)
        ? [[place.part as string]]
        : access(place.access)
    case 'inside':
      return accessTo(description, 'inside', null)?.off ?? []
    case 'terminals':
    case 'brushes':
    case 'commutator':
    case 'motor-out':
      return motor ? (accessTo(description, reach, motor.id)?.off ?? null) : null
  }
}

function wholePlaces(description: EngineDescription): Place[] {
  const bare = { components: [], links: [], turnable: null, motor: null, truck: null, part: null, access: null }
  const tyred = description.wheelSets.filter((wheelSet) => wheelSet.left.tyre || wheelSet.right.tyre)
  return [
    { ...bare, id: 'engine', role: 'engine', name: 'engine' },
    { ...bare, id: 'outside', role: 'outside', name: 'track and controller' },
    { ...bare, id: 'wheel-sets', role: 'wheel-sets', name: 'wheel sets' },
    ...(tyred.length > 0
      ? [
          {
            ...bare,
            id: 'tyres',
            role: 'tyres' as const,
            name: 'tyres',
            part: tyred[0]?.left.tyre ? tyred[0].left.part : (tyred[0]?.right.part ?? null),
          },
        ]
      : []),
  ]
}

function circuitPlaces(description: EngineDescription): Place[] {
  const wiring: Wiring = {
    description,
    poles: polesOf(description),
    collecting: new Set(
      pickupMap(description).flatMap((point) => (point.collects && point.component ? [point.component] : [])),
    ),
    truckOfPart: new Map(
      description.wheelSets.flatMap((wheelSet) =>
        [wheelSet.id, wheelSet.left.part, wheelSet.right.part, wheelSet.rotor].map(
          (part) => [part, wheelSet.truck] as const,
        ),
      ),
    ),
  }
  const groups = new Map<string, { place: Omit<Place, 'components'>; components: string[] }>()
  for (const component of description.components) {
    if (component.faults.length === 0) continue
    const place = placeOfComponent(wiring, component)
    if (!place) continue
    const group = groups.get(place.id)
    if (!group) groups.set(place.id, { place, components: [component.id] })
    // Where one of several alike is meant, the first stands for them.
    else if (!standsForOthers.has(place.role)) group.components.push(component.id)
  }
  const places = [...groups.values()].map(({ place, components }): Place => ({ ...place, components }))
  return [
    ...places,
    ...description.motors.map((motor) => motorPlace(description, motor)),
    ...(hasDecoder(description) ? [decoderPlace(description)] : []),
  ]
}

const standsForOthers: ReadonlySet<PlaceRole> = new Set([
  'brush-springs',
  'brushes',
  'wheel-insulation',
  'decoder-leads',
  'decoder-separation',
  'winding-insulation',
])

/** What collects from the centre rail, as a sentence would name it: a shoe slides on its face, a roller turns on a spindle. */
function centreCollectors({ centrePickups }: EngineDescription): {
  readonly name: string
  readonly faces: string
  readonly hold: string
} {
  const slides = centrePickups.length > 0 && centrePickups.every((pickup) => pickup.slides)
  const [only] = centrePickups
  const name = centrePickups.length === 1 && only ? inSentence(only.name) : slides ? 'shoes' : 'rollers'
  return slides
    ? { name, faces: 'running face of the', hold: 'face and spring of the' }
    : { name, faces: 'running faces of the', hold: 'spindles and springs of the' }
}

/** The machine's circuit as its places are read from it. */
interface Wiring {
  readonly description: EngineDescription
  readonly poles: ReadonlyMap<string, Pole>
  /** Components through which a wheel collects. */
  readonly collecting: ReadonlySet<string>
  readonly truckOfPart: ReadonlyMap<string, string>
}
type NamedPlace = Omit<Place, 'components'>

/** How the place of a component is written down: by a name of its own, by its truck, or by the component's name. */
function naming({ description, truckOfPart }: Wiring, component: CircuitComponent) {
  const nodes = [component.from, component.to].map((id) => description.nodes.find((node) => node.id === id))
  const accesses = nodes.map((node) => node?.access ?? null)
  const motor = motorOf(description, component)
  const truck =
    truckOfPart.get(component.part ?? '') ??
    description.wheelSets.find((wheelSet) => wheelSet.id === component.of)?.truck ??
    null
  const collectors = centreCollectors(description)
  const found = description.trucks.find((entry) => entry.id === truck)
  const truckName = found ? inSentence(found.name) : collectors.name
  const make = (role: PlaceRole, id: string, name: string): NamedPlace => ({
    id,
    role,
    name,
    links: [],
    turnable: null,
    motor: motor?.id ?? null,
    truck,
    part: component.part,
    access: accesses.includes(null) ? null : (accesses[0] ?? null),
  })
  return {
    stages: nodes.map((node) => node?.stage),
    motor,
    truck,
    collectors,
    make,
    byTruck: (role: PlaceRole, word: string): NamedPlace =>
      make(role, `${role}.${truck ?? 'rollers'}`, `${word} ${truckName}`),
    own: (role: PlaceRole): NamedPlace => make(role, `${role}.${component.id}`, inSentence(component.name)),
  }
}

function placeOfComponent(wiring: Wiring, component: CircuitComponent): NamedPlace | null {
  const { description, poles, collecting } = wiring
  const named = naming(wiring, component)
  const { stages, motor, truck, collectors, make, byTruck, own } = named
  if (stages[0] === 'rail' || stages[1] === 'rail')
    return collecting.has(component.id) ? byTruck('treads', truck ? 'treads of the' : collectors.faces) : null
  const motorName = inSentence(motor?.name ?? 'motor')
  switch (component.kind) {
    case 'contact': {
      if (motor) return make('brush-springs', `${motor.id}.springs`, `brush springs of the ${motorName}`)
      if (!stages.includes('tread') && !stages.includes('wheel')) return own('linkage-contacts')
      const pole = poles.get(component.from) ?? poles.get(component.to) ?? null
      return pole === null ? null : byTruck('axle-contacts', truck ? 'wipers and bearings of the' : collectors.hold)
    }
    case 'conductor':
      if (component.role === 'decoder-rail-lead')
        return make('decoder-leads', 'decoder.rail-leads', 'decoder leads to the rails')
      if (component.role === 'decoder-motor-lead')
        return make('decoder-leads', 'decoder.motor-leads', 'decoder leads to the motor')
      return own('leads')
    case 'insulation':
      return insulationPlace(description, component, named)
    case 'brush':
      return make('brushes', `${motor?.id ?? component.id}.brushes`, `brushes of the ${motorName}`)
    case 'commutator':
      return make('gaps', component.id, `commutator of the ${motorName}`)
    case 'winding':
      return make('winding', component.id, `winding of the ${motorName}`)
    case 'field':
      return make('field', component.id, inSentence(component.name))
    case 'relay':
      return own(isOfSequence(description, component) ? 'sequence-coil' : 'relay')
    case 'switch':
      return isOfSequence(description, component)
        ? make('sequence', 'sequence.contacts', 'contacts of the sequence switch')
        : own('relay')
    case 'decoder':
      return null
    default:
      return own(ownRole[component.kind])
  }
}

function insulationPlace(
  description: EngineDescription,
  component: CircuitComponent,
  { stages, motor, make, byTruck, own }: ReturnType<typeof naming>,
): NamedPlace {
  if (stages.includes('commutator'))
    return make(
      'winding-insulation',
      `${motor?.id ?? component.id}.winding-insulation`,
      `winding of the ${inSentence(motor?.name ?? 'motor')} against the frame`,
    )
  if (motor && separatesMotor(description, component))
    return make('decoder-separation', 'decoder-separation', 'separation of the motor from the rails')
  if (stages.includes('tread') || (stages[0] === 'wheel' && stages[1] === 'wheel'))
    return byTruck('wheel-insulation', 'insulated wheels of the')
  return own('other-insulation')
}

/** Pieces that are a place by themselves. */
const ownRole = { lamp: 'lamps', capacitor: 'suppressor', choke: 'choke', resistor: 'relay-load' } as const

function isOfSequence({ switches }: EngineDescription, component: CircuitComponent): boolean {
  return switches.some((entry) => entry.id === component.of && entry.kind === 'sequence')
}

/** Whether what should not conduct lies where a decoder cut a motor's feed. */
function separatesMotor(description: EngineDescription, { to }: CircuitComponent): boolean {
  return (
    hasDecoder(description) &&
    description.motors.some(({ feeds }) =>
      Object.values(feeds).some((feed) => to === description.components.find((other) => other.id === feed)?.from),
    )
  )
}

function motorOf(description: EngineDescription, component: CircuitComponent): Motor | undefined {
  return description.motors.find((motor) => motor.armature === component.id || component.of === motor.id)
}

function motorPlace(description: EngineDescription, motor: Motor): Place {
  return {
    id: motor.id,
    role: 'motor',
    name: inSentence(motor.name),
    components: [motor.armature],
    links: [],
    turnable: null,
    motor: motor.id,
    truck: null,
    part: motor.part,
    access: accessTo(description, 'terminals', motor.id)?.id ?? null,
  }
}

function decoderPlace(description: EngineDescription): Place {
  return {
    id: 'decoder',
    role: 'decoder',
    name: 'decoder',
    components: description.components
      .filter((component) => component.of === DECODER_SWITCH)
      .map((component) => component.id),
    links: [],
    turnable: null,
    motor: null,
    truck: null,
    part: 'decoder',
    access: description.decoder?.pads ?? null,
  }
}

const linkRoles: Readonly<Record<DriveLink['kind'], PlaceRole | null>> = {
  'press-fit': 'worm-seat',
  mesh: 'mesh',
  worm: 'mesh',
  joint: 'joint',
  muff: 'muff',
  rods: 'rods',
  belt: 'joint',
}
const linkWords: Readonly<Partial<Record<PlaceRole, string>>> = { mesh: 'gear train', rods: 'rods' }

/** Links of one kind are one place, but a muff, a joint and a worm's seat are looked at one by one. */
function drivePlaces(description: EngineDescription): Place[] {
  const places = new Map<string, Place>()
  for (const link of description.links) {
    const role = linkRoles[link.kind]
    if (!role) continue
    const word = linkWords[role]
    const id = word ? role : `${role}.${link.id}`
    const known = places.get(id)
    if (known) places.set(id, { ...known, links: [...known.links, link.id] })
    else
      places.set(id, {
        id,
        role,
        name: word ?? inSentence(link.name),
        components: [],
        links: [link.id],
        turnable: null,
        motor: null,
        truck: null,
        part: link.part,
        access: null,
      })
  }
  return [...places.values()]
}

/** Which of several driven trucks stands says where to look; where there is one, the engine itself says it. */
function drivenPlaces(description: EngineDescription): Place[] {
  const driven = new Set(driveTrain(description).wheels.flatMap((wheel) => (wheel.driven ? [wheel.wheelSet] : [])))
  const trucks = description.trucks.filter(({ id }) =>
    description.wheelSets.some((wheelSet) => wheelSet.truck === id && driven.has(wheelSet.id)),
  )
  if (trucks.length < 2) return []
  return trucks.map((truck): Place => ({
    id: `driven-wheels.${truck.id}`,
    role: 'driven-wheels',
    name: `driven wheels of the ${inSentence(truck.name)}`,
    components: [],
    links: [],
    turnable: null,
    motor: null,
    truck: truck.id,
    part: null,
    access: null,
  }))
}

const turnedNames: Readonly<Partial<Record<AssemblyOutcome, string>>> = {
  reverse: 'something refitted mirrored: it runs the wrong way',
  short: 'something refitted the other way round shorts the rails',
  still: 'everything refitted the other way round: no rail reaches the motor',
  'fights-itself': 'one truck refitted to pull against the other',
}

/**
 * What was put back the other way round shows only by what it does: all that merely reverse are one place, since
 * turning any one of them mends it, and so are all that short. The quickest to turn stands for them.
 */
function turnablePlaces(description: EngineDescription): Place[] {
  const places = new Map<AssemblyOutcome, Place & { readonly minutes: number }>()
  for (const entry of description.turnables) {
    const outcome = predictAssembly(description, [entry], {}, hasDecoder(description) ? 'dcc' : 'dc')
    const name = turnedNames[outcome]
    const known = places.get(outcome)
    if (!name || (known && known.minutes <= entry.minutes)) continue
    places.set(outcome, {
      id: `turned.${outcome}`,
      role: 'turnable',
      name,
      components: [],
      links: [],
      turnable: entry.id,
      motor: null,
      truck: null,
      part: null,
      access: entry.access,
      minutes: entry.minutes,
    })
  }
  return [...places.values()].map(({ minutes: _, ...place }) => place)
}
