import type { Belief } from './belief'
import type { EngineEvent, SearchHistory } from './history'

/** From this chance on that something was there before it was mended, it counts as found. */
const SETTLED_CHANCE = 0.9

/**
 * Repairs whose fault was so likely there that it counts as confirmed: it no longer takes one of the three places a
 * set of hidden faults has, and leaves room for what else may be hidden. Only a finding made after the repair
 * settles it.
 */
export class SettledRepairs {
  private latest: { readonly history: SearchHistory; readonly events: readonly EngineEvent[] } = {
    history: { findings: [], events: [] },
    events: [],
  }

  /** What was settled of this history so far, if it only grew since. */
  known(history: SearchHistory): readonly EngineEvent[] {
    const { latest } = this
    const grew = <T>(before: readonly T[], now: readonly T[]): boolean =>
      before.length <= now.length &&
      before.every((entry, index) => JSON.stringify(entry) === JSON.stringify(now[index]))
    return grew(latest.history.events, history.events) && grew(latest.history.findings, history.findings)
      ? latest.events
      : []
  }

  /** What was settled of a history that came to pass. */
  remember(history: SearchHistory, events: readonly EngineEvent[]): void {
    this.latest = { history, events }
  }

  /**
   * @param history findings and events
   * @param believe the belief with these events; those settled stand at the end
   * @returns the belief, and what it settles
   */
  settle(
    history: SearchHistory,
    believe: (events: readonly EngineEvent[]) => Belief,
  ): { readonly belief: Belief; readonly settled: readonly EngineEvent[] } {
    let events = this.known(history)
    for (;;) {
      const belief = believe([...history.events, ...events])
      const more = settles(belief, history, [...history.events, ...events])
      if (more.length === 0) return { belief, settled: events }
      events = [...events, ...more]
    }
  }
}

function settles(belief: Belief, { findings, events }: SearchHistory, known: readonly EngineEvent[]): EngineEvent[] {
  const { engine } = belief
  const settled: EngineEvent[] = []
  for (const event of events) {
    if (event.kind !== 'repaired' || !findings.some((finding) => finding.state >= event.state)) continue
    const before = event.state - 1
    const repaired = engine.suspects[engine.indexOfSuspect(event.suspect)]
    const alike = engine.suspects.flatMap((suspect, index) => (suspect.mendedBy === repaired?.mendedBy ? [index] : []))
    if (
      known.some(
        (other) =>
          other.kind === 'confirmed' &&
          alike.includes(engine.indexOfSuspect(other.suspect)) &&
          other.state <= before &&
          !events.some(
            (again) =>
              again.kind === 'repaired' &&
              again.suspect === event.suspect &&
              again.state > other.state &&
              again.state < event.state,
          ),
      )
    )
      continue
    if (belief.chanceOfAny(new Set(alike), before) < SETTLED_CHANCE) continue
    const marginals = belief.marginalsAt(before)
    const likeliest = alike.reduce((best, index) =>
      (marginals[index] as number) > (marginals[best] as number) ? index : best,
    )
    settled.push({ kind: 'confirmed', suspect: engine.suspects[likeliest]?.id ?? event.suspect, state: before })
  }
  return settled
}
