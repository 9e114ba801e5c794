import type { EngineDescription } from '../../engine/description-schema'
import { hasDecoder } from '../../engine/fit-decoder'
import type { Circumstance, Knowledge, Test } from '../../knowledge/knowledge-schema'
import { reachOf, type Place } from './places-of'

/** A test at a place of this engine. */
export interface BenchTest {
  readonly id: string
  readonly test: Test
  readonly place: Place
  readonly name: string
  readonly how: string
  /** What must be off for it. */
  readonly goal: readonly (readonly string[])[]
}

/**
 * Every test of the knowledge that this engine allows, once for each place it is made at.
 *
 * @param description the engine
 * @param places of the engine
 * @param knowledge checked
 * @param circumstances what is known of it
 */
export function benchTestsOf(
  description: EngineDescription,
  places: readonly Place[],
  knowledge: Knowledge,
  circumstances: ReadonlySet<Circumstance>,
): BenchTest[] {
  return knowledge.tests.flatMap((row) => {
    const test = asUsualHere(row, circumstances)
    if (test.onlyWhen.length > 0 && !test.onlyWhen.some((when) => circumstances.has(when))) return []
    if (!canBeRead(description, test)) return []
    const here = places.filter((place) => place.role === test.role)
    const alone = here.length === 1
    const [first] = here
    return here.flatMap((place): BenchTest[] => {
      const goal = reachOf(description, place, test.reach)
      if (goal === null) return []
      // Where there is only one such place its name need not be said; “the lamp” without a word more is the first.
      const id = alone || (place === first && test.reading.kind === 'lamp') ? test.id : `${test.id}@${place.id}`
      return [
        {
          id,
          test,
          place,
          name: test.name.replace('{place}', place.name),
          how: test.how.replace('{place}', place.name),
          goal,
        },
      ]
    })
  })
}

/** What such a machine does with nothing wrong is seen more often, and accuses nobody. */
function asUsualHere(test: Test, circumstances: ReadonlySet<Circumstance>): Test {
  if (!test.outcomes.some(({ usual }) => usual && circumstances.has(usual.when))) return test
  return {
    ...test,
    outcomes: test.outcomes.map((outcome) =>
      outcome.usual && circumstances.has(outcome.usual.when) ? { ...outcome, leak: outcome.usual.leak } : outcome,
    ),
  }
}

function canBeRead(description: EngineDescription, { reading }: Test): boolean {
  if (!('feed' in reading)) return true
  if (reading.feed === 'dcc-track' || reading.feed === 'decoder-bypassed') return hasDecoder(description)
  // A wound field is fed apart from the brushes: a supply there alone turns nothing.
  return !atTheMotor.has(reading.feed) || description.motors[0]?.field === null
}

const atTheMotor: ReadonlySet<string> = new Set(['motor-leads', 'terminals', 'brushes'])
