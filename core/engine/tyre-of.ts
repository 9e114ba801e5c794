import type { EngineDescription, Part, Wheel } from './description-schema'

/**
 * The tyre that sits on a wheel.
 *
 * @param description the engine
 * @param wheel one of its wheels
 * @returns null where it has none, or none that is written down as a part
 * @example tyreOf(describeConstruction('tank-can'), describeConstruction('tank-can').wheelSets[0].left) // null
 */
export function tyreOf(description: EngineDescription, wheel: Wheel): Part | null {
  if (!wheel.tyre) return null
  return description.parts.find(({ kind, of }) => kind === 'tyre' && of === wheel.part) ?? null
}
