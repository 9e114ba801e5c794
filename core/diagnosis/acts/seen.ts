import type { CompiledEngine } from '../compiled-engine'
import type { EngineEvent, SearchHistory } from '../history'

/**
 * The suspect that an outcome shows itself: who notes it has found it.
 *
 * @param test index of the test
 * @param outcome its id
 * @returns index of the suspect; null where the outcome is only a sign
 */
export function seenAt(engine: CompiledEngine, test: number, outcome: string): number | null {
  const { test: known } = engine.tests[test] as CompiledEngine['tests'][number]
  let [found, most] = [null as number | null, 0]
  for (const [index, { fault, prior }] of engine.suspects.entries()) {
    const sign = fault.signs.find(
      (entry) => entry.test === known.id && entry.outcome === outcome && entry.seen === true,
    )
    if (!sign || !engine.givesSign(test, index)) continue
    if (prior * sign.chance > most) [found, most] = [index, prior * sign.chance]
  }
  return found
}

/** The events with what was seen at the looks among them, each once in its state; struck out by ruling it out. */
export function withSeen(engine: CompiledEngine, { findings, events }: SearchHistory): EngineEvent[] {
  const seen = findings.flatMap(({ test, outcome, state, told }): EngineEvent[] => {
    if (told) return []
    const suspect = engine.suspects[seenAt(engine, engine.indexOfTest(test), outcome) ?? -1]
    const known = events.some(
      (event) =>
        event.kind !== 'refitted' &&
        event.suspect === suspect?.id &&
        event.state === state &&
        event.kind !== 'repaired',
    )
    return suspect && !known ? [{ kind: 'confirmed', suspect: suspect.id, state }] : []
  })
  const once = new Map(seen.map((event) => [JSON.stringify(event), event]))
  // Whatever the order things were told in: the same history gives the same answer.
  return [...events, ...[...once].sort(([one], [other]) => (one < other ? -1 : 1)).map(([, event]) => event)]
}
