import weights from '../knowledge/care/weights.json'
import type { CarePoint, EngineDescription, Part } from '../engine/description-schema'
import { plastics } from '../engine/plastics'
import { inSentence } from '../engine/name-in-sentence'
import type { PointAmount } from '../knowledge/care/own-care-rows'
import productRows from '../knowledge/care/products.json'
import { lubrication, type LubricationRow } from '../knowledge/lubrication'
import { schools as everySchool } from '../knowledge/schools'
import { optionOf, type ChosenSchools, type School } from '../knowledge/schools-of-practice'

/** A class of lubricant. */
export interface Product {
  readonly id: string
  readonly family: 'hobby' | 'household'
  readonly plasticSafe: boolean
  readonly contactSafe: boolean
  /** What does as well, where it is not on the shelf. */
  readonly instead: string
  readonly source: string
}
export const products = productRows as readonly Product[]

export interface LubricationOptions {
  readonly chosen?: ChosenSchools | undefined
  readonly schools?: readonly School[] | undefined
  /** What the maker says of a kind of point: it goes before the general card. */
  readonly advice?: readonly PointAmount[] | undefined
  /** What this shop puts there, the later before the earlier: it goes before what ships, and after the maker. */
  readonly amounts?: readonly PointAmount[] | undefined
  /** Classes of lubricant on the shelf; everything where it is left out. */
  readonly shelf?: readonly string[] | undefined
  /** Care points found worn. */
  readonly worn?: ReadonlySet<string> | undefined
  /** Care points that squeal. */
  readonly squeals?: ReadonlySet<string> | undefined
  /** By care point the part that closes it, where this is the last access. */
  readonly lastAccess?: ReadonlyMap<string, string> | undefined
}

/** One point of the card. */
export interface LubricationPoint {
  readonly id: string
  readonly kind: LubricationRow['point'] | 'tread' | 'tyre' | 'shoe'
  readonly part: string
  readonly name: string
  /** Null: nothing goes there, and `because` says why. */
  readonly product: string | null
  /** Quarters of a drop. */
  readonly quarters: number
  readonly amount: string
  readonly because: string
  /** What the shop holds with and does not get here, with the reason. */
  readonly refused: string
  /** The product is not on the shelf: what else would do, or empty where nothing does. */
  readonly instead: string | null
  readonly lastAccessBefore: string | null
}

export interface LubricationCard {
  /** In the order of the work: inside first, what is reached from outside last. */
  readonly points: readonly LubricationPoint[]
  /** Points that get none, with the reason. */
  readonly none: readonly LubricationPoint[]
  /** Sum, drops. */
  readonly drops: number
  /** What such a machine usually takes, drops. */
  readonly usual: readonly [number, number]
}

/** A pair of axles in a frame takes what a small bogie takes. */
const AXLES_A_BOGIE = 2
const QUARTERS = 4

/**
 * The lubrication card of this engine: by care point the product, the amount and whether this is the last access, by
 * the shop's schools, with the maker's advice before them. Commutator, brushes, tyres and collecting treads get none,
 * whatever anybody holds with.
 *
 *
 * @example lubricationCard(describeConstruction('tank-can')).drops // 4
 */
export function lubricationCard(description: EngineDescription, options: LubricationOptions = {}): LubricationCard {
  const parts = new Map(description.parts.map((part) => [part.id, part]))
  const all = [
    ...description.carePoints.map((point) => pointOf(description, parts, point, options)),
    ...otherPoints(description, options),
    ...treadsAndTyres(description, options),
  ]
  const points = all.filter((point) => point.product !== null)
  const sets = description.wheelSets.length
  const bogies = Math.max(1, Math.ceil(sets / AXLES_A_BOGIE))
  const [leastDrops = 0, mostDrops = 0] = weights.dropsABogie
  return {
    points: [...points].sort(
      (one, other) => Number(one.lastAccessBefore === null) - Number(other.lastAccessBefore === null),
    ),
    none: all.filter((point) => point.product === null),
    drops: points.reduce((sum, point) => sum + point.quarters, 0) / QUARTERS,
    usual: [leastDrops * bogies, mostDrops * bogies],
  }
}

/** Where nothing ever goes: neither a school nor a maker’s leaflet is asked. */
const never: ReadonlySet<string> = new Set(['commutator', 'brushes', 'switch-contacts'])

interface Amount {
  readonly product: string | null
  readonly quarters: number
  readonly amount: string
  readonly because: string
}

function pointOf(
  description: EngineDescription,
  parts: ReadonlyMap<string, Part>,
  point: CarePoint,
  options: LubricationOptions,
): LubricationPoint {
  const part = parts.get(point.part)
  const asked = toldAmount(point.kind, usualAmount(description, point, options), options)
  return finished(
    {
      id: point.id,
      kind: point.kind,
      part: point.part,
      name: namedPoint(pointWords[point.kind], part?.name ?? point.part),
      lastAccessBefore: options.lastAccess?.get(point.id) ?? null,
    },
    asked,
    reached(description, part),
    options,
  )
}

/** The maker’s word, or else the shop’s own, or else what is usual. */
function toldAmount(kind: PointAmount['point'], usual: Amount, options: LubricationOptions): Amount {
  const byMaker = options.advice?.find((entry) => entry.point === kind)
  const told = byMaker ?? (options.amounts ?? []).filter((entry) => entry.point === kind).at(-1)
  if (!told || never.has(kind)) return usual
  const whose = byMaker
    ? ['The maker says: none.', 'By the maker’s advice.']
    : ['This shop: none.', 'As this shop does it.']
  return {
    product: told.product,
    quarters: told.product === null ? 0 : usual.quarters,
    amount: told.amount || usual.amount,
    because: whose[told.product === null ? 0 : 1] ?? '',
  }
}

/** What oil put there reaches: the part, and what turns in it. */
function reached(description: EngineDescription, part: Part | undefined): Part[] {
  if (!part) return []
  const rotors = description.rotors.filter((rotor) => rotor.part === part.id).map((rotor) => rotor.id)
  const meshing = description.links.flatMap((link) =>
    rotors.includes(link.from) || rotors.includes(link.to) ? [link.from, link.to] : [],
  )
  const others = description.rotors.filter((rotor) => meshing.includes(rotor.id)).map((rotor) => rotor.part)
  const frame = description.parts.filter((entry) => entry.kind === 'chassis' && entry.unit === part.unit)
  return [part, ...description.parts.filter((entry) => others.includes(entry.id)), ...frame]
}

function usualAmount(description: EngineDescription, point: CarePoint, options: LubricationOptions): Amount {
  const row = lubrication.get(point.kind)
  if (!row) return { product: null, quarters: 0, amount: '', because: 'Nobody here knows what goes there.' }
  const quarters = Math.round(row.drops * QUARTERS)
  const own: Amount = { product: row.product, quarters, amount: row.amount, because: row.because }
  switch (point.kind) {
    case 'motor-bearing-commutator': {
      const held = heldWith(options, 'commutator-bearing')
      const squeals = options.squeals?.has(point.id) ?? false
      return held === 'trace' || (held === 'trace-if-squeals' && squeals)
        ? { product: 'light oil', quarters: 1, amount: 'a trace on a pin, and a look at the commutator', because: '' }
        : { ...own, amount: held === 'dry' ? 'none: this shop keeps it dry' : 'none, unless it squeals' }
    }
    case 'gear-train':
      return heldWith(options, 'teeth-and-shafts') === 'oil-on-teeth'
        ? { product: 'light oil', quarters: 1, amount: 'a touch on the teeth, grease on the shafts', because: '' }
        : { ...own, amount: `${row.amount}, oil on the shafts` }
    case 'axle-bearing-live':
      return options.worn?.has(point.id)
        ? { ...own, quarters: quarters * weights.wornTimes, amount: 'generously: it is worn' }
        : own
    case 'rods': {
      const pins =
        2 * new Set(description.links.flatMap((link) => (link.kind === 'rods' ? [link.from, link.to] : []))).size
      const drivers = Math.max(2, pins)
      return { ...own, quarters: quarters * drivers, amount: `a quarter of a drop on each of ${drivers} pins` }
    }
    default:
      return own
  }
}

/** Spindles of centre rollers, and felt that is a reservoir; a shoe that slides has no spindle, and gets none. */
function otherPoints(description: EngineDescription, options: LubricationOptions): LubricationPoint[] {
  const of = (part: Part, kind: 'roller-spindle' | 'felt-pad'): LubricationPoint[] => {
    const row = lubrication.get(kind)
    if (!row) return []
    const usual = { product: row.product, quarters: Math.round(row.drops * QUARTERS), amount: row.amount, because: '' }
    const asked = toldAmount(kind, usual, options)
    const head = {
      id: `${part.id}.${kind}`,
      kind,
      part: part.id,
      name: namedPoint(pointWords[kind], part.name),
      lastAccessBefore: options.lastAccess?.get(part.id) ?? null,
    }
    return [finished(head, asked, [part], options)]
  }
  const shoe = (part: Part): LubricationPoint =>
    finished(
      { id: `${part.id}.shoe`, kind: 'shoe', part: part.id, name: part.name, lastAccessBefore: null },
      { product: null, quarters: 0, amount: 'none', because: 'Its face slides on the rail and carries the current.' },
      [part],
      options,
    )
  const pickups = new Map(description.centrePickups.map((pickup) => [pickup.part, pickup]))
  const centre = (part: Part): LubricationPoint[] => {
    const pickup = pickups.get(part.id)
    if (!pickup) return []
    return pickup.slides ? [shoe(part)] : of(part, 'roller-spindle')
  }
  return description.parts.flatMap((part) => [
    ...centre(part),
    ...(part.materials.includes('felt') ? of(part, 'felt-pad') : []),
  ])
}

function treadsAndTyres(description: EngineDescription, options: LubricationOptions): LubricationPoint[] {
  const contact = heldWith(options, 'rail-wheel') === 'contact-lubricant'
  const collecting = description.wheelSets.filter(
    (set) => (set.left.tread && !set.left.tyre) || (set.right.tread && !set.right.tyre),
  )
  const tyred = description.wheelSets.filter((set) => set.left.tyre || set.right.tyre)
  const head = (id: string, kind: 'tread' | 'tyre', part: string, name: string) => ({
    id,
    kind,
    part,
    name,
    lastAccessBefore: null,
  })
  return [
    ...collecting
      .slice(0, 1)
      .map((set) =>
        finished(
          head('treads', 'tread', set.left.part, `Collecting treads of ${collecting.length} axles`),
          contact
            ? { product: 'contact lubricant', quarters: 1, amount: 'a trace for all of them, wiped thin', because: '' }
            : { product: null, quarters: 0, amount: 'none', because: 'It collects dirt, and stops the current.' },
          [],
          options,
        ),
      ),
    ...tyred.map((set) =>
      finished(
        head(`${set.id}.tyre`, 'tyre', set.left.tyre ? set.left.part : set.right.part, `Tyre: ${inSentence(set.name)}`),
        { product: null, quarters: 0, amount: 'none, ever', because: 'It slips, and rubber swells.' },
        [],
        options,
      ),
    ),
  ]
}

type Head = Pick<LubricationPoint, 'id' | 'kind' | 'part' | 'name' | 'lastAccessBefore'>

/** The shop's family of lubricants, refused where plastic is reached; what stands in for what is not on the shelf. */
function finished(head: Head, asked: Amount, reaches: readonly Part[], options: LubricationOptions): LubricationPoint {
  const soft = reaches.flatMap((part) =>
    part.materials.filter((material) => plastics.has(material)).map((material) => ({ part, material })),
  )
  const household = heldWith(options, 'lubricant') === 'household'
  const homely =
    asked.product === 'light oil' ? 'thin household oil' : asked.product === 'gear grease' ? 'petroleum jelly' : null
  const [first] = soft
  const named = products.find((entry) => entry.id === asked.product)
  // What the maker or the shop asks for and would harm a plastic here is not taken.
  const harms = named && !named.plasticSafe && first
  const product = harms ? named.instead : household && homely && !first ? homely : asked.product
  const refusedOf = harms ? named.id : household && homely && first ? homely : null
  const refused =
    refusedOf && first
      ? `No ${refusedOf}: ${inSentence(first.part.name)} is ${first.material.replaceAll('-', ' ')}, and petroleum products harm it.`
      : ''
  const there = !options.shelf || product === null || options.shelf.includes(product)
  return {
    ...head,
    ...asked,
    product,
    refused,
    instead: there ? null : standIn(product ?? '', options.shelf ?? [], first !== undefined),
  }
}

/** The nearest on the shelf, by what each class says does as well; empty where none is. */
function standIn(product: string, shelf: readonly string[], plastic: boolean): string {
  const seen = new Set<string>()
  for (let at = products.find((entry) => entry.id === product); at && !seen.has(at.id);) {
    seen.add(at.id)
    const next: Product | undefined = products.find((entry) => entry.id === at?.instead)
    if (next && shelf.includes(next.id) && (next.plasticSafe || !plastic)) return next.id
    at = next
  }
  return ''
}

function heldWith(options: LubricationOptions, school: string): string {
  const found = (options.schools ?? everySchool).find((entry) => entry.id === school)
  return found ? optionOf(found, options.chosen ?? {}).id : ''
}

/** “Worm” says it all where the part is called so too. */
const namedPoint = (words: string, part: string): string => (words === part ? part : `${words}: ${inSentence(part)}`)

const pointWords: Readonly<Record<LubricationRow['point'], string>> = {
  'motor-bearing-far': 'Bearing far from the commutator',
  'motor-bearing-commutator': 'Bearing beside the commutator',
  worm: 'Worm',
  'gear-train': 'Gears',
  'universal-joint': 'Joint',
  'axle-bearing': 'Axle bearings',
  'axle-bearing-live': 'Live axle bearings',
  rods: 'Crank pins',
  'axle-box-worn': 'Worn axle box',
  'collecting-contact': 'Contact',
  commutator: 'Commutator',
  brushes: 'Brushes',
  'switch-contacts': 'Switch contacts',
  'roller-spindle': 'Roller spindle',
  'felt-pad': 'Felt pad',
}
