import type { CircuitComponent, EngineDescription } from './description-schema'

/** Where a supply is clamped, and what must not pass meanwhile. Ids of points and components. */
export interface Clamp {
  readonly plus: string
  readonly minus: string
  /** Leads taken off, and contacts kept apart with a slip of paper. */
  readonly open: readonly string[]
}

/**
 * Where to clamp one motor alone. With a magnet: its two terminals, both leads off, since through them lamps and boards
 * would draw as well. With a wound field: from the fed end of the field to the frame side of the brushes, whatever feeds
 * that end kept apart, and every other motor beside it off.
 *
 * @throws RangeError for a motor the engine has not
 * @example motorClamp(describeConstruction('tank-can'), 'motor').plus // 'motor.plus'
 */
export function motorClamp(description: EngineDescription, motorId: string): Clamp {
  const { components, motors } = description
  const motor = motors.find((entry) => entry.id === motorId)
  if (!motor) throw new RangeError(`There is no motor “${motorId}” in this engine.`)
  const component = (id: string) => components.find((entry) => entry.id === id)
  if (motor.field === null) {
    const [plus, minus] = [motor.feeds.plus, motor.feeds.minus].map((id) => component(id)?.to ?? '') as [string, string]
    return { plus, minus, open: [motor.feeds.plus, motor.feeds.minus] }
  }
  const plus = component(motor.field)?.from ?? ''
  const fields = new Set(motors.flatMap((entry) => entry.field ?? []))
  // With the drum as it lies in the box only one of its contacts reaches the field's fed end.
  const feeds = components.filter(
    (entry) =>
      !fields.has(entry.id) &&
      (entry.from === plus || entry.to === plus) &&
      (!entry.closedIn || entry.closedIn.positions.includes(restOf(description, entry.closedIn.switch))),
  )
  const others = motors
    .filter((entry) => entry.id !== motorId)
    .flatMap((entry) => [entry.feeds.plus, ...(entry.field === null ? [] : [entry.field])])
  return { plus, minus: component(motor.feeds.minus)?.to ?? '', open: [...feeds.map((entry) => entry.id), ...others] }
}

/**
 * Where to clamp the whole engine: its two rails; with `motorsOff` the leads of every motor taken off.
 *
 * @example railClamp(describeConstruction('tank-can'), false).open // []
 */
export function railClamp({ rails, motors }: EngineDescription, motorsOff: boolean): Clamp {
  return { plus: rails.plus, minus: rails.minus, open: motorsOff ? motors.map((motor) => motor.feeds.plus) : [] }
}

function restOf({ switches }: EngineDescription, id: string): string {
  return switches.find((entry) => entry.id === id)?.rest ?? ''
}

/** What the current of a clamped supply runs through. */
export interface ClampPath {
  /** Components in order from red to black. */
  readonly through: readonly CircuitComponent[]
  /** What would lead on from the red clip, and from the black one, but is off or kept apart. */
  readonly cutAtPlus: readonly CircuitComponent[]
  readonly cutAtMinus: readonly CircuitComponent[]
}

/**
 * The shortest way from red to black through what conducts while the switches stand as they lie in the box.
 *
 * @returns `through` empty where nothing joins the two
 */
export function clampPath(description: EngineDescription, { plus, minus, open }: Clamp): ClampPath {
  const off = new Set(open)
  const passes = description.components.filter(
    (entry) =>
      !off.has(entry.id) &&
      entry.ohms !== null &&
      (!entry.closedIn || entry.closedIn.positions.includes(restOf(description, entry.closedIn.switch))),
  )
  const cameBy = new Map<string, CircuitComponent | null>([[plus, null]])
  const queue = [plus]
  for (let point = queue.shift(); point !== undefined && !cameBy.has(minus); point = queue.shift()) {
    for (const component of passes) {
      const next = component.from === point ? component.to : component.to === point ? component.from : null
      if (next === null || cameBy.has(next)) continue
      cameBy.set(next, component)
      queue.push(next)
    }
  }
  const through: CircuitComponent[] = []
  for (let at = minus, by = cameBy.get(at); by; by = cameBy.get(at)) {
    through.unshift(by)
    at = by.from === at ? by.to : by.from
  }
  const cut = (node: string): CircuitComponent[] =>
    description.components.filter((entry) => off.has(entry.id) && (entry.from === node || entry.to === node))
  return { through, cutAtPlus: cut(plus), cutAtMinus: cut(minus) }
}
