import { STUCK_TIMES } from '../../knowledge/knowledge-schema'
import type { CompiledEngine } from '../compiled-engine'

/** A sign given this often in running would not be missed for long. */
const NOT_MISSED = 0.3
/** Acts at which the machine does what its owner wants of it. */
const inUse: ReadonlySet<string> = new Set(['on-the-track', 'haul', 'run-warm'])

/** Of a suspect in one of its variants; −1 of one too slight to show. */
export type Noticed = (suspect: number, variant: number) => boolean

/**
 * Which faults somebody who uses the machine would notice sooner or later. What nobody would is named at the end, and
 * not chased.
 *
 * @param engine compiled
 */
export function noticedInUse(engine: CompiledEngine): Noticed {
  const shown = new Set(
    engine.tests.flatMap(({ test }) => (test.act !== undefined && inUse.has(test.act) ? [test.id] : [])),
  )
  const bySign = engine.suspects.map(({ fault }) =>
    fault.signs.some(({ test, chance }) => shown.has(test) && chance >= NOT_MISSED),
  )
  const inCircuit = engine.variants.map((variant, index) => {
    const { effect } = (engine.suspects[variant.suspect] as (typeof engine.suspects)[number]).fault
    const slight = effect.kind === 'drag' && effect.times < STUCK_TIMES && variant.severity < 1
    return engine.showsInCircuit(index) && !slight
  })
  return (suspect, variant) =>
    suspect !== engine.unlisted && (bySign[suspect] === true || (variant >= 0 && inCircuit[variant] === true))
}
