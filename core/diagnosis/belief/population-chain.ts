import { withSeen } from '../acts/seen'
import type { CompiledEngine } from '../compiled-engine'
import type { SearchHistory } from '../history'
import { Evidence } from './evidence'
import { populationAfter, populationOf, type Population } from './population'
import { slotsOf } from './slots'

/** The populations of a history, state after state; what two histories begin with alike is worked out once. */
export class PopulationChain {
  private links: ReadonlyArray<{ readonly key: string; readonly population: Population }> = []

  constructor(private readonly engine: CompiledEngine) {}

  /**
   * @param history up to now
   * @param onState told the share of its states that is worked out, after each
   * @throws RangeError naming an unknown test, outcome or suspect
   */
  after({ findings, events }: SearchHistory, onState: (share: number) => void = () => {}): Population {
    const { engine } = this
    const states = [...new Set([0, ...findings.map(({ state }) => state), ...events.map(({ state }) => state)])].sort(
      (one, other) => one - other,
    )
    let fits = true
    let population: Population | null = null
    this.links = states.map((state, at) => {
      const known = findings.filter((finding) => finding.state <= state)
      const done = withSeen(engine, { findings: known, events: events.filter((event) => event.state <= state) })
      const key = keyOf(known, done)
      const link = this.links[at]
      fits &&= link?.key === key
      if (fits && link) population = link.population
      else {
        const evidence = new Evidence(engine, slotsOf(engine, done), known, population?.evidence ?? null)
        population = population ? populationAfter(population, evidence, state) : populationOf(evidence)
      }
      onState((at + 1) / states.length)
      return { key, population }
    })
    return population as unknown as Population
  }
}

/** However it was told, the same history has the same key. */
function keyOf(findings: SearchHistory['findings'], events: SearchHistory['events']): string {
  const told = [
    ...findings.map(({ test, outcome, state, told: hearsay }) => [test, outcome, state, hearsay === true]),
    ...events,
  ].map((entry) => JSON.stringify(entry))
  return told.sort().join()
}
