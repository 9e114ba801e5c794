import { driveTrain } from '../engine/drive-train'
import type { CarePoint, EngineDescription, Hazard, Part, Removal, Tool } from '../engine/description-schema'
import { atStart } from '../engine/name-in-sentence'
import { lubrication } from '../knowledge/lubrication'

/** What a step may do wrong to what is together already. */
export type Upset = 'bind' | 'short' | 'reverse'

/** One thing to do on the way back. */
export type BackStep =
  | {
      readonly kind: 'fit'
      readonly part: string
      readonly name: string
      readonly minutes: number
      readonly tools: readonly Tool[]
      readonly hazards: readonly Hazard[]
      /** Which way round, over or under what. */
      readonly wayBack: string
      readonly caution: string
    }
  | {
      readonly kind: 'lubricate'
      readonly point: string
      /** What is oiled. */
      readonly part: string
      readonly name: string
      readonly product: string
      readonly amount: string
      /** What closes it: the part fitted next; null where it can be reached at any time. */
      readonly lastAccessBefore: string | null
    }
  /** Ohms, where a wheel set can sit the wrong way round. */
  | { readonly kind: 'ohms'; readonly after: string; readonly name: string; readonly words: string }
  /** Current at low volts, where the step may bind, short or reverse. */
  | {
      readonly kind: 'test'
      readonly after: string
      readonly name: string
      readonly upsets: readonly Upset[]
      readonly causes: readonly string[]
    }
  /** Direction against the controller, before the lid is closed. */
  | { readonly kind: 'direction'; readonly before: string; readonly reversals: readonly string[] }

/**
 * The way back: everything that is off in an order in which it goes on again, with lubrication at its last access, ohms
 * where a wheel set can sit wrong, a test after every step that can bind, short or reverse, and the direction before
 * the lid is closed.
 *
 * @param taken parts that are off, in the order in which they came off
 * @example wayBack(describeConstruction('tank-can'), ['body']).map(({ kind }) => kind) // [ 'fit', 'test' ]
 */
export function wayBack(description: EngineDescription, taken: readonly string[]): BackStep[] {
  const parts = new Map(description.parts.map((part) => [part.id, part]))
  const order = fittingOrder(taken, parts)
  const off = new Set(order)
  const lid = order.find((id) => parts.get(id)?.kind === 'body')
  const reversals = description.turnables.filter((entry) => mayBeTurned(description, entry.access, off))
  const steps: BackStep[] = []
  const oiled = new Set<string>()
  for (const [index, id] of order.entries()) {
    const part = parts.get(id) as Part
    if (id === lid && reversals.length > 0)
      steps.push({ kind: 'direction', before: id, reversals: reversals.map((entry) => entry.name) })
    for (const point of closedBy(description, id, off)) {
      if (oiled.has(point.id)) continue
      oiled.add(point.id)
      steps.push(...lubricated(point, parts, id))
    }
    const removal = part.removal as Removal
    const several = part.kind === 'fastener' && parts.get(order[index + 1] ?? '')?.kind === 'fastener'
    steps.push({
      kind: 'fit',
      part: id,
      name: part.name,
      minutes: removal.refitMinutes,
      tools: removal.tools.filter((tool) => tool !== 'fingers'),
      hazards: removal.hazards,
      wayBack: removal.wayBack,
      caution: cautionOf(part, several),
    })
    off.delete(id)
    for (const point of description.carePoints) {
      if (point.part !== id || point.access !== null || oiled.has(point.id)) continue
      oiled.add(point.id)
      steps.push(...lubricated(point, parts, null))
    }
    steps.push(...checksAfter(description, part, off))
  }
  return steps
}

/**
 * Each goes on only while what had to be off before it came off is still off: the order of taking off turned round, as
 * far as it was one in which things can come off; what came off by itself goes where it fits.
 */
function fittingOrder(taken: readonly string[], parts: ReadonlyMap<string, Part>): string[] {
  const left = [...new Set(taken)].filter((id) => parts.get(id)?.removal)
  const gone = new Set<string>()
  const order: string[] = []
  while (left.length > 0) {
    const free = left.find((id) =>
      (parts.get(id)?.removal?.needs ?? []).every(
        (needs) =>
          needs.some((other) => gone.has(other)) || !needs.some((other) => left.includes(other) && other !== id),
      ),
    )
    const next = free ?? (left[0] as string)
    order.push(next)
    gone.add(next)
    left.splice(left.indexOf(next), 1)
  }
  return order.reverse()
}

function mayBeTurned(description: EngineDescription, accessId: string | null, off: ReadonlySet<string>): boolean {
  const access = description.accesses.find((entry) => entry.id === accessId)
  return access?.off.every((group) => group.some((id) => off.has(id))) ?? false
}

/** Care points that can be reached now and not any more once this part is on. */
function closedBy(description: EngineDescription, part: string, off: ReadonlySet<string>): CarePoint[] {
  const isOpen = (access: string | null, gone: (id: string) => boolean): boolean =>
    (description.accesses.find((entry) => entry.id === access)?.off ?? []).every((group) => group.some(gone))
  return description.carePoints.filter(
    (point) =>
      point.access !== null &&
      isOpen(point.access, (id) => off.has(id)) &&
      !isOpen(point.access, (id) => off.has(id) && id !== part) &&
      !off.has(point.part),
  )
}

function lubricated(point: CarePoint, parts: ReadonlyMap<string, Part>, before: string | null): BackStep[] {
  const row = lubrication.get(point.kind)
  if (!row?.product) return []
  const name = `${point.kind.replaceAll('-', ' ')}: ${parts.get(point.part)?.name ?? point.part}`
  return [
    {
      kind: 'lubricate',
      point: point.id,
      part: point.part,
      name: atStart(name),
      product: row.product,
      amount: row.amount,
      lastAccessBefore: before,
    },
  ]
}

function cautionOf(part: Part, several: boolean): string {
  if (several) return 'Start all of them before tightening any.'
  if (part.kind === 'fastener') return 'Snug, not hard.'
  if (part.kind === 'body') return 'Wires clear of moving parts; one look with the lid held over it.'
  if (part.removal?.hazards.includes('flies-away')) return 'Glasses on; a finger or a bag over it.'
  return ''
}

const binding: ReadonlySet<Part['kind']> = new Set([
  'gear',
  'shaft',
  'axle',
  'rod',
  'motor',
  'motor-part',
  'chassis',
  'weight',
])
const shorting: ReadonlySet<Part['kind']> = new Set(['axle', 'lead', 'board', 'pickup', 'lamp', 'body'])

function checksAfter(description: EngineDescription, part: Part, off: ReadonlySet<string>): BackStep[] {
  const steps: BackStep[] = []
  const wheelSet = description.wheelSets.find(
    (entry) => description.rotors.find((rotor) => rotor.id === entry.rotor)?.part === part.id,
  )
  if (wheelSet && wheelSet.left.insulated !== wheelSet.right.insulated) {
    const side = wheelSet.left.insulated ? 'left' : 'right'
    steps.push({
      kind: 'ohms',
      after: part.id,
      name: wheelSet.name,
      words: `Both probes on one rim first: a short. Then the ${side} wheel against frame and axle: open. It is the insulated one.`,
    })
  }
  if (!motorTurns(description, off)) return steps
  const upsets: Upset[] = []
  if (binding.has(part.kind) && (part.kind !== 'axle' || isTurned(description, part.id, off))) upsets.push('bind')
  if (shorting.has(part.kind)) upsets.push('short')
  const turnable = description.turnables.some((entry) =>
    description.accesses.find((access) => access.id === entry.access)?.off.some((group) => group.includes(part.id)),
  )
  if (turnable || part.kind === 'lead') upsets.push('reverse')
  if (upsets.length > 0)
    steps.push({ kind: 'test', after: part.id, name: part.name, upsets, causes: causesOf(part, upsets) })
  return steps
}

/** A motor that has all it needs to be tried with two leads from the supply. */
function motorTurns(description: EngineDescription, off: ReadonlySet<string>): boolean {
  return description.motors.some(
    (motor) =>
      !off.has(motor.part) &&
      !description.parts.some(
        (part) => part.kind === 'motor-part' && off.has(part.id) && belongsTo(description, part, motor.part),
      ),
  )
}

/** A part of a motor needs, or is needed by, nothing outside of its unit: one motor a unit is what there is. */
const belongsTo = (description: EngineDescription, part: Part, motor: string): boolean =>
  description.parts.find((entry) => entry.id === motor)?.unit === part.unit

function isTurned(description: EngineDescription, part: string, off: ReadonlySet<string>): boolean {
  const rotor = description.rotors.find((entry) => entry.part === part)
  return rotor !== undefined && driveTrain(description, brokenLinks(description, off)).turning.has(rotor.id)
}

/** Links that carry nothing while a part of theirs is off. */
export function brokenLinks(description: EngineDescription, off: ReadonlySet<string>): Set<string> {
  const partOf = new Map(description.rotors.map((rotor) => [rotor.id, rotor.part]))
  return new Set(
    description.links
      .filter((link) => [link.part, partOf.get(link.from), partOf.get(link.to)].some((id) => id && off.has(id)))
      .map((link) => link.id),
  )
}

const usualCauses: Readonly<Partial<Record<Part['kind'], readonly string[]>>> = {
  motor: ['mesh too tight: move the motor by its screws', 'leads swapped', 'a lead under the motor'],
  'motor-part': ['a spring under instead of over', 'brush tilted in its holder', 'end play gone: a washer too many'],
  gear: ['mesh too tight', 'a hair or a burr between the teeth', 'put in with the wrong face up'],
  shaft: ['a joint not home in its cup', 'no end float left'],
  axle: [
    'a bearing not seated',
    'a wiper pressing hard',
    'a wheel rubbing on the frame',
    'turned round: the insulated side on the wrong rail',
  ],
  rod: ['quartering', 'a rod screw too tight', 'a rod put on with its other face outward'],
  chassis: ['a screw too tight bows the frame', 'the plate askew on an axle box'],
  weight: ['it presses on a lead or a gear'],
  lead: ['soldered to the other terminal', 'a strand across to the frame'],
  pickup: ['bent so that it presses hard', 'touching the frame or the other wheel'],
  board: ['a lead trapped under it', 'turned end for end'],
  lamp: ['its shell touches the frame'],
  body: ['the body presses on a wire', 'a boss presses on the motor'],
}

function causesOf(part: Part, upsets: readonly Upset[]): readonly string[] {
  return usualCauses[part.kind] ?? (upsets.includes('short') ? ['a lead trapped'] : ['a screw too tight'])
}
