import { checkDescription } from './check-description'
import type { CircuitComponent, EngineDescription, Part } from './description-schema'
import type { Difference } from './difference-schema'
import { driveTrain } from './drive-train'
import { fitDecoder, hasDecoder } from './fit-decoder'
import { inSentence } from './name-in-sentence'
import { openMotor } from './open-motor'
import { tyreOf } from './tyre-of'

export interface Adapted {
  readonly description: EngineDescription
  /** Differences that could not be applied; the description is as it was without them. */
  readonly flagged: ReadonlyArray<{ readonly index: number; readonly difference: Difference; readonly message: string }>
}

/**
 * A description with its differences. One that points at something that is no longer there, or would leave the
 * engine unreadable, is passed over and named: an engine never becomes unreadable through an edit.
 *
 * @example applyDifferences(describeConstruction('tank-can'), [{ kind: 'decoder' }]).flagged // []
 */
export function applyDifferences(base: EngineDescription, differences: readonly Difference[]): Adapted {
  let description = base
  const flagged: Array<Adapted['flagged'][number]> = []
  for (const [index, difference] of differences.entries()) {
    try {
      const next = applyOne(description, difference)
      const problem = checkDescription(next).find((entry) => entry.fatal)
      if (problem) throw new NotApplicable(problem.message)
      description = next
    } catch (error) {
      if (!(error instanceof NotApplicable)) throw error
      flagged.push({ index, difference, message: error.message })
    }
  }
  return { description, flagged }
}

class NotApplicable extends Error {}

function need<T extends { readonly id: string }>(list: readonly T[], id: string, what: string): T {
  const entry = list.find((candidate) => candidate.id === id)
  if (!entry) throw new NotApplicable(`It speaks of ${what} “${id}”, which this construction does not have.`)
  return entry
}

/** Type and example may both have added one. */
function freeId(description: EngineDescription, stem: string): string {
  for (let number = 1; ; number++) {
    const id = `${stem}-${number}`
    if (!description.parts.some((part) => part.id === id)) return id
  }
}

function replaced<T extends { readonly id: string }>(list: readonly T[], entry: T): T[] {
  return list.map((candidate) => (candidate.id === entry.id ? entry : candidate))
}

function applyOne(description: EngineDescription, difference: Difference): EngineDescription {
  switch (difference.kind) {
    case 'motor':
      return otherMotor(description, difference)
    case 'gear-ratio':
      return otherRatio(description, difference.turns)
    case 'gear': {
      const link = need(description.links, difference.link, 'a gear')
      if (link.teethFrom === null) throw new NotApplicable(`“${link.name}” has no teeth to count.`)
      return {
        ...description,
        links: replaced(description.links, { ...link, teethFrom: difference.teethFrom, teethTo: difference.teethTo }),
      }
    }
    case 'wheels': {
      const { diameterMm } = difference
      for (const id of difference.wheelSets) need(description.wheelSets, id, 'an axle')
      return diameterMm === null
        ? description
        : {
            ...description,
            wheelSets: description.wheelSets.map((wheelSet) =>
              difference.wheelSets.includes(wheelSet.id) ? { ...wheelSet, diameterMm } : wheelSet,
            ),
          }
    }
    case 'tyre':
      return otherTyre(description, difference)
    case 'pickup':
      return addedPickup(description, difference)
    case 'resistor':
      return addedResistor(description, difference)
    case 'omitted':
      return omitted(description, difference)
    case 'weight': {
      const unit = need(description.units, difference.unit, 'a unit')
      if (unit.massGrams !== null && unit.massGrams + difference.grams <= 0)
        throw new NotApplicable(`${unit.name} does not weigh that much.`)
      return {
        ...description,
        units: replaced(description.units, {
          ...unit,
          massGrams: unit.massGrams === null ? null : unit.massGrams + difference.grams,
        }),
      }
    }
    case 'material': {
      const part = need(description.parts, difference.part, 'a part')
      return { ...description, parts: replaced(description.parts, { ...part, materials: difference.materials }) }
    }
    case 'fastened':
      return fastenedOtherwise(description, difference)
    case 'covered':
      return covered(description, difference)
    case 'opened': {
      const motor = need(description.motors, difference.motor, 'a motor')
      if (motor.field !== null || motor.opens)
        throw new NotApplicable(`${motor.name} can be opened as it is described.`)
      return openMotor(description, motor, difference)
    }
    case 'decoder': {
      if (hasDecoder(description)) throw new NotApplicable('It has a decoder already.')
      const fitted = fitDecoder(description)
      if (fitted === description) throw new NotApplicable('No decoder drives this kind of motor.')
      return fitted
    }
  }
}

function otherMotor(
  description: EngineDescription,
  difference: Extract<Difference, { kind: 'motor' }>,
): EngineDescription {
  const motor = need(description.motors, difference.motor, 'a motor')
  if (motor.field !== null)
    throw new NotApplicable(`${motor.name} has a wound field: a motor with a magnet does not stand in for it.`)
  const winding = need(description.components, motor.armature, 'a winding')
  const part = need(description.parts, motor.part, 'a part')
  const opens = difference.motorKind === 'open-frame' || difference.motorKind === 'side-brush'
  // Friction belongs to the train as much as to the motor: the same current at rest is kept.
  const share = difference.backEmf / motor.backEmf
  return {
    ...description,
    parts: replaced(description.parts, { ...part, name: difference.name }),
    components: replaced(description.components, { ...winding, ohms: difference.ohms, highOhms: difference.ohms * 2 }),
    motors: replaced(description.motors, {
      ...motor,
      name: difference.name,
      kind: difference.motorKind,
      backEmf: difference.backEmf,
      coulombTorque: motor.coulombTorque * share,
      viscousTorque: motor.viscousTorque * share,
      segments: difference.segments,
      opens: opens && motor.opens,
    }),
  }
}

/** The whole ratio from motor to wheel, when nobody has counted the teeth: the first reduction is set to make it so. */
function otherRatio(description: EngineDescription, turns: number): EngineDescription {
  const train = driveTrain(description)
  const driven = description.wheelSets.find((wheelSet) => train.turning.has(wheelSet.rotor))
  const now = driven && train.turning.get(driven.rotor)
  if (!now) throw new NotApplicable('Nothing is driven, so there is no ratio.')
  const factor = turns * Math.abs(now.turnsPerMotorTurn)
  const first = new Set(
    description.wheelSets.flatMap((wheelSet) => {
      const path = train.turning.get(wheelSet.rotor)?.path ?? []
      const link = path.find((id) => description.links.find((entry) => entry.id === id)?.teethFrom !== null)
      return link ? [link] : []
    }),
  )
  if (first.size === 0) throw new NotApplicable('This drive has no gear to set.')
  return {
    ...description,
    links: description.links.map((link) =>
      first.has(link.id) && link.teethTo !== null
        ? { ...link, teethTo: Number((link.teethTo * factor).toPrecision(6)) }
        : link,
    ),
  }
}

function otherTyre(
  description: EngineDescription,
  { wheelSet: id, side, fitted }: Extract<Difference, { kind: 'tyre' }>,
): EngineDescription {
  const wheelSet = need(description.wheelSets, id, 'an axle')
  const wheel = wheelSet[side]
  if (wheel.tyre === fitted) throw new NotApplicable(`The wheel ${fitted ? 'has a tyre' : 'has no tyre'} already.`)
  const tread = description.components.find((component) => component.id === wheel.tread)
  const parts = fitted
    ? [
        ...description.parts,
        {
          id: `${wheel.part}.tyre`,
          of: wheel.part,
          name: `Tyre of the ${inSentence(wheelSet.name)}, ${side}`,
          kind: 'tyre' as const,
          unit: wheelSet.unit,
          materials: ['rubber' as const],
          place: '',
          heldBy: 'its groove',
          massGrams: null,
          removal: null,
        },
      ]
    : withoutPart(description, tyreOf(description, wheel)?.id ?? '').parts
  return {
    ...description,
    parts,
    wheelSets: replaced(description.wheelSets, { ...wheelSet, [side]: { ...wheel, tyre: fitted } }),
    components: tread
      ? replaced(description.components, {
          ...tread,
          ohms: fitted ? null : 0.3,
          faults: fitted ? [] : ['open', 'high-resistance', 'intermittent'],
        })
      : description.components,
  }
}

function addedPickup(
  description: EngineDescription,
  { wheelSet: id, side, to }: Extract<Difference, { kind: 'pickup' }>,
): EngineDescription {
  const wheelSet = need(description.wheelSets, id, 'an axle')
  const bus = need(description.nodes, to, 'a point')
  const tread = description.components.find((component) => component.id === wheelSet[side].tread)
  if (!tread)
    throw new NotApplicable(`The ${side} wheel of the ${inSentence(wheelSet.name)} is not metal: it cannot collect.`)
  const partId = freeId(description, 'added-wiper')
  const name = `Added wiper on the ${inSentence(wheelSet.name)}, ${side}`
  const part: Part = {
    id: partId,
    name,
    kind: 'pickup',
    unit: wheelSet.unit,
    materials: ['bronze'],
    place: bus.name,
    heldBy: 'as it was added',
    massGrams: null,
    removal: null,
  }
  const contact: CircuitComponent = {
    id: partId,
    name,
    kind: 'contact',
    from: tread.to,
    to,
    ohms: 0.2,
    highOhms: null,
    part: partId,
    unit: wheelSet.unit,
    of: wheelSet.id,
    faults: ['open', 'high-resistance', 'intermittent'],
    closedIn: null,
    lamp: null,
  }
  return { ...description, parts: [...description.parts, part], components: [...description.components, contact] }
}

function addedResistor(
  description: EngineDescription,
  { component: id, ohms, name }: Extract<Difference, { kind: 'resistor' }>,
): EngineDescription {
  const lead = need(description.components, id, 'a lead')
  const between = description.nodes.find((node) => node.id === lead.to)
  const partId = freeId(description, 'added-resistor')
  return {
    ...description,
    nodes: [
      ...description.nodes,
      {
        id: `${partId}.joint`,
        name: `Joint before the added ${name}`,
        stage: between?.stage ?? 'lead',
        access: between?.access ?? null,
      },
    ],
    parts: [
      ...description.parts,
      {
        id: partId,
        name,
        kind: 'board',
        unit: lead.unit,
        materials: ['unknown'],
        place: lead.name,
        heldBy: 'as it was added',
        massGrams: null,
        removal: null,
      },
    ],
    components: [
      ...replaced(description.components, { ...lead, to: `${partId}.joint` }),
      {
        id: partId,
        name,
        kind: 'resistor',
        from: `${partId}.joint`,
        to: lead.to,
        ohms,
        highOhms: null,
        part: partId,
        unit: lead.unit,
        faults: ['open', 'high-resistance'],
        closedIn: null,
        lamp: null,
      },
    ],
  }
}

function fastenedOtherwise(
  description: EngineDescription,
  { part: id, heldBy, minutes, refitMinutes }: Extract<Difference, { kind: 'fastened' }>,
): EngineDescription {
  const part = need(description.parts, id, 'a part')
  const { removal } = part
  return {
    ...description,
    parts: replaced(description.parts, {
      ...part,
      heldBy,
      removal: removal && {
        ...removal,
        minutes: minutes ?? removal.minutes,
        refitMinutes: refitMinutes ?? removal.refitMinutes,
      },
    }),
  }
}

/** What lies over it is taken for a small detail that can be had again: nothing else is known of it. */
function covered(
  description: EngineDescription,
  { part: id, name, heldBy, minutes }: Extract<Difference, { kind: 'covered' }>,
): EngineDescription {
  const part = need(description.parts, id, 'a part')
  if (!part.removal) throw new NotApplicable(`${part.name} never comes off: nothing has to come off before it.`)
  const detail: Part = {
    id: freeId(description, 'added-detail'),
    name,
    kind: 'detail',
    unit: part.unit,
    materials: ['unknown'],
    place: `over the ${inSentence(part.name)}`,
    heldBy,
    massGrams: null,
    removal: {
      minutes,
      refitMinutes: minutes,
      needs: [],
      tools: ['fingers'],
      risk: DETAIL_BREAKS,
      replacement: 'order',
      hazards: ['small-parts'],
      leaveAlone: '',
      wayBack: '',
    },
  }
  const under = { ...part, removal: { ...part.removal, needs: [...part.removal.needs, [detail.id]] } }
  return { ...description, parts: [...replaced(description.parts, under), detail] }
}

/** Chance that an aged detail breaks coming off. Judged. */
const DETAIL_BREAKS = 0.04

/** A part this example never had or has lost. What it led is open, or bridged by a plain wire. */
function omitted(
  description: EngineDescription,
  { part: id, bridged }: Extract<Difference, { kind: 'omitted' }>,
): EngineDescription {
  const part = need(description.parts, id, 'a part')
  const rotor = description.rotors.find((entry) => entry.part === id)
  if (rotor) throw new NotApplicable(`${part.name} turns in the drive: the engine could not be described without it.`)
  if (description.motors.some((motor) => motor.part === id))
    throw new NotApplicable(`${part.name} is its motor: enter another motor instead.`)
  const without = withoutPart(description, id)
  return {
    ...without,
    components: description.components.map((component) => {
      if (component.part !== id) return component
      // Across something, an absent part leaves a gap; in line it leaves a gap too, unless somebody bridged it.
      return bridged
        ? {
            ...component,
            part: null,
            kind: 'conductor',
            name: `Plain wire in place of: ${inSentence(component.name)}`,
            ohms: 0.05,
            highOhms: null,
            lamp: null,
            faults: ['open', 'high-resistance', 'intermittent'],
          }
        : { ...component, part: null, ohms: null, lamp: null, faults: [] }
    }),
  }
}

function withoutPart(description: EngineDescription, id: string): EngineDescription {
  // A need that this part alone met is met: it is off for good.
  const met = (needs: string[][]): string[][] => needs.filter((group) => !group.includes(id))
  return {
    ...description,
    parts: description.parts
      .filter((part) => part.id !== id)
      .map((part) => (part.removal ? { ...part, removal: { ...part.removal, needs: met(part.removal.needs) } } : part)),
    accesses: description.accesses.map((access) => ({
      ...access,
      off: met(access.off),
      on: access.on.filter((part) => part !== id),
    })),
    carePoints: description.carePoints.filter((point) => point.part !== id),
    centrePickups: description.centrePickups.filter((pickup) => pickup.part !== id),
    switches: description.switches.map((entry) => (entry.part === id ? { ...entry, part: null } : entry)),
  }
}
