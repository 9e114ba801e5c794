import type { CircuitComponent, EngineDescription } from '../../core/engine/description-schema'
import { clampPath, motorClamp, railClamp, type Clamp } from '../../core/engine/motor-clamp'
import type { ClampAdvice, ClampDrawing, ClampPiece } from '../../messages/measuring'

/** Where the supply goes for a motor alone: the first of the engine's. */
export function firstMotorClamp(description: EngineDescription): Clamp {
  const [motor] = description.motors
  return motor ? motorClamp(description, motor.id) : railClamp(description, false)
}

/** A clamp in the words of the bench: which points, what to take off, which contacts to keep apart. */
export function clampAdvice({ nodes, components }: EngineDescription, clamp: Clamp): ClampAdvice {
  const nameOf = (id: string): string => nodes.find((node) => node.id === id)?.name ?? id
  const named = (contacts: boolean): string[] =>
    components
      .filter((component) => clamp.open.includes(component.id) && (component.closedIn !== null) === contacts)
      .map((component) => component.name)
  return { red: nameOf(clamp.plus), black: nameOf(clamp.minus), takeOff: named(false), paperUnder: named(true) }
}

/** The circuit between the clips, to be drawn. */
export function clampDrawing(description: EngineDescription, clamp: Clamp): ClampDrawing {
  const piece = ({ kind, name }: CircuitComponent): ClampPiece => ({ kind, name })
  const { through, cutAtPlus, cutAtMinus } = clampPath(description, clamp)
  return { through: through.map(piece), cutAtRed: cutAtPlus.map(piece), cutAtBlack: cutAtMinus.map(piece) }
}
