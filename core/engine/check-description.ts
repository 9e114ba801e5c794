import { DESCRIPTION_VERSION, type EngineDescription } from './description-schema'
import { DECODER_SWITCH } from './fit-decoder'
import { driveTrain } from './drive-train'
import { inSentence } from './name-in-sentence'

/** Something wrong with a description, and where. */
export interface DescriptionProblem {
  readonly code:
    | 'newer-version'
    | 'id-twice'
    | 'points-nowhere'
    | 'negative-ohms'
    | 'no-teeth'
    | 'no-path'
    | 'floating-node'
    | 'circle-of-parts'
    | 'never-reached'
    | 'drive-binds'
    | 'not-driven'
  /** The list and the entry: `links / worm`. */
  readonly place: string
  readonly message: string
  /** False: it can be read and used, but should be looked at. */
  readonly fatal: boolean
}

/**
 * What the schema cannot say: names that point nowhere, circuits without a path, parts that can never come off,
 * gears without teeth. An empty list means the description is sound.
 *
 * @param description has passed the schema
 * @example checkDescription(describeConstruction('tank-can')) // []
 */
export function checkDescription(description: EngineDescription): DescriptionProblem[] {
  if (description.version > DESCRIPTION_VERSION) {
    return [
      {
        code: 'newer-version',
        place: 'version',
        message: `This description was written for a newer form (${description.version}; known here: ${DESCRIPTION_VERSION}). Update this program to read it.`,
        fatal: true,
      },
    ]
  }
  const names = [...duplicates(description), ...danglingNames(description)]
  const figures = checkFigures(description)
  // The rest follows the names, so they must hold first.
  if ([...names, ...figures].some((problem) => problem.fatal)) return [...names, ...figures]
  return [...checkCircuit(description), ...checkParts(description), ...checkDrive(description)]
}

/**
 * Whether a description can be computed with.
 *
 * @example isSound(describeConstruction('tank-can')) // true
 */
export function isSound(description: EngineDescription): boolean {
  return !checkDescription(description).some((problem) => problem.fatal)
}

const lists = [
  'units',
  'parts',
  'accesses',
  'nodes',
  'components',
  'switches',
  'motors',
  'rotors',
  'links',
  'trucks',
  'wheelSets',
  'centrePickups',
  'turnables',
  'carePoints',
] as const

function duplicates(description: EngineDescription): DescriptionProblem[] {
  return lists.flatMap((list) => {
    const seen = new Set<string>()
    return description[list].flatMap(({ id }): DescriptionProblem[] => {
      if (!seen.has(id)) {
        seen.add(id)
        return []
      }
      return [
        {
          code: 'id-twice',
          place: `${list} / ${id}`,
          message: `“${id}” stands twice in the list of ${list}.`,
          fatal: true,
        },
      ]
    })
  })
}

const owners = ['motors', 'wheelSets', 'switches'] as const

/** What a component says it hangs between, belongs to and passes in. */
function danglingOfComponents(description: EngineDescription, need: Need): DescriptionProblem[] {
  const found: DescriptionProblem[] = []
  for (const component of description.components) {
    const place = `components / ${component.id}`
    need('nodes', component.from, `${place} / from`)
    need('nodes', component.to, `${place} / to`)
    need('parts', component.part, `${place} / part`)
    need('units', component.unit, `${place} / unit`)
    const { closedIn, of } = component
    if (of !== undefined && !owners.some((list) => description[list].some(({ id }) => id === of)))
      found.push({
        code: 'points-nowhere',
        place: `${place} / of`,
        message: `“${component.name}” belongs to “${of}”, which is no motor, wheel set or switch.`,
        fatal: true,
      })
    need('switches', closedIn?.switch ?? null, `${place} / closedIn`)
    const positions =
      description.switches.find((entry) => entry.id === closedIn?.switch)?.positions.map(({ id }) => id) ?? []
    for (const position of closedIn?.positions ?? []) {
      if (positions.length > 0 && !positions.includes(position))
        found.push({
          code: 'points-nowhere',
          place: `${place} / closedIn`,
          message: `“${component.name}” closes in a position “${position}” that its switch does not have.`,
          fatal: true,
        })
    }
  }
  return found
}

function danglingNames(description: EngineDescription): DescriptionProblem[] {
  const known = Object.fromEntries(
    lists.map((list) => [list, new Set(description[list].map(({ id }) => id))]),
  ) as Record<(typeof lists)[number], Set<string>>
  const found: DescriptionProblem[] = []
  const need: Need = (list, id, place) => {
    if (id === null || known[list].has(id)) return
    found.push({
      code: 'points-nowhere',
      place,
      message: `“${place}” points at “${id}”, which is not among the ${list}.`,
      fatal: true,
    })
  }
  needOfBuild(description, need)
  needOfBoard(description, need)
  found.push(...danglingOfComponents(description, need), ...restsNowhere(description))
  needOfDrive(description, need)
  for (const turnable of description.turnables) needOfTurnable(turnable, need)
  for (const point of description.carePoints) {
    need('parts', point.part, `carePoints / ${point.id} / part`)
    need('accesses', point.access, `carePoints / ${point.id} / access`)
  }
  return found
}

/** Says that a row of a list has to be there; null needs nothing. */
type Need = (list: (typeof lists)[number], id: string | null, place: string) => void

/** Units, parts, and what lies open when some are off. */
function needOfBuild(description: EngineDescription, need: Need): void {
  for (const unit of description.units)
    for (const node of unit.chassis ?? []) need('nodes', node, `units / ${unit.id} / chassis`)
  for (const part of description.parts) {
    need('units', part.unit, `parts / ${part.id} / unit`)
    need('parts', part.of ?? null, `parts / ${part.id} / of`)
    for (const other of part.removal?.needs.flat() ?? []) need('parts', other, `parts / ${part.id} / removal`)
  }
  for (const access of description.accesses)
    for (const part of [...access.off.flat(), ...access.on]) need('parts', part, `accesses / ${access.id}`)
  for (const { id, leadsTo } of description.accesses)
    need('motors', leadsTo?.motor ?? null, `accesses / ${id} / leadsTo`)
}

/** Nodes, rails, switches, and a decoder among them. */
function needOfBoard(description: EngineDescription, need: Need): void {
  const { decoder } = description
  if (decoder) {
    need('nodes', decoder.plus, 'decoder / plus')
    need('nodes', decoder.minus, 'decoder / minus')
    need('accesses', decoder.pads, 'decoder / pads')
    need('switches', DECODER_SWITCH, 'decoder')
  }
  for (const node of description.nodes) need('accesses', node.access, `nodes / ${node.id} / access`)
  for (const entry of description.switches) need('parts', entry.part, `switches / ${entry.id} / part`)
  need('nodes', description.rails.plus, 'rails / plus')
  need('nodes', description.rails.minus, 'rails / minus')
}

function restsNowhere({ switches }: EngineDescription): DescriptionProblem[] {
  return switches
    .filter((entry) => !entry.positions.some(({ id }) => id === entry.rest))
    .map((entry) => ({
      code: 'points-nowhere',
      place: `switches / ${entry.id} / rest`,
      message: `“${entry.name}” rests in a position it does not have.`,
      fatal: true,
    }))
}

/** From the motors to the wheels and what collects there. */
function needOfDrive(description: EngineDescription, need: Need): void {
  for (const motor of description.motors) {
    need('parts', motor.part, `motors / ${motor.id} / part`)
    need('components', motor.armature, `motors / ${motor.id} / armature`)
    need('components', motor.field, `motors / ${motor.id} / field`)
    need('rotors', motor.rotor, `motors / ${motor.id} / rotor`)
    for (const feed of [motor.feeds.plus, motor.feeds.minus]) need('components', feed, `motors / ${motor.id} / feeds`)
  }
  for (const rotor of description.rotors) {
    need('parts', rotor.part, `rotors / ${rotor.id} / part`)
    need('units', rotor.unit, `rotors / ${rotor.id} / unit`)
  }
  for (const link of description.links) {
    need('rotors', link.from, `links / ${link.id} / from`)
    need('rotors', link.to, `links / ${link.id} / to`)
    need('parts', link.part, `links / ${link.id} / part`)
  }
  for (const truck of description.trucks) need('units', truck.unit, `trucks / ${truck.id} / unit`)
  for (const wheelSet of description.wheelSets) {
    const place = `wheelSets / ${wheelSet.id}`
    need('rotors', wheelSet.rotor, `${place} / rotor`)
    need('units', wheelSet.unit, `${place} / unit`)
    need('trucks', wheelSet.truck, `${place} / truck`)
    for (const side of ['left', 'right'] as const) {
      need('parts', wheelSet[side].part, `${place} / ${side}`)
      need('components', wheelSet[side].tread, `${place} / ${side} / tread`)
    }
  }
  for (const pickup of description.centrePickups) {
    need('components', pickup.tread, `centrePickups / ${pickup.id} / tread`)
    need('parts', pickup.part, `centrePickups / ${pickup.id} / part`)
    need('units', pickup.unit, `centrePickups / ${pickup.id} / unit`)
  }
}

function needOfTurnable(turnable: EngineDescription['turnables'][number], need: Need): void {
  const place = `turnables / ${turnable.id}`
  need('accesses', turnable.access, `${place} / access`)
  for (const effect of turnable.effects) {
    if (effect.kind === 'swap-rails') for (const component of effect.components) need('components', component, place)
    if (effect.kind === 'swap-ends')
      for (const component of [effect.first, effect.second]) need('components', component, place)
    if (effect.kind === 'turn-magnet') need('motors', effect.motor, place)
    if (effect.kind === 'turn-link') need('links', effect.link, place)
    if (effect.kind === 'turn-wheel-set') need('wheelSets', effect.wheelSet, place)
    if (effect.kind === 'face-back') need('trucks', effect.truck, place)
  }
}

function checkFigures(description: EngineDescription): DescriptionProblem[] {
  const found: DescriptionProblem[] = []
  for (const component of description.components) {
    for (const figure of ['ohms', 'highOhms'] as const) {
      const ohms = component[figure]
      if (ohms !== null && !(ohms >= 0))
        found.push({
          code: 'negative-ohms',
          place: `components / ${component.id} / ${figure}`,
          message: `“${component.name}” has ${ohms} Ω: resistance is zero or more.`,
          fatal: true,
        })
    }
  }
  for (const link of description.links) {
    for (const figure of ['teethFrom', 'teethTo'] as const) {
      const teeth = link[figure]
      if (teeth !== null && !(teeth > 0))
        found.push({
          code: 'no-teeth',
          place: `links / ${link.id} / ${figure}`,
          message: `“${link.name}” has a gear with ${teeth} teeth.`,
          fatal: true,
        })
    }
    if ((link.teethFrom === null) !== (link.teethTo === null))
      found.push({
        code: 'no-teeth',
        place: `links / ${link.id}`,
        message: `“${link.name}” names the teeth of one gear only: both, or none.`,
        fatal: true,
      })
  }
  return found
}

/** Every motor must lie on a way from rail to rail in some position of the switches, and nothing may hang loose. */
function checkCircuit(description: EngineDescription): DescriptionProblem[] {
  const found: DescriptionProblem[] = []
  const conducting = description.components.filter(
    (component) => component.ohms !== null || component.closedIn !== null || component.kind === 'relay',
  )
  const neighbours = new Map<string, Array<{ to: string; component: string }>>()
  for (const { id, from, to } of conducting) {
    neighbours.set(from, [...(neighbours.get(from) ?? []), { to, component: id }])
    neighbours.set(to, [...(neighbours.get(to) ?? []), { to: from, component: id }])
  }
  const reach = (start: string, without: string): Set<string> => {
    const seen = new Set([start])
    const queue = [start]
    for (let node = queue.pop(); node !== undefined; node = queue.pop()) {
      for (const { to, component } of neighbours.get(node) ?? []) {
        if (component === without || seen.has(to)) continue
        seen.add(to)
        queue.push(to)
      }
    }
    return seen
  }
  const { plus, minus } = description.rails
  for (const motor of description.motors) {
    const armature = description.components.find((component) => component.id === motor.armature)
    if (!armature) continue
    const [fromFrom, fromTo] = [reach(armature.from, armature.id), reach(armature.to, armature.id)]
    if (!((fromFrom.has(plus) && fromTo.has(minus)) || (fromFrom.has(minus) && fromTo.has(plus)))) {
      found.push({
        code: 'no-path',
        place: `motors / ${motor.id}`,
        message: `There is no way from rail to rail through ${motor.name}: no track could ever run it.`,
        fatal: true,
      })
    }
  }
  const fed = new Set([...reach(plus, ''), ...reach(minus, '')])
  for (const component of description.components) {
    if (component.lamp && !(fed.has(component.from) && fed.has(component.to))) {
      found.push({
        code: 'no-path',
        place: `components / ${component.id}`,
        message: `There is no way from the rails to ${inSentence(component.name)}: it could never light.`,
        fatal: false,
      })
    }
  }
  return [...found, ...floatingIslands(description)]
}

/** Points that nothing at all joins to the rails. What insulation keeps apart is meant to be: a wheel's axle, a frame. */
function floatingIslands(description: EngineDescription): DescriptionProblem[] {
  const island = new Map(description.nodes.map((node) => [node.id, new Set([node.id])]))
  for (const { from, to } of description.components) {
    const [first, second] = [island.get(from), island.get(to)]
    if (!first || !second || first === second) continue
    for (const id of second) {
      first.add(id)
      island.set(id, first)
    }
  }
  const names = new Map(description.nodes.map((node) => [node.id, node.name]))
  const { plus, minus } = description.rails
  return [...new Set(island.values())]
    .filter((ids) => !ids.has(plus) && !ids.has(minus))
    .map((ids): DescriptionProblem => {
      const points = [...ids].map((id) => `“${names.get(id)}”`)
      const message =
        points.length === 1
          ? `The point ${points[0]} is connected to nothing.`
          : `The points ${points.slice(0, -1).join(', ')} and ${points.at(-1)} are joined to each other and to nothing else.`
      return { code: 'floating-node', place: `nodes / ${[...ids][0]}`, message, fatal: false }
    })
}

function checkParts(description: EngineDescription): DescriptionProblem[] {
  const parts = new Map(description.parts.map((part) => [part.id, part]))
  const off = new Set<string>()
  for (let took = true; took;) {
    took = false
    for (const part of description.parts) {
      if (off.has(part.id) || !part.removal || !part.removal.needs.every((group) => group.some((id) => off.has(id))))
        continue
      off.add(part.id)
      took = true
    }
  }
  const stuck = description.parts.filter((part) => part.removal && !off.has(part.id))
  return [
    ...stuck.map((part): DescriptionProblem => {
      const blocking = part.removal?.needs.find((group) => !group.some((id) => off.has(id))) ?? []
      const circle = blocking.some((id) => parts.get(id)?.removal)
      const words = blocking.map((id) => parts.get(id)?.name ?? id).join(' or ')
      return circle
        ? {
            code: 'circle-of-parts',
            place: `parts / ${part.id}`,
            message: `${part.name} waits for ${words}, which waits for it in turn: nothing of this could ever come off.`,
            fatal: true,
          }
        : {
            code: 'never-reached',
            place: `parts / ${part.id}`,
            message: `${part.name} needs ${words} off, which never comes off.`,
            fatal: true,
          }
    }),
    ...description.accesses.flatMap((access) =>
      access.off
        .filter((group) => !group.some((id) => off.has(id)))
        .map((group): DescriptionProblem => ({
          code: 'never-reached',
          place: `accesses / ${access.id}`,
          message: `“${access.name}” can never be reached: ${group.map((id) => parts.get(id)?.name ?? id).join(' or ')} never comes off.`,
          fatal: true,
        })),
    ),
  ]
}

function checkDrive(description: EngineDescription): DescriptionProblem[] {
  const train = driveTrain(description)
  const links = new Map(description.links.map((link) => [link.id, link]))
  return [
    ...train.binds.map((bind): DescriptionProblem => ({
      code: 'drive-binds',
      place: `links / ${bind.link}`,
      message: `“${links.get(bind.link)?.name}” asks for ${Math.abs(bind.asked[1]).toPrecision(4)} turns where another way gives ${Math.abs(bind.asked[0]).toPrecision(4)}: this train cannot turn.`,
      fatal: false,
    })),
    // A split axle that only rolls along has its muff all the same.
    ...description.links
      .filter((link) => link.kind !== 'muff' && !train.turning.has(link.from) && !train.turning.has(link.to))
      .map((link): DescriptionProblem => ({
        code: 'not-driven',
        place: `links / ${link.id}`,
        message: `No motor reaches “${link.name}”.`,
        fatal: false,
      })),
  ]
}
