import type { CircuitComponent } from '../description-schema'
import { removal, type Draft } from './draft'
import type { EntryOf } from './plan-schema'
import { inSentence } from '../name-in-sentence'

const sides = ['left', 'right'] as const
type SideName = (typeof sides)[number]
const contactFaults: CircuitComponent['faults'] = ['open', 'high-resistance', 'intermittent']

/** Which node each side's rail is. */
export interface Rails {
  readonly left: string
  readonly right: string
  readonly plus: string
}

/** An axle with its two wheels, how they touch the rail and how current leaves them. */
export function addWheelSet(draft: Draft, entry: EntryOf<'wheel-set'>, rails: Rails): void {
  const { as: id, name, unit, insulated } = entry
  const lower = inSentence(name)
  const split = insulated === 'split'
  const plastic = insulated === 'plastic'
  draft.part({
    id,
    name,
    kind: 'axle',
    unit,
    materials: ['steel', ...(split ? ['acetal' as const] : [])],
    removal: entry.fixed
      ? null
      : removal({
          minutes: 1,
          refitMinutes: 2,
          needs: entry.behind ?? [],
          replacement: 'rare',
          wayBack:
            entry.wayBack ??
            (insulated === 'left' || insulated === 'right'
              ? `The insulated wheel on the ${insulated}.`
              : 'The same way round as it came out.'),
        }),
  })
  draft.rotors.push({ id, name, kind: 'axle', part: id, unit })
  if (!split && !plastic) draft.node(`${id}.axle`, `Axle of the ${lower}`, 'wheel')
  for (const side of sides) addWheel(draft, entry, side, rails)
  if (split) addMuff(draft, entry)
  if (entry.axle && !split && !plastic) {
    draft.component({
      id: `${id}.bearing`,
      of: id,
      name: `Bearings of the ${lower}`,
      kind: 'contact',
      from: `${id}.axle`,
      to: entry.axle,
      ohms: 0.3,
      part: id,
      unit,
      faults: contactFaults,
    })
  }
  const live = Boolean(entry.axle) || (split && (entry.left !== undefined || entry.right !== undefined))
  draft.carePoints.push({
    id: `${id}.bearings`,
    kind: live ? 'axle-bearing-live' : entry.wearing ? 'axle-box-worn' : 'axle-bearing',
    part: id,
    access: null,
  })
  const wheel = (side: SideName) => ({
    part: `${id}.${side}`,
    insulated: split || plastic || insulated === 'both' || insulated === side,
    tyre: entry.tyre === side || entry.tyre === 'both',
    tread: plastic ? null : `${id}.${side}.tread`,
  })
  draft.wheelSets.push({
    id,
    name,
    rotor: id,
    unit,
    truck: entry.truck,
    xMm: entry.xMm,
    diameterMm: entry.diameterMm,
    left: wheel('left'),
    right: wheel('right'),
    forward: 'with',
  })
}

/** What joins the halves of a split axle: it keeps their poles apart and turns the one with the other. */
function addMuff(draft: Draft, entry: EntryOf<'wheel-set'>): void {
  const { as: id, unit } = entry
  const lower = inSentence(entry.name)
  draft.component({
    id: `${id}.muff`,
    of: id,
    name: `Muff between the halves of the ${lower}`,
    kind: 'insulation',
    from: `${id}.left`,
    to: `${id}.right`,
    ohms: null,
    part: id,
    unit,
    faults: ['shorted'],
  })
  draft.rotors.push({ id: farHalfOf(id), name: `Far half of the ${lower}`, kind: 'axle', part: id, unit })
  draft.links.push({
    id: `${id}.grip`,
    name: `Muff of the ${lower}`,
    kind: 'muff',
    from: id,
    to: farHalfOf(id),
    teethFrom: null,
    teethTo: null,
    reverses: false,
    part: id,
  })
}

/** The rotor of the half that only the muff turns; the other half is the axle's own rotor and carries its gear. */
export function farHalfOf(axle: string): string {
  return `${axle}.far-half`
}

/** One wheel of a wheel set. */
interface Wheel {
  readonly entry: EntryOf<'wheel-set'>
  readonly side: SideName
  readonly id: string
  /** As it is called within a name. */
  readonly of: string
  readonly tyred: boolean
}

function addWheel(draft: Draft, entry: EntryOf<'wheel-set'>, side: SideName, rails: Rails): void {
  const wheel: Wheel = {
    entry,
    side,
    id: `${entry.as}.${side}`,
    of: `${inSentence(entry.name)}, ${side}`,
    tyred: entry.tyre === side || entry.tyre === 'both',
  }
  addRim(draft, wheel)
  if (wheel.tyred) addTyre(draft, wheel)
  if (entry.insulated === 'plastic') return
  addTread(draft, wheel, rails[side])
  if (entry.insulated !== 'split') addBush(draft, wheel)
  const pickup = entry[side]
  if (pickup?.by === 'frame') addLiveBearing(draft, wheel, pickup.to)
  else if (pickup) addPickup(draft, wheel, pickup.by, pickup.to)
}

function addRim(draft: Draft, { entry, id, of }: Wheel): void {
  const { as, unit } = entry
  draft.part({
    id,
    name: `Wheel of the ${of}`,
    kind: 'wheel',
    unit,
    materials: [entry.insulated === 'plastic' ? 'styrene' : (entry.rim ?? 'nickel-silver')],
    removal: entry.fixed
      ? null
      : removal({
          minutes: 5,
          refitMinutes: 15,
          needs: [[as]],
          tools: ['wheel-puller'],
          risk: 0.15,
          replacement: 'rare',
          leaveAlone: 'Pressed on: gauge and quarter are lost with it.',
        }),
  })
}

function addTyre(draft: Draft, { entry, id, of }: Wheel): void {
  const { as, unit } = entry
  draft.part({
    id: `${id}.tyre`,
    name: `Tyre of the ${of}`,
    kind: 'tyre',
    unit,
    of: id,
    materials: ['rubber'],
    removal: removal({
      minutes: 1,
      refitMinutes: 2,
      needs: entry.tyreBehind ?? [[as]],
      tools: ['hook'],
      risk: 0.3,
      replacement: 'order',
      wayBack: 'Seated all round in its groove, not twisted, no oil.',
    }),
  })
}

function addTread(draft: Draft, { entry, id, of, tyred }: Wheel, rail: string): void {
  const { as, unit } = entry
  draft.node(id, `Rim of the ${of}`, 'tread')
  draft.component({
    id: `${id}.tread`,
    of: as,
    name: `Tread of the ${of}`,
    kind: 'contact',
    from: rail,
    to: id,
    ohms: tyred ? null : 0.3,
    part: id,
    unit,
    faults: tyred ? [] : contactFaults,
  })
}

function addBush(draft: Draft, { entry, side, id, of }: Wheel): void {
  const { as, unit, insulated } = entry
  const apart = insulated === 'both' || insulated === side
  draft.component({
    id: `${id}.bush`,
    of: as,
    name: apart ? `Insulation of the ${of}` : `Hub of the ${of}`,
    kind: apart ? 'insulation' : 'conductor',
    from: id,
    to: `${as}.axle`,
    ohms: apart ? null : 0.02,
    part: id,
    unit,
    faults: apart ? ['shorted', 'high-resistance'] : [],
  })
}

/** Its axle bears in the frame and hands the current on there. */
function addLiveBearing(draft: Draft, { entry, id, of }: Wheel, to: string): void {
  const { as, unit } = entry
  draft.component({
    id: `${id}.bearing`,
    of: as,
    name: `Bearing of the ${of}`,
    kind: 'contact',
    from: id,
    to,
    ohms: 0.3,
    part: as,
    unit,
    faults: contactFaults,
  })
}

function addPickup(draft: Draft, { entry, id, of }: Wheel, by: 'cup' | 'wiper', to: string): void {
  const { as, unit } = entry
  const cup = by === 'cup'
  const part = `${id}.${by}`
  draft.part({
    id: part,
    name: cup ? `Axle cup of the ${of}` : `Wiper of the ${of}`,
    kind: 'pickup',
    unit,
    materials: [cup ? 'brass' : 'bronze'],
    removal: removal({
      minutes: 1.5,
      refitMinutes: 2.5,
      needs: entry.behind ?? [],
      tools: ['tweezers'],
      risk: 0.04,
      replacement: cup ? 'order' : 'easy',
      leaveAlone: cup
        ? 'A push fit in plastic: it cleans well in place.'
        : 'Cleans and bends in place; off only to replace it.',
      wayBack: cup ? '' : 'Bears lightly on the wheel back, clear of the spokes.',
    }),
  })
  draft.component({
    id: part,
    of: as,
    ...(cup ? { role: 'axle-cup' as const } : {}),
    name: cup ? `Axle end in its cup, ${of}` : `Wiper on the ${of}`,
    kind: 'contact',
    from: id,
    to,
    ohms: 0.2,
    part,
    unit,
    faults: contactFaults,
  })
  draft.carePoints.push({ id: `${part}.contact`, kind: 'collecting-contact', part, access: null })
}

/** The wheel sets that turn together on a pivot, or lie in one frame. Comes after its wheel sets. */
export function addTruck(draft: Draft, entry: EntryOf<'truck'>): void {
  const { as: id, name, unit } = entry
  draft.trucks.push({ id, name, unit })
  const wheelSets = draft.wheelSets.filter((wheelSet) => wheelSet.truck === id)
  const treads = wheelSets.flatMap((wheelSet) =>
    [wheelSet.left.tread, wheelSet.right.tread].filter((tread) => tread !== null),
  )
  const lower = inSentence(name)
  if (entry.turns && treads.length > 0) {
    draft.turnables.push({
      id: `${id}.turned`,
      name: `The ${lower} the other way round`,
      minutes: 2,
      access: entry.access ?? null,
      effects: [
        { kind: 'swap-rails', components: treads },
        ...(entry.carriesMotor ? [{ kind: 'face-back' as const, truck: id }] : []),
      ],
    })
  }
  // A wheel set matters only where one of its wheels is insulated and the other is not; its wipers stay where they are.
  for (const wheelSet of wheelSets) {
    const removable = draft.parts.find((part) => part.id === wheelSet.id)?.removal
    if (!removable || wheelSet.left.insulated === wheelSet.right.insulated || wheelSet.left.tread === null) continue
    draft.turnables.push({
      id: `${wheelSet.id}.turned`,
      name: `${wheelSet.name} the other way round`,
      minutes: 1,
      access: draft.access(`${wheelSet.id}.out`, `${wheelSet.name} out`, [[wheelSet.id]]),
      effects: [{ kind: 'turn-wheel-set', wheelSet: wheelSet.id }],
    })
  }
}

/** All one-sided wheel sets together, the way a careful hand can still get wrong. */
export function addAllWheelSetsTurned(draft: Draft): void {
  const ids = draft.wheelSets
    .filter((wheelSet) => draft.turnables.some((turnable) => turnable.id === `${wheelSet.id}.turned`))
    .map((wheelSet) => wheelSet.id)
  if (ids.length < 2) return
  const off = draft.access(
    'wheel-sets.out',
    'All these wheel sets out',
    ids.map((id) => [id]),
  )
  draft.turnables.push({
    id: 'wheel-sets.turned',
    name: 'All wheel sets the other way round',
    minutes: ids.length,
    access: off,
    effects: ids.map((wheelSet) => ({ kind: 'turn-wheel-set', wheelSet })),
  })
}

/** Centre roller or shoe. */
export function addRoller(draft: Draft, entry: EntryOf<'roller'>, rails: Rails): void {
  const { as: id, name, unit, xMm, to, slides } = entry
  draft.part({
    id,
    name,
    kind: 'pickup',
    unit,
    materials: ['brass', 'steel'],
    removal: removal({
      minutes: 2,
      refitMinutes: 3,
      needs: entry.behind ?? [],
      tools: ['screwdriver'],
      risk: 0.03,
      replacement: 'order',
      hazards: ['flies-away'],
      wayBack: 'Insulating plate under it; spring pressing down, free to ride.',
    }),
  })
  draft.node(`${id}.rim`, `${name}, what touches the rail`, 'tread')
  draft.component({
    id: `${id}.tread`,
    name: `${name} on the centre rail`,
    kind: 'contact',
    from: rails.plus,
    to: `${id}.rim`,
    ohms: 0.3,
    part: id,
    unit,
    faults: contactFaults,
  })
  draft.component({
    id: `${id}.pivot`,
    name: `Pivot and spring of the ${inSentence(name)}`,
    kind: 'contact',
    from: `${id}.rim`,
    to,
    ohms: 0.1,
    part: id,
    unit,
    faults: contactFaults,
  })
  draft.centrePickups.push({ id, name, unit, xMm, tread: `${id}.tread`, part: id, ...(slides ? { slides } : {}) })
  draft.carePoints.push({ id: `${id}.contact`, kind: 'collecting-contact', part: id, access: null })
}
