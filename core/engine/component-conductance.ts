import type { CircuitComponent, ComponentKind, ComponentState } from './description-schema'

/** Below this nothing is told apart: a solid joint, Ω. */
const SOLID_OHMS = 0.001
/** What a fault that shorts leaves, Ω. From memory: a touching edge or a strand of wire. */
const SHORTED_OHMS = 0.02

/** Ω of a component that passes badly, where the description names no figure of its own. From memory: oxide, verdigris, a film of oil; so much that a poor feed still lights a lamp and collapses under a motor. */
const usualHighOhms: Readonly<Record<ComponentKind, number>> = {
  contact: 80,
  conductor: 60,
  insulation: 400,
  brush: 60,
  commutator: 60,
  winding: 200,
  field: 60,
  lamp: 1000,
  capacitor: 300,
  resistor: 4000,
  choke: 60,
  switch: 80,
  relay: 80,
  decoder: 60,
}

/**
 * Conductance of a component in a state.
 *
 * @param component as described
 * @param state an intermittent component is taken as open here; ask with `good` for the moment it makes
 * @returns S, 0 where nothing passes
 * @example conductanceOf({ kind: 'conductor', ohms: 0.05, highOhms: null }, 'good') // 20
 */
export function conductanceOf(component: CircuitComponent, state: ComponentState): number {
  switch (state) {
    case 'good':
      return component.ohms === null ? 0 : 1 / Math.max(component.ohms, SOLID_OHMS)
    case 'open':
    case 'intermittent':
      return 0
    case 'shorted':
      return 1 / SHORTED_OHMS
    case 'high-resistance':
      return 1 / (component.highOhms ?? Math.max(usualHighOhms[component.kind], 4 * (component.ohms ?? 0)))
  }
}
