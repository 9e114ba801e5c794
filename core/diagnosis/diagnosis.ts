import type { EngineDescription, Tool } from '../engine/description-schema'
import { Adviser, type Advice, type BenchNow } from './advice'
import { Belief } from './belief'
import { BenchCosts } from './bench-costs'
import { CompiledEngine } from './compiled-engine'
import { contradictions } from './contradictions'
import { testimonies } from './explanations'
import type { SearchHistory } from './history'
import { HypothesisSpace } from './hypothesis-space'
import {
  areas,
  equipment as allEquipment,
  type Circumstance,
  type Equipment,
  type Knowledge,
} from '../knowledge/knowledge-schema'
import { keyOf, likelyNext, type Told } from './likely-next'
import { named, type NextTestReport, type SearchReport, type SuspectReport } from './search-report'
import { SettledRepairs } from './settled-repairs'
import { chooseNext, type Choices, type TestChoice } from './next-test'

export interface SearchContext {
  readonly circumstances?: readonly Circumstance[]
  /** What there is on the bench; all when not given. */
  readonly equipment?: readonly Equipment[]
  readonly tools?: readonly Tool[]
  /** Factors on the odds by fault id, from the shop's own confirmed faults. */
  readonly learned?: Readonly<Record<string, number>>
}

/** Suspects less likely than this are not listed. */
const LISTED_CHANCE = 0.005
const MOST_LISTED = 24
const MOST_TESTS = 8
/** So many rows of the circuit are kept, or so many times as many as the first report took: a long search with many repairs makes ever more of them. */
const MOST_ROWS = 60_000
const MOST_TIMES = 2
/** So many sets of hidden faults: from one finding to the next others are worth a look. */
const MOST_SETS = 90_000

/** A report, its findings by their place in the history, and what it was drawn from. */
interface Judgement {
  readonly report: SearchReport<number>
  readonly space: HypothesisSpace
  readonly evidence: Belief['evidence']
  /** Repairs that count as confirmed by it. */
  readonly settled: SearchHistory['events']
}

/** The whole judgement of one engine: made ready once, then asked after every finding. */
export class Diagnosis {
  readonly engine: CompiledEngine
  readonly costs: BenchCosts
  private readonly equipment: ReadonlySet<Equipment>
  /** Of what was told last, and of what was foreseen since. */
  private spaces: HypothesisSpace[] = []
  /** By what would have been told. */
  private readonly foreseen = new Map<string, Judgement>()
  private readonly settled = new SettledRepairs()
  /** Rows of the circuit there were after the first report; 0 before it. */
  private rowsAtFirst = 0
  /** By suspect: its place among the engine's; −1 for what no row names. */
  private readonly placeOf: Int32Array
  /** What to do next with what is believed. */
  readonly adviser: Adviser

  /**
   * @param description the engine
   * @param knowledge checked by schema and by checkKnowledge
   * @param context what is known of its past, and what is on the bench
   * @param mostRows of the circuit are kept from one report to the next
   */
  constructor(
    description: EngineDescription,
    knowledge: Knowledge,
    context: SearchContext = {},
    private readonly mostRows = MOST_ROWS,
  ) {
    this.engine = new CompiledEngine(description, knowledge, context.circumstances, context.learned)
    this.equipment = new Set(context.equipment ?? allEquipment)
    this.costs = new BenchCosts(
      this.engine,
      context.tools ? { tools: new Set(context.tools) } : {},
      new Set(allEquipment.filter((piece) => !this.equipment.has(piece))),
    )
    this.adviser = new Adviser(this.engine, this.costs, this.equipment)
    const places = new Map(this.engine.places.map(({ id }, index) => [id, index]))
    this.placeOf = Int32Array.from(this.engine.suspects, ({ place }) => places.get(place.id) ?? -1)
  }

  /**
   * Works out what the circuit shows for every set of hidden faults, in steps, so that a caller can show progress
   * and stop in between.
   *
   * @param history findings, repairs and refits so far
   * @returns share done, step by step
   */
  *prepare(history: SearchHistory = { findings: [], events: [] }): Generator<number, void> {
    const space = this.spaceFor([...history.events, ...this.settled.known(history)])
    const states = [
      ...new Set([
        0,
        ...history.findings.map((finding) => finding.state),
        ...history.events.map((event) => event.state),
      ]),
    ]
    for (const [index, state] of states.entries())
      for (const share of space.prepare(state)) yield (index + share) / states.length
  }

  /** Solves what `prepare` left, so that no later answer has to wait for a circuit; in steps, for whoever has time to spare. Yields the share done. */
  prepareAhead(): Generator<number, void> {
    return this.engine.solveAhead()
  }

  /**
   * Judges what is likely to be told after a report, so that the answer is there when it comes; in steps of one, for
   * whoever has time to spare while something is done at the bench. No answer is changed by it.
   *
   * @param told so far
   * @param report on that
   * @throws RangeError naming what the engine does not have
   */
  *foresee(told: Told, report: SearchReport): Generator<void, void> {
    for (const next of likelyNext(told, report)) {
      yield
      for (const _ of this.prepare(next.history)) yield
      this.foreseen.set(keyOf(next), this.judge(next))
    }
  }

  believe(history: SearchHistory): Belief {
    const { belief, settled } = this.weigh(history)
    this.settled.remember(history, settled)
    this.spaces = [belief.space]
    return belief
  }

  /** What to do next with everything weighed. */
  choose(belief: Belief, bench: BenchNow = {}): Choices {
    return chooseNext(belief, this.costs, {
      off: new Set(bench.off ?? []),
      refused: new Set(bench.refused ?? []),
      equipment: this.equipment,
    })
  }

  /**
   * @param history findings and events, each with its state of the engine
   * @param bench what is off and refused now
   * @throws RangeError naming an unknown test, outcome or suspect
   */
  report(history: SearchHistory, bench: BenchNow = {}): SearchReport {
    const told = { history, bench }
    const { report, space, evidence, settled } = this.foreseen.get(keyOf(told)) ?? this.judge(told)
    this.settled.remember(history, settled)
    // What was foreseen besides, and did not come, is let go.
    this.spaces = [space]
    this.foreseen.clear()
    space.keepOnly(evidence)
    this.letGo(space)
    return named(report, history)
  }

  /** What a long search has left behind is let go of, to be worked out anew where it is asked for again. */
  private letGo({ sets }: HypothesisSpace): void {
    const { engine } = this
    this.rowsAtFirst ||= engine.rowCount
    const tooManyRows = engine.rowCount > Math.max(this.mostRows, MOST_TIMES * this.rowsAtFirst)
    // A space holds numbers of rows: it never outlives them.
    if (tooManyRows || sets.count > MOST_SETS) this.spaces = []
    if (!tooManyRows) return
    this.rowsAtFirst = 0
    engine.forgetRows()
  }

  private judge({ history, bench }: Told): Judgement {
    const { belief, settled } = this.weigh(history)
    const choices = this.choose(belief, bench)
    const marginals = belief.marginals
    const off = new Set(bench.off ?? [])
    const { engine } = this
    const given = new Set(belief.here.given)
    const listed = [...marginals.keys()]
      .filter((index) => given.has(index) || (marginals[index] as number) >= LISTED_CHANCE)
      .sort(
        (first, second) =>
          Number(given.has(second)) - Number(given.has(first)) ||
          (marginals[second] as number) - (marginals[first] as number),
      )
      .slice(0, MOST_LISTED)
    const told = testimonies(
      belief,
      listed.filter((index) => !given.has(index)),
    )
    const suspects = listed.map((index): SuspectReport<number> => {
      const suspect = engine.suspects[index] as CompiledEngine['suspects'][number]
      const { remedy } = suspect
      const way = this.costs.wayIn(suspect.goal, off)
      const testimony = told.get(index) ?? []
      return {
        id: suspect.id,
        fault: suspect.fault.id,
        place: suspect.place.id,
        area: suspect.fault.area,
        words: suspect.name,
        chance: marginals[index] as number,
        confirmed: given.has(index),
        remedy: {
          id: remedy.id,
          words: remedy.name,
          minutes: remedy.minutes,
          parts: remedy.parts,
          products: remedy.products,
          caution: remedy.caution,
          school: remedy.school,
        },
        takesOff: way.parts,
        totalMinutes: remedy.minutes + way.minutes,
        speaksFor: testimony.filter(({ times }) => times > 1),
        speaksAgainst: testimony.filter(({ times }) => times < 1),
      }
    })
    const minutes = history.findings.map((finding) => this.costs.test(engine.indexOfTest(finding.test), off).total)
    const advice = this.adviser.advise(belief, choices, bench)
    const report = {
      state: belief.state,
      advice,
      suspects,
      nothingElse: belief.nothingHidden,
      next: this.offered(choices, advice).map((choice) => this.describeTest(choices, choice)),
      contradictions: contradictions(belief, minutes).map(({ finding, against, chance }) => ({
        repeat: finding,
        against,
        chance,
        words: this.contradictionInWords(history, finding, against),
      })),
      withheld: choices.withheld.map(({ test, why }) => ({
        test: engine.tests[test]?.id ?? '',
        words: engine.tests[test]?.name ?? '',
        why,
      })),
      leftOut: belief.leftOut,
      byArea: this.byArea(belief),
      byPlace: this.byPlace(belief),
    }
    return { report, space: belief.space, evidence: belief.evidence, settled }
  }

  /** The belief after a history, and the repairs that count as confirmed by it. */
  private weigh(history: SearchHistory): ReturnType<SettledRepairs['settle']> {
    return this.settled.settle(history, (events) => new Belief(this.spaceFor(events), history))
  }

  private spaceFor(events: SearchHistory['events']): HypothesisSpace {
    const key = JSON.stringify(events)
    const known = this.spaces.find((space) => space.key === key)
    if (known) return known
    const made = new HypothesisSpace(this.engine, events)
    this.spaces.push(made)
    return made
  }

  /** Chance that any suspect is there that this remedy at this place would mend. */
  groupChance(belief: Belief, group: number): number {
    return belief.groupChances(this.costs)[group] as number
  }

  /** The best few, and whatever the advice speaks of. */
  private offered(choices: Choices, advice: Advice): TestChoice[] {
    const named = new Set(advice.kind === 'prove' ? advice.tests : advice.kind === 'test' ? [advice.test] : [])
    return choices.tests.filter(({ test }, place) => place < MOST_TESTS || named.has(this.engine.tests[test]?.id ?? ''))
  }

  private describeTest(choices: Choices, choice: TestChoice): NextTestReport {
    const known = this.engine.tests[choice.test] as CompiledEngine['tests'][number]
    const { test } = known
    return {
      id: known.id,
      words: known.name,
      how: known.how,
      minutes: test.minutes,
      totalMinutes: test.minutes + choice.way.minutes,
      takesOff: choice.way.parts,
      needsWhole: test.whole,
      caution: test.caution,
      equipment: test.equipment,
      value: choice.value,
      outcomes: test.outcomes.map((outcome, index) => ({
        id: outcome.id,
        words: outcome.name,
        chance: choice.outcomes[index] as number,
      })),
      why: this.adviser.why(choices, choice),
      then: choice.then === null ? null : (this.engine.tests[choice.then]?.id ?? null),
    }
  }

  private contradictionInWords(history: SearchHistory, finding: number, against: number): string {
    const say = (index: number): string => {
      const entry = history.findings[index] as SearchHistory['findings'][number]
      const known = this.engine.tests[this.engine.indexOfTest(entry.test)] as CompiledEngine['tests'][number]
      return `“${known.name}: ${known.test.outcomes.find((outcome) => outcome.id === entry.outcome)?.name.toLowerCase() ?? entry.outcome}”`
    }
    return `${say(finding)} and ${say(against)} do not fit each other. Repeat the first, it is the cheaper; both stay in the book.`
  }

  private byArea(belief: Belief): SearchReport['byArea'] {
    const areaOf = Int32Array.from(this.engine.suspects, ({ fault }, index) =>
      index === this.engine.unlisted ? -1 : areas.indexOf(fault.area),
    )
    const chances = belief.chancesOf(areaOf, areas.length)
    return areas.map((area, index) => ({ area, chance: chances[index] as number })).filter(({ chance }) => chance > 0)
  }

  private byPlace(belief: Belief): SearchReport['byPlace'] {
    const { places } = this.engine
    const chances = belief.chancesOf(this.placeOf, places.length)
    return places.flatMap(({ id, components, links }, index) =>
      components.length === 0 && links.length === 0
        ? []
        : [{ place: id, components, links, chance: chances[index] as number }],
    )
  }
}
