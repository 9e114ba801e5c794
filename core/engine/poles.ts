import type { EngineDescription } from './description-schema'

/** The two sides of the supply an engine collects from. */
export type Pole = 'plus' | 'minus'

const throughMotor = new Set([
  'winding',
  'field',
  'lamp',
  'capacitor',
  'resistor',
  'relay',
  'commutator',
  'insulation',
  'decoder',
])

/**
 * Which pole each node belongs to with everything sound and no motor or lamp in the way.
 *
 * @example polesOf(describeConstruction('tank-can')).get('motor.plus') // 'plus'
 */
export function polesOf(description: EngineDescription): ReadonlyMap<string, Pole> {
  const poles = new Map<string, Pole>()
  const walk = (start: string, pole: Pole): void => {
    const queue = [start]
    for (let node = queue.pop(); node !== undefined; node = queue.pop()) {
      if (poles.has(node)) continue
      poles.set(node, pole)
      for (const component of description.components) {
        if (component.ohms === null || component.closedIn !== null || throughMotor.has(component.kind)) continue
        if (component.from === node) queue.push(component.to)
        if (component.to === node) queue.push(component.from)
      }
    }
  }
  walk(description.rails.plus, 'plus')
  walk(description.rails.minus, 'minus')
  return poles
}
