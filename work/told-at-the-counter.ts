import type { EngineDescription } from '../core/engine/description-schema'
import type { Knowledge } from '../core/knowledge/knowledge-schema'
import type { JobBook } from '../messages/book'
import type { ToldObservation } from '../messages/book-entries'
import type { GatheredFinding } from './gathered-findings'
import { testsOfEngine } from './tests-of-engine'

/** Something that can be tapped while an engine is taken in. */
export interface TellableObservation extends ToldObservation {
  /** Told by who brings it, or seen over the counter. */
  readonly from: 'told' | 'counter'
}

/** What can be told or seen of such an engine before it is put on the bench, each once whatever its places. */
export function tellableOf(description: EngineDescription, knowledge: Knowledge): TellableObservation[] {
  const tests = new Map(testsOfEngine(description, knowledge).map(({ test }) => [test.id, test]))
  return [...tests.values()].flatMap(({ id, outcomes }) =>
    outcomes.flatMap(({ id: outcome, told }) =>
      told
        ? [{ test: id, outcome, words: told.words, from: told.wrong === undefined ? ('counter' as const) : 'told' }]
        : [],
    ),
  )
}

/**
 * What was told of a job’s engine as findings in the state it came in: at every place the words may mean, where none
 * bears the test’s name alone (“the lamp” is the first of two). What is not in the knowledge any more, or not on this
 * engine, says nothing.
 *
 * @param book the job
 * @param description of its engine
 * @param knowledge checked
 */
export function toldFindings(
  { job, engine, search, sheets, continuity }: Pick<JobBook, 'job' | 'engine' | 'search' | 'sheets' | 'continuity'>,
  description: EngineDescription,
  knowledge: Knowledge,
): GatheredFinding[] {
  if (!job.told || job.told.length === 0) return []
  const arrived = Math.min(
    engine.stateNumber,
    ...[search, sheets, continuity].flatMap((rows) => rows.map((row) => row.engineState)),
  )
  const tests = testsOfEngine(description, knowledge)
  const plain = new Set(tests.map(({ id }) => id))
  return job.told.flatMap(({ test: told, outcome, words }) =>
    tests.flatMap(({ id, test }): GatheredFinding[] => {
      const known =
        (plain.has(told) ? id : test.id) === told ? test.outcomes.find((entry) => entry.id === outcome) : undefined
      return known
        ? [
            {
              id: `told:${id}`,
              from: known.told?.wrong === undefined ? 'counter' : 'told',
              engineState: arrived,
              test: id,
              outcome,
              words,
              at: job.takenInAt,
            },
          ]
        : []
    }),
  )
}
