import type { EngineDescription } from '../../core/engine/description-schema'
import type { ClampAdvice } from '../../shared/measuring'

/**
 * Where to clamp to measure the motor alone: its two terminals, with its feeds off, since through them lamps and
 * boards would draw as well.
 *
 * @returns null where the engine has no motor with a magnet
 */
export function clampAdvice(description: EngineDescription): (ClampAdvice & { readonly plus: string; readonly minus: string }) | null {
  const motor = description.motors.find((entry) => entry.field === null)
  if (!motor) return null
  const feeds = [motor.feeds.plus, motor.feeds.minus].map((id) => description.components.find((component) => component.id === id))
  const [plus, minus] = feeds.map((feed) => feed?.to ?? '') as [string, string]
  const nameOf = (node: string): string => description.nodes.find((entry) => entry.id === node)?.name ?? node
  return { plus, minus, red: nameOf(plus), black: nameOf(minus), takeOff: feeds.flatMap((feed) => (feed ? [feed.name] : [])) }
}

/** Where to clamp the whole engine: what touches its two rails. */
export function railAdvice({ nodes, rails }: EngineDescription): ClampAdvice {
  const name = (id: string): string => nodes.find((node) => node.id === id)?.name ?? id
  return { red: name(rails.plus), black: name(rails.minus), takeOff: [] }
}
