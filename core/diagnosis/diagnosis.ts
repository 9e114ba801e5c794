import type { EngineDescription, Tool } from '../engine/description-schema'
import {
  areas,
  equipment as allEquipment,
  type Circumstance,
  type Equipment,
  type Knowledge,
} from '../knowledge/knowledge-schema'
import type { BenchAct } from './acts/acts-of'
import { BenchCosts } from './acts/bench-costs'
import { noticedInUse } from './acts/noticed'
import { seenAt, withSeen } from './acts/seen'
import { Adviser, type Advice, type BenchNow, type Choices } from './advice/advice'
import { sidesInWords } from './advice/in-words'
import type { ActChoice, Question } from './advice/value-of-acts'
import type { BenchTest } from './places/bench-tests'
import { Belief } from './belief/belief'
import { Evidence } from './belief/evidence'
import { PopulationChain } from './belief/population-chain'
import { slotsOf, type Slots } from './belief/slots'
import { CompiledEngine } from './compiled-engine'
import type { SearchHistory } from './history'
import { chainLeft } from './report/chain-left'
import { contradictions } from './report/contradictions'
import {
  withFindingsNamed,
  type ActReport,
  type FoundReport,
  type ObservationReport,
  type SearchReport,
  type SuspectReport,
} from './report/search-report'
import { testimonies } from './report/testimonies'

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
const MOST_ACTS = 6
/** So many rows of the circuit are kept: a long search with many repairs makes ever more of them. */
const MOST_ROWS = 12_000

/** The whole judgement of one engine: made ready once, then asked after every finding. */
export class Diagnosis {
  readonly engine: CompiledEngine
  readonly costs: BenchCosts
  readonly adviser: Adviser
  private slots: { readonly key: string; readonly slots: Slots } | null = null
  private evidence: Evidence | null = null
  private readonly populations: PopulationChain

  /**
   * @param description the engine
   * @param knowledge checked by schema and by checkKnowledge
   * @param context what is known of its past, and what is on the bench
   */
  constructor(description: EngineDescription, knowledge: Knowledge, context: SearchContext = {}) {
    this.engine = new CompiledEngine(description, knowledge, context.circumstances, context.learned)
    const equipment = new Set(context.equipment ?? allEquipment)
    this.costs = new BenchCosts(
      this.engine,
      context.tools ? { tools: new Set(context.tools) } : {},
      new Set(allEquipment.filter((piece) => !equipment.has(piece))),
    )
    this.populations = new PopulationChain(this.engine)
    this.adviser = new Adviser(this.engine, this.costs, equipment, noticedInUse(this.engine))
  }

  /**
   * @param history findings and events
   * @param onState told the share of its states that is worked out, where they are one after the other
   * @throws RangeError naming an unknown test, outcome or suspect
   */
  believe(history: SearchHistory, onState?: (share: number) => void): Belief {
    if (this.engine.rowCount > MOST_ROWS) {
      this.engine.forgetRows()
      this.evidence = null
    }
    const events = withSeen(this.engine, history)
    const key = JSON.stringify(events)
    if (this.slots?.key !== key) this.slots = { key, slots: slotsOf(this.engine, events) }
    this.evidence = new Evidence(this.engine, this.slots.slots, history.findings, this.evidence)
    return new Belief(this.evidence, history, () => this.populations.after(history, onState))
  }

  /** The act everything is tried at: what the advice falls back on, and what proves a repair. */
  get trial(): string {
    return this.costs.acts[this.adviser.trial ?? -1]?.id ?? ''
  }

  /** What to do next with everything weighed. */
  choose(belief: Belief, bench: BenchNow = {}): Choices {
    return this.adviser.choose(belief, bench)
  }

  /**
   * @param history findings and events, each with its state of the engine
   * @param bench what is off and refused now
   * @param onState told the share of the history's states that is worked out
   * @throws RangeError naming an unknown test, outcome or suspect
   */
  report(history: SearchHistory, bench: BenchNow = {}, onState?: (share: number) => void): SearchReport {
    const belief = this.believe(history, onState)
    const choices = this.choose(belief, bench)
    const advice = this.adviser.advise(belief, choices, bench)
    const minutes = history.findings.map((finding) => {
      const test = this.engine.indexOfTest(finding.test)
      return this.costs.test(test, new Set(bench.off ?? [])).cost + (this.engine.tests[test]?.test.minutes ?? 0)
    })
    const report: SearchReport<number> = {
      state: belief.state,
      advice,
      suspects: this.suspects(belief, bench),
      nothingElse: belief.nothingHidden,
      leftToNotice: this.adviser.leftToNotice(belief),
      next: this.offered(choices, advice).map((choice) => this.describeAct(choices, choice, advice)),
      sayable: this.sayable,
      contradictions: contradictions(belief, minutes).map(({ finding, against, chance }) => ({
        repeat: finding,
        against,
        chance,
        words: this.contradictionInWords(history, finding, against),
      })),
      withheld: choices.withheld.map(({ test, why }) => ({
        test: this.engine.tests[test]?.id ?? '',
        words: this.engine.tests[test]?.name ?? '',
        why,
      })),
      byArea: this.byArea(belief),
      chain: this.chain(belief),
      byPlace: this.engine.places.flatMap(({ id, components, links }) =>
        components.length === 0 && links.length === 0
          ? []
          : [{ place: id, components, links, chance: this.chanceOf(belief, ({ place }) => place.id === id) }],
      ),
    }
    return withFindingsNamed(report, (finding) => history.findings[finding]?.id ?? '')
  }

  private foundAt(test: number, outcome: string): FoundReport | null {
    const suspect = this.engine.suspects[seenAt(this.engine, test, outcome) ?? -1]
    return suspect
      ? { id: suspect.id, words: suspect.name, area: suspect.fault.area, remedy: { words: suspect.remedy.name } }
      : null
  }

  private get sayable(): SearchReport['sayable'] {
    const { tests } = this.engine
    this.everything ??= tests.map(({ id, name, test }, index) => ({
      id,
      words: name,
      act: (this.costs.acts[this.costs.actOf[index] as number] as BenchAct).name,
      outcomes: test.outcomes.map((outcome) => ({
        id: outcome.id,
        words: outcome.name,
        chance: 0,
        finds: this.foundAt(index, outcome.id),
      })),
    }))
    return this.everything
  }
  private everything: SearchReport['sayable'] | null = null

  /** What was found points to; before anything was found everything does. */
  private pointedTo(belief: Belief): (index: number) => boolean {
    const implied = belief.impliedSuspects
    return (index) => belief.history.findings.length === 0 || implied[index] === true
  }

  private chain(belief: Belief): SearchReport['chain'] {
    const counts = this.pointedTo(belief)
    return chainLeft(this.engine.description, this.engine.places, {
      chanceAt: (places, pointedTo) =>
        this.chanceOf(belief, ({ place }, index) => places.has(place.id) && (!pointedTo || counts(index))),
      foundAt: new Set(belief.given.flatMap((index) => this.engine.suspects[index]?.place.id ?? [])),
    })
  }

  private byArea(belief: Belief): SearchReport['byArea'] {
    const counts = this.pointedTo(belief)
    return areas
      .filter((area) =>
        this.engine.suspects.some(({ fault }, index) => fault.area === area && index !== this.engine.unlisted),
      )
      .map((area) => ({
        area,
        chance: this.chanceOf(belief, ({ fault }, index) => fault.area === area && counts(index)),
      }))
  }

  private chanceOf(
    belief: Belief,
    wanted: (suspect: CompiledEngine['suspects'][number], index: number) => boolean,
  ): number {
    const indices = this.engine.suspects.flatMap((suspect, index) =>
      index !== this.engine.unlisted && wanted(suspect, index) ? [index] : [],
    )
    return indices.length === 0 ? 0 : belief.chanceOfAny(new Set(indices))
  }

  private suspects(belief: Belief, bench: BenchNow): Array<SuspectReport<number>> {
    const { engine } = this
    const { marginals, impliedSuspects: implied } = belief
    const given = new Set(belief.given)
    const off = new Set(bench.off ?? [])
    return [...marginals.keys()]
      .filter((index) => given.has(index) || (marginals[index] as number) >= LISTED_CHANCE)
      .sort(
        (first, second) =>
          Number(given.has(second)) - Number(given.has(first)) ||
          // What was found speaks for comes before what may be there anyway.
          Number(implied[second]) - Number(implied[first]) ||
          (marginals[second] as number) - (marginals[first] as number) ||
          first - second,
      )
      .slice(0, MOST_LISTED)
      .map((index) => {
        const { id, fault, place, name, remedy, goal } = engine.suspects[index] as CompiledEngine['suspects'][number]
        const way = this.costs.wayIn(goal, off)
        const testimony = given.has(index) ? [] : testimonies(belief, index)
        return {
          id,
          fault: fault.id,
          place: place.id,
          area: fault.area,
          words: name,
          chance: marginals[index] as number,
          confirmed: given.has(index),
          implied: implied[index] === true,
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
  }

  /** The best few, and whatever the advice speaks of. */
  private offered({ acts }: Choices, advice: Advice): ActChoice[] {
    const advised = advice.kind === 'act' ? advice.act : null
    const id = ({ act }: ActChoice): string => (this.costs.acts[act] as BenchAct).id
    return acts
      .filter((choice, place) => place < MOST_ACTS || id(choice) === advised)
      .sort((one, other) => Number(id(other) === advised) - Number(id(one) === advised))
  }

  private describeAct(choices: Choices, choice: ActChoice, advice: Advice): ActReport {
    const act = this.costs.acts[choice.act] as BenchAct
    return {
      id: act.id,
      words: act.name,
      how: act.how,
      minutes: act.minutes,
      totalMinutes: act.minutes + choice.way.minutes,
      takesOff: choice.way.parts,
      needsWhole: act.whole,
      caution: act.caution,
      byWheel: act.byWheel,
      value: choice.value,
      why: advice.kind === 'act' && advice.act === act.id ? advice.why : sidesInWords(choices.worlds, choice),
      observations: choice.questions.map((question) => this.describeObservation(question)),
    }
  }

  private describeObservation({ test, outcomes, says }: Question): ObservationReport {
    const { engine } = this
    const { id, name, how, test: known } = engine.tests[test] as BenchTest
    return {
      id,
      words: name,
      how,
      equipment: known.equipment,
      needsRunning: known.needsRunning,
      says,
      outcomes: known.outcomes.map((outcome, index) => ({
        id: outcome.id,
        words: outcome.name,
        chance: outcomes[index] as number,
        finds: this.foundAt(test, outcome.id),
      })),
    }
  }

  private contradictionInWords(history: SearchHistory, finding: number, against: number): string {
    const say = (index: number): string => {
      const entry = history.findings[index] as SearchHistory['findings'][number]
      const known = this.engine.tests[this.engine.indexOfTest(entry.test)] as BenchTest
      return `“${known.name}: ${known.test.outcomes.find((outcome) => outcome.id === entry.outcome)?.name.toLowerCase() ?? entry.outcome}”`
    }
    return `${say(finding)} and ${say(against)} do not fit each other. Repeat the first, it is the cheaper; both stay in the book.`
  }
}
