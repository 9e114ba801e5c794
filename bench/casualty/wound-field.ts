import type { EngineDescription, Motor } from '../../core/engine/description-schema'
import type { CasualtyFault } from './faults'

/** What faults leave of a series motor's field. */
export interface WoundField {
  /** Its current in times the armature's own. */
  readonly times: number
  /** Ω as the armature's current meets it. */
  readonly ohms: number
  readonly shorted: boolean
}

/**
 * Fields of several motors may lie side by side, and what all armatures draw together divides among those that are
 * whole; a short circuit at one takes the current from all. Motors that are not cut off are taken to draw alike.
 *
 * @param motor with a field wound in series
 * @param faults of the whole engine
 */
export function woundField(motor: Motor, description: EngineDescription, faults: readonly CasualtyFault[]): WoundField {
  const own = description.components.find(({ id }) => id === motor.field)
  const beside = description.components
    .filter(({ kind, from, to }) => own && kind === own.kind && from === own.from && to === own.to)
    .map(({ id }) => id)
  const inState = (component: string, state: 'open' | 'shorted'): boolean =>
    faults.some((fault) => fault.kind === 'component' && fault.component === component && fault.state === state)
  if (beside.some((id) => inState(id, 'shorted'))) return { times: 0, ohms: 0, shorted: true }
  const carrying = beside.filter((id) => !inState(id, 'open')).length
  const cutOff = ({ id, armature, feeds }: Motor): boolean =>
    description.components.some(
      (component) =>
        ([armature, feeds.plus, feeds.minus].includes(component.id) ||
          (component.kind === 'brush' && component.of === id)) &&
        inState(component.id, 'open'),
    )
  const drawing = description.motors.filter(
    (other) => other.field !== null && beside.includes(other.field) && !cutOff(other),
  ).length
  const share = Math.max(1, drawing) / Math.max(1, carrying)
  return { times: own && inState(own.id, 'open') ? 0 : share, ohms: (own?.ohms ?? 0) * share, shorted: false }
}
