import type { ComponentState } from '~~/core/engine/description-schema'

/** States of a component as the bench says them. */
export const stateWords: Readonly<Record<ComponentState, string>> = {
  good: 'good',
  open: 'open',
  'high-resistance': 'poor contact',
  shorted: 'shorted',
  intermittent: 'comes and goes',
}
