import type { CircuitComponent, EngineDescription, Turnable, WheelSet } from './description-schema'

/**
 * The description as it is with these things refitted the other way round.
 *
 * @example refitted(describeConstruction('tank-can'), []).magnets // {}
 */
export function refitted(
  description: EngineDescription,
  turned: readonly Turnable[],
): { description: EngineDescription; magnets: Record<string, number> } {
  const components = new Map(description.components.map((component) => [component.id, component]))
  const links = new Map(description.links.map((link) => [link.id, link]))
  const facingBack = new Set<string>()
  const magnets: Record<string, number> = {}
  const { plus, minus } = description.rails
  const otherRail = (node: string): string => (node === plus ? minus : node === minus ? plus : node)
  for (const effect of turned.flatMap((entry) => entry.effects)) {
    if (effect.kind === 'turn-magnet') magnets[effect.motor] = -(magnets[effect.motor] ?? 1)
    if (effect.kind === 'turn-link') {
      const link = links.get(effect.link)
      if (link) links.set(link.id, { ...link, reverses: !link.reverses })
    }
    if (effect.kind === 'face-back') facingBack.add(effect.truck)
    if (effect.kind === 'swap-rails') {
      for (const id of effect.components) {
        const component = components.get(id)
        if (component)
          components.set(id, { ...component, from: otherRail(component.from), to: otherRail(component.to) })
      }
    }
    if (effect.kind === 'turn-wheel-set') {
      const wheelSet = description.wheelSets.find((entry) => entry.id === effect.wheelSet)
      if (wheelSet) turnWheelSet(components, wheelSet, otherRail)
    }
    if (effect.kind === 'swap-ends') {
      const [first, second] = [components.get(effect.first), components.get(effect.second)]
      if (first && second) {
        components.set(first.id, { ...first, [effect.end]: second[effect.end] })
        components.set(second.id, { ...second, [effect.end]: first[effect.end] })
      }
    }
  }
  const wheelSets = description.wheelSets.map((wheelSet): WheelSet =>
    facingBack.has(wheelSet.truck)
      ? { ...wheelSet, forward: wheelSet.forward === 'with' ? 'against' : 'with' }
      : wheelSet,
  )
  return {
    description: { ...description, wheelSets, components: [...components.values()], links: [...links.values()] },
    magnets,
  }
}

/** The wheels, with their hubs and tyres, lie on the other rail; wipers and cups stay on their side. */
function turnWheelSet(
  components: Map<string, CircuitComponent>,
  { left, right }: WheelSet,
  otherRail: (node: string) => string,
): void {
  const rims = [left, right].map((wheel) => (wheel.tread === null ? undefined : components.get(wheel.tread)?.to))
  const [leftRim, rightRim] = rims
  if (leftRim === undefined || rightRim === undefined) return
  const otherRim = (node: string): string => (node === leftRim ? rightRim : node === rightRim ? leftRim : node)
  for (const component of components.values()) {
    if (component.id === left.tread || component.id === right.tread)
      components.set(component.id, { ...component, from: otherRail(component.from) })
    else if (component.part !== left.part && component.part !== right.part)
      components.set(component.id, { ...component, from: otherRim(component.from), to: otherRim(component.to) })
  }
}
