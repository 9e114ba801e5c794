import { benchTestsOf, type BenchTest } from '../core/diagnosis/places/bench-tests'
import { placesOf } from '../core/diagnosis/places/places-of'
import type { EngineDescription } from '../core/engine/description-schema'
import type { Knowledge } from '../core/knowledge/knowledge-schema'

/** Every test an engine allows by what it is and runs on, whatever else is known of it. */
export function testsOfEngine(description: EngineDescription, knowledge: Knowledge): BenchTest[] {
  return benchTestsOf(description, placesOf(description), knowledge, new Set([`power-${description.power}` as const]))
}
