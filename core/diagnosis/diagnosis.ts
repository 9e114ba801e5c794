import type { EngineDescription, Tool } from '../engine/description-schema'
import { Belief, HypothesisSpace } from './belief'
import { BenchCosts } from './bench-costs'
import { CompiledEngine } from './compiled-engine'
import { contradictions } from './contradictions'
import { testimonies } from './explanations'
import type { SearchHistory } from './history'
import { equipment as allEquipment, type Circumstance, type Equipment, type Knowledge } from './knowledge-schema'
import { chooseNext, type Choices, type TestChoice } from './next-test'

export interface SearchContext {
  readonly circumstances?: readonly Circumstance[]
  /** What there is on the bench; all when not given. */
  readonly equipment?: readonly Equipment[]
  readonly tools?: readonly Tool[]
  /** Factors on the odds by fault id, from the shop's own confirmed faults. */
  readonly learned?: Readonly<Record<string, number>>
}

export interface BenchNow {
  /** Parts that are off. */
  readonly off?: readonly string[]
  /** Tests that could not be done, or are not wanted. */
  readonly refused?: readonly string[]
}

export interface SuspectReport {
  readonly id: string
  readonly fault: string
  readonly place: string
  readonly area: string
  readonly words: string
  readonly chance: number
  /** Seen beyond doubt and not yet mended. */
  readonly confirmed: boolean
  readonly remedy: { readonly id: string; readonly words: string; readonly minutes: number; readonly parts: readonly string[]; readonly products: readonly string[]; readonly caution: string }
  /** Parts to take off yet for it, and minutes with getting there and back. */
  readonly takesOff: readonly string[]
  readonly totalMinutes: number
  readonly speaksFor: readonly ReportedTestimony[]
  readonly speaksAgainst: readonly ReportedTestimony[]
}

export interface ReportedTestimony {
  readonly finding: string
  /** How many times as likely it made the finding; below one it speaks against. */
  readonly times: number
}

export interface NextTestReport {
  readonly id: string
  readonly words: string
  readonly how: string
  /** Of the test itself. */
  readonly minutes: number
  /** With getting there and back. */
  readonly totalMinutes: number
  readonly takesOff: readonly string[]
  readonly needsWhole: boolean
  readonly caution: string
  readonly equipment: readonly Equipment[]
  /** Minutes it is expected to save. */
  readonly value: number
  readonly outcomes: ReadonlyArray<{ readonly id: string; readonly words: string; readonly chance: number }>
  readonly why: string
  readonly then: string | null
}

export type Advice =
  | { readonly kind: 'test'; readonly test: string; readonly why: string }
  | { readonly kind: 'repair'; readonly suspect: string; readonly why: string }
  /** Nothing hidden is likely any more: everything that has to pass, once more. */
  | { readonly kind: 'prove'; readonly tests: readonly string[]; readonly why: string }
  | { readonly kind: 'done'; readonly why: string }

export interface SearchReport {
  readonly state: number
  readonly advice: Advice
  /** Most likely first; those confirmed and not mended lead. */
  readonly suspects: readonly SuspectReport[]
  /** Chance that nothing is wrong but what is confirmed. */
  readonly nothingElse: number
  readonly next: readonly NextTestReport[]
  readonly contradictions: ReadonlyArray<{ readonly repeat: string; readonly against: string; readonly chance: number; readonly words: string }>
  readonly withheld: ReadonlyArray<{ readonly test: string; readonly why: string }>
  /** Chance of every component's place by its most suspected fault, for the drawing. */
  readonly byPlace: ReadonlyArray<{ readonly place: string; readonly components: readonly string[]; readonly links: readonly string[]; readonly chance: number }>
}

/** Below this chance of any fault that matters the search ends, once Prove has passed. */
export const STOP_CHANCE = 0.03
/** Suspects less likely than this are not listed. */
const LISTED_CHANCE = 0.005
const MOST_LISTED = 24
const MOST_TESTS = 8
/** From this chance on a repair without further proof is worth naming. */
const REPAIR_CHANCE = 0.35

/** The whole judgement of one engine: made ready once, then asked after every finding. */
export class Diagnosis {
  readonly engine: CompiledEngine
  readonly costs: BenchCosts
  private readonly equipment: ReadonlySet<Equipment>
  private space: { readonly key: string; readonly space: HypothesisSpace } | null = null

  /**
   * @param description the engine
   * @param knowledge checked by schema and by checkKnowledge
   * @param context what is known of its past, and what is on the bench
   */
  constructor(description: EngineDescription, knowledge: Knowledge, context: SearchContext = {}) {
    const power = `power-${description.power}` as Circumstance
    const built: Circumstance[] = description.parts.some((part) => part.id.endsWith('.cup')) ? ['axle-cups'] : []
    this.engine = new CompiledEngine(description, knowledge, new Set([power, ...built, ...context.circumstances ?? []]), context.learned)
    this.equipment = new Set(context.equipment ?? allEquipment)
    this.costs = new BenchCosts(this.engine, context.tools ? { tools: new Set(context.tools) } : {}, new Set(allEquipment.filter((piece) => !this.equipment.has(piece))))
  }

  /**
   * Works out what the circuit shows for every set of hidden faults, in steps, so that a caller can show progress
   * and stop in between.
   *
   * @param events repairs and refits so far
   * @returns share done, step by step
   */
  * prepare(events: SearchHistory['events'] = [], state = 0): Generator<number, void> {
    yield* this.spaceFor(events).prepare(state)
  }

  believe(history: SearchHistory): Belief {
    return new Belief(this.spaceFor(history.events), history)
  }

  /** What to do next with everything weighed. */
  choose(belief: Belief, bench: BenchNow = {}): Choices {
    return chooseNext(belief, this.costs, { off: new Set(bench.off ?? []), refused: new Set(bench.refused ?? []), equipment: this.equipment })
  }

  /**
   * @param history findings and events, each with its state of the engine
   * @param bench what is off and refused now
   * @throws RangeError naming an unknown test, outcome or suspect
   */
  report(history: SearchHistory, bench: BenchNow = {}): SearchReport {
    const belief = this.believe(history)
    const choices = this.choose(belief, bench)
    const marginals = belief.marginals
    const off = new Set(bench.off ?? [])
    const { engine } = this
    const given = new Set(belief.here.given)
    const listed = [...marginals.keys()].filter((index) => given.has(index) || (marginals[index] as number) >= LISTED_CHANCE)
      .sort((first, second) => Number(given.has(second)) - Number(given.has(first)) || (marginals[second] as number) - (marginals[first] as number)).slice(0, MOST_LISTED)
    const told = testimonies(belief, listed.filter((index) => !given.has(index)))
    const words = (finding: number): string => history.findings[finding]?.id ?? ''
    const suspects = listed.map((index): SuspectReport => {
      const suspect = engine.suspects[index] as CompiledEngine['suspects'][number]
      const { remedy } = suspect
      const way = this.costs.wayIn(suspect.goal, off)
      const testimony = (told.get(index) ?? []).map(({ finding, times }) => ({ finding: words(finding), times }))
      return {
        id: suspect.id, fault: suspect.fault.id, place: suspect.place.id, area: suspect.fault.area, words: suspect.name, chance: marginals[index] as number, confirmed: given.has(index),
        remedy: { id: remedy.id, words: remedy.name, minutes: remedy.minutes, parts: remedy.parts, products: remedy.products, caution: remedy.caution },
        takesOff: way.parts, totalMinutes: remedy.minutes + way.minutes,
        speaksFor: testimony.filter(({ times }) => times > 1), speaksAgainst: testimony.filter(({ times }) => times < 1),
      }
    })
    const minutes = history.findings.map((finding) => this.costs.test(engine.indexOfTest(finding.test), off).total)
    return {
      state: belief.state,
      advice: this.advise(belief, choices, bench),
      suspects,
      nothingElse: belief.nothingHidden,
      next: choices.tests.slice(0, MOST_TESTS).map((choice) => this.describeTest(belief, choices, choice)),
      contradictions: contradictions(belief, minutes).map(({ finding, against, chance }) => ({ repeat: words(finding), against: words(against), chance, words: this.contradictionInWords(history, finding, against) })),
      withheld: choices.withheld.map(({ test, why }) => ({ test: engine.tests[test]?.id ?? '', why })),
      byPlace: this.byPlace(marginals),
    }
  }

  private spaceFor(events: SearchHistory['events']): HypothesisSpace {
    const key = JSON.stringify(events)
    if (this.space?.key !== key) this.space = { key, space: new HypothesisSpace(this.engine, events) }
    return this.space.space
  }

  private advise(belief: Belief, choices: Choices, bench: BenchNow): Advice {
    const { engine } = this
    const [confirmed] = [...belief.here.given].sort((first, second) => this.costs.repair(this.costs.groupOf[first] as number, new Set(bench.off ?? [])).total - this.costs.repair(this.costs.groupOf[second] as number, new Set(bench.off ?? [])).total)
    if (confirmed !== undefined) {
      const suspect = engine.suspects[confirmed] as CompiledEngine['suspects'][number]
      return { kind: 'repair', suspect: suspect.id, why: `It is confirmed that ${suspect.name}. Mend it, then test again: finding one does not end the search.` }
    }
    const anyFault = 1 - belief.nothingHidden
    const proved = this.proveTests(belief)
    const [best] = choices.tests
    const [repair] = choices.repairs
    if (best && best.value > 0 && anyFault > STOP_CHANCE && !(repair && repair.chance > 0.9 && best.value < 0.3 * best.cost)) return { kind: 'test', test: engine.tests[best.test]?.id ?? '', why: this.why(belief, choices, best) }
    const likely = choices.repairs.reduce<typeof repair>((most, entry) => (!most || entry.chance > most.chance ? entry : most), undefined)
    if (likely && likely.chance >= REPAIR_CHANCE) {
      const group = this.costs.groups[likely.group] as BenchCosts['groups'][number]
      const suspect = group.suspects.reduce((most, index) => ((belief.marginals[index] as number) > (belief.marginals[most] as number) ? index : most), group.suspects[0] as number)
      return { kind: 'repair', suspect: engine.suspects[suspect]?.id ?? '', why: `No test saves more than it costs: ${percent(likely.chance)} for this, and ${group.suspect.remedy.name.toLowerCase()} takes ${Math.round(likely.cost)} min.` }
    }
    if (proved.length > 0) return { kind: 'prove', tests: proved, why: `Nothing hidden is left with ${percent(1 - anyFault)}: now everything has to pass.` }
    if (anyFault > STOP_CHANCE && best) return { kind: 'test', test: engine.tests[best.test]?.id ?? '', why: this.why(belief, choices, best) }
    return { kind: 'done', why: `Prove has passed, and the chance that anything is left is ${percent(anyFault)}.` }
  }

  /** Tests of Prove that have not passed in this state. */
  private proveTests(belief: Belief): string[] {
    const passed = new Set(belief.history.findings.flatMap((finding) => {
      const { test } = this.engine.tests[this.engine.indexOfTest(finding.test)] as CompiledEngine['tests'][number]
      return finding.state === belief.state && test.outcomes[0]?.id === finding.outcome ? [finding.test] : []
    }))
    return this.engine.tests.filter(({ id, test }) => test.proves && !passed.has(id) && test.equipment.every((piece) => this.equipment.has(piece))).map(({ id }) => id)
  }

  private describeTest(belief: Belief, choices: Choices, choice: TestChoice): NextTestReport {
    const known = this.engine.tests[choice.test] as CompiledEngine['tests'][number]
    const { test } = known
    return {
      id: known.id, words: known.name, how: known.how, minutes: test.minutes, totalMinutes: test.minutes + choice.way.minutes, takesOff: choice.way.parts, needsWhole: test.whole,
      caution: test.caution, equipment: test.equipment, value: choice.value,
      outcomes: test.outcomes.map((outcome, index) => ({ id: outcome.id, words: outcome.name, chance: choice.outcomes[index] as number })),
      why: this.why(belief, choices, choice), then: choice.then === null ? null : this.engine.tests[choice.then]?.id ?? null,
    }
  }

  /** The suspect the test moves most, and where two of its outcomes would take it. */
  private why(belief: Belief, choices: Choices, { test, outcomes }: TestChoice): string {
    const marginals = belief.marginals
    const after = choices.after(test)
    const seen = [...after.keys()].filter((outcome) => (outcomes[outcome] as number) > 0.02)
    let [moved, most] = [-1, 0]
    for (let suspect = 0; suspect < marginals.length; suspect++) {
      const now = marginals[suspect] as number
      const change = seen.reduce((sum, outcome) => sum + (outcomes[outcome] as number) * Math.abs((after[outcome]?.[suspect] as number) - now), 0)
      if (change > most) [moved, most] = [suspect, change]
    }
    const suspect = this.engine.suspects[moved]
    if (!suspect || seen.length < 2) return 'It is the cheapest way to be surer that nothing is left.'
    const chanceAfter = (outcome: number): number => after[outcome]?.[moved] as number
    const up = seen.reduce((best, outcome) => (chanceAfter(outcome) > chanceAfter(best) ? outcome : best))
    const down = seen.reduce((best, outcome) => (chanceAfter(outcome) < chanceAfter(best) ? outcome : best))
    const { test: known } = this.engine.tests[test] as CompiledEngine['tests'][number]
    const named = (outcome: number): string => `“${known.outcomes[outcome]?.name ?? ''}”`
    return `${named(up)} would take “${suspect.name}” from ${percent(marginals[moved] as number)} to ${percent(chanceAfter(up))}, ${named(down)} to ${percent(chanceAfter(down))}.`
  }

  private contradictionInWords(history: SearchHistory, finding: number, against: number): string {
    const say = (index: number): string => {
      const entry = history.findings[index] as SearchHistory['findings'][number]
      const known = this.engine.tests[this.engine.indexOfTest(entry.test)] as CompiledEngine['tests'][number]
      return `“${known.name}: ${known.test.outcomes.find((outcome) => outcome.id === entry.outcome)?.name.toLowerCase() ?? entry.outcome}”`
    }
    return `${say(finding)} and ${say(against)} do not fit each other. Repeat the first, it is the cheaper; both stay in the book.`
  }

  private byPlace(marginals: Float64Array): SearchReport['byPlace'] {
    return this.engine.places.flatMap((place) => {
      if (place.components.length === 0 && place.links.length === 0) return []
      const chance = this.engine.suspects.reduce((rest, suspect, index) => (suspect.place.id === place.id ? rest * (1 - (marginals[index] as number)) : rest), 1)
      return [{ place: place.id, components: place.components, links: place.links, chance: 1 - chance }]
    })
  }
}

function percent(chance: number): string {
  return chance > 0 && chance < 0.01 ? 'under 1 %' : chance > 0.99 && chance < 1 ? 'over 99 %' : `${Math.round(100 * chance)} %`
}
