import type { EngineDescription } from './description-schema'

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
  const feeds = components.filter((entry) => !fields.has(entry.id) && (entry.from === plus || entry.to === plus) && (!entry.closedIn || entry.closedIn.positions.includes(restOf(description, entry.closedIn.switch))))
  const others = motors.filter((entry) => entry.id !== motorId).flatMap((entry) => [entry.feeds.plus, ...(entry.field === null ? [] : [entry.field])])
  return { plus, minus: component(motor.feeds.minus)?.to ?? '', open: [...feeds.map((entry) => entry.id), ...others] }
}

/** Where to clamp the whole engine: its two rails; with `motorsOff` the leads of every motor taken off. */
export function railClamp({ rails, motors }: EngineDescription, motorsOff: boolean): Clamp {
  return { plus: rails.plus, minus: rails.minus, open: motorsOff ? motors.map((motor) => motor.feeds.plus) : [] }
}

function restOf({ switches }: EngineDescription, id: string): string {
  return switches.find((entry) => entry.id === id)?.rest ?? ''
}
