import type { EngineDescription, Tool } from '../engine/description-schema'
import { Belief } from './belief'
import { BenchCosts } from './bench-costs'
import { CompiledEngine } from './compiled-engine'
import { contradictions } from './contradictions'
import { testimonies } from './explanations'
import type { SearchHistory } from './history'
import { HypothesisSpace } from './hypothesis-space'
import { equipment as allEquipment, type Circumstance, type Equipment, type Knowledge } from './knowledge-schema'
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

export interface BenchNow {
  /** Parts that are off. */
  readonly off?: readonly string[]
  /** Tests that could not be done, or are not wanted. */
  readonly refused?: readonly string[]
  /** Confirmed suspects that are to stay as they are: left undone, or declined by the owner. */
  readonly leave?: readonly string[]
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
  readonly remedy: { readonly id: string; readonly words: string; readonly minutes: number; readonly parts: readonly string[]; readonly products: readonly string[]; readonly caution: string; readonly school: string }
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
  /** Tests not offered, with the reason. */
  readonly withheld: ReadonlyArray<{ readonly test: string; readonly words: string; readonly why: string }>
  /** Share of the belief expected to lie in sets of three faults that were not followed. */
  readonly leftOut: number
  /** Chance of every component's place by its most suspected fault, for the drawing. */
  readonly byPlace: ReadonlyArray<{ readonly place: string; readonly components: readonly string[]; readonly links: readonly string[]; readonly chance: number }>
}

/** Below this chance of any fault that matters the search ends, once Prove has passed. */
export const STOP_CHANCE = 0.03
/** Suspects less likely than this are not listed. */
const LISTED_CHANCE = 0.005
const MOST_LISTED = 24
const MOST_TESTS = 8
/** From this chance on a repair is worth more than another test that saves little. */
const SURE_CHANCE = 0.9
/** Where no test is worth its minutes, a repair of at least this chance is. */
const REPAIR_CHANCE = 0.5
/** Before a repair a test may cost this share of it, and must be expected to change the belief by so much. */
const LOOK_SHARE = 0.6
const TELLING = 0.12
/** A test that changes the chance of any fault by less is not made for it. */
const LEAST_CLEARED = 0.004
/** Nor one that clears less than this in a minute. */
const LEAST_CLEARED_PER_MINUTE = 0.0015
/** A repair less likely to be needed is not made to be sure. */
const LEAST_MENDED = 0.03
/** While something is as good as surely wrong there is nothing to prove: it is narrowed down. */
const PROVE_CHANCE = 0.15
/** A test that moves less of the chances narrows nothing down. */
const LEAST_MOVED = 0.05
/** So often one remedy at one place is advised in a search. */
const MOST_REPAIRS = 2

/** The whole judgement of one engine: made ready once, then asked after every finding. */
export class Diagnosis {
  readonly engine: CompiledEngine
  readonly costs: BenchCosts
  private readonly equipment: ReadonlySet<Equipment>
  private space: { readonly key: string; readonly space: HypothesisSpace } | null = null
  private readonly settled = new SettledRepairs()

  /**
   * @param description the engine
   * @param knowledge checked by schema and by checkKnowledge
   * @param context what is known of its past, and what is on the bench
   */
  constructor(description: EngineDescription, knowledge: Knowledge, context: SearchContext = {}) {
    this.engine = new CompiledEngine(description, knowledge, context.circumstances, context.learned)
    this.equipment = new Set(context.equipment ?? allEquipment)
    this.costs = new BenchCosts(this.engine, context.tools ? { tools: new Set(context.tools) } : {}, new Set(allEquipment.filter((piece) => !this.equipment.has(piece))))
  }

  /**
   * Works out what the circuit shows for every set of hidden faults, in steps, so that a caller can show progress
   * and stop in between.
   *
   * @param history findings, repairs and refits so far
   * @returns share done, step by step
   */
  * prepare(history: SearchHistory = { findings: [], events: [] }, state = 0): Generator<number, void> {
    const events = [...history.events, ...this.settled.known(history)]
    const space = this.spaceFor(events)
    yield* space.prepare(state)
    // What the tests say of the likeliest sets is worked out once; better now, under the bar, than after the first finding.
    if (events.length === 0) this.choose(new Belief(space, { findings: [], events }))
  }

  believe(history: SearchHistory): Belief {
    return this.settled.settle(history, (events) => new Belief(this.spaceFor(events), history))
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
        remedy: { id: remedy.id, words: remedy.name, minutes: remedy.minutes, parts: remedy.parts, products: remedy.products, caution: remedy.caution, school: remedy.school },
        takesOff: way.parts, totalMinutes: remedy.minutes + way.minutes,
        speaksFor: testimony.filter(({ times }) => times > 1), speaksAgainst: testimony.filter(({ times }) => times < 1),
      }
    })
    const minutes = history.findings.map((finding) => this.costs.test(engine.indexOfTest(finding.test), off).total)
    const advice = this.advise(belief, choices, bench)
    return {
      state: belief.state,
      advice,
      suspects,
      nothingElse: belief.nothingHidden,
      next: this.offered(choices, advice).map((choice) => this.describeTest(choices, choice)),
      contradictions: contradictions(belief, minutes).map(({ finding, against, chance }) => ({ repeat: words(finding), against: words(against), chance, words: this.contradictionInWords(history, finding, against) })),
      withheld: choices.withheld.map(({ test, why }) => ({ test: engine.tests[test]?.id ?? '', words: engine.tests[test]?.name ?? '', why })),
      leftOut: belief.leftOut,
      byPlace: this.byPlace(marginals),
    }
  }

  private spaceFor(events: SearchHistory['events']): HypothesisSpace {
    const key = JSON.stringify(events)
    if (this.space?.key !== key) this.space = { key, space: new HypothesisSpace(this.engine, events) }
    return this.space.space
  }

  /** Chance that any suspect is there that this remedy at this place would mend. */
  groupChance(belief: Belief, group: number): number {
    return belief.groupChances(this.costs)[group] as number
  }

  /** What Prove still has to see in this state; null when all of it was made. */
  prove(belief: Belief, refused: readonly string[] = []): Advice | null {
    const made = new Set(belief.history.findings.flatMap((finding) => (finding.state === belief.state ? [finding.test] : [])))
    const tests = this.engine.tests.filter(({ id, test }) => test.proves && !made.has(id) && !refused.includes(id) && test.equipment.every((piece) => this.equipment.has(piece)) && (!test.needsRunning || belief.turns > 0.5)).map(({ id }) => id)
    return tests.length === 0 ? null : { kind: 'prove', tests, why: `That nothing hidden is left has a chance of ${percent(belief.nothingHidden)}: now everything has to pass.` }
  }

  /** The one thing to do next, and why. */
  advise(belief: Belief, choices: Choices, bench: BenchNow): Advice {
    const { engine } = this
    const left = new Set(bench.leave ?? [])
    const [confirmed] = belief.here.given.filter((index) => !left.has(engine.suspects[index]?.id ?? '')).sort((first, second) => this.costs.repair(this.costs.groupOf[first] as number, new Set(bench.off ?? [])).total - this.costs.repair(this.costs.groupOf[second] as number, new Set(bench.off ?? [])).total)
    if (confirmed !== undefined) {
      const suspect = engine.suspects[confirmed] as CompiledEngine['suspects'][number]
      return { kind: 'repair', suspect: suspect.id, why: `It is confirmed that ${suspect.name}. Mend it, then test again: finding one does not end the search.` }
    }
    const retest = this.retest(belief)
    if (retest) return retest
    const anyFault = 1 - belief.nothingHidden
    const [best] = choices.tests
    // What no row names has no remedy to be advised; and what was mended twice is not mended by doing it a third time.
    const timesMended = (group: number): number => belief.history.events.filter((event) => event.kind === 'repaired' && this.costs.groupOf[engine.indexOfSuspect(event.suspect)] === group).length
    const known = { ...choices, repairs: choices.repairs.filter((entry) => entry.group !== this.costs.groupOf[engine.unlisted] && timesMended(entry.group) < MOST_REPAIRS) }
    const likely = known.repairs.reduce<Choices['repairs'][number] | undefined>((most, entry) => (!most || entry.chance > most.chance ? entry : most), undefined)
    if (likely && likely.chance > SURE_CHANCE && !(best && best.value > best.cost)) return this.repairAdvice(belief, choices, likely)
    if (best && best.value > 0 && anyFault > STOP_CHANCE) return { kind: 'test', test: engine.tests[best.test]?.id ?? '', why: this.why(choices, best) }
    if (likely && likely.chance >= REPAIR_CHANCE) return this.repairAdvice(belief, choices, likely)
    const narrowed = belief.nothingHidden < PROVE_CHANCE ? this.narrow(belief, known) : null
    if (narrowed) return narrowed
    const prove = this.prove(belief, bench.refused)
    if (prove) return prove
    if (anyFault > STOP_CHANCE) return this.surer(belief, known) ?? { kind: 'done', why: `No test that can be done makes it surer; the chance that something is left is ${percent(anyFault)}. Repeat what surprised, or note by hand what you see.` }
    return { kind: 'done', why: `Prove has passed, and the chance that anything is left is ${percent(anyFault)}.` }
  }

  /** Nothing has been tried since the last repair: first see whether it runs. */
  private retest(belief: Belief): Advice | null {
    const { findings, events } = belief.history
    if (!events.some((event) => event.kind === 'repaired' && event.state === belief.state) || findings.some((finding) => finding.state === belief.state)) return null
    const feed = this.engine.description.power === 'dcc' ? 'dcc-track' : 'track'
    const run = this.engine.tests.find(({ test }) => test.reading.kind === 'motion' && test.reading.feed === feed && test.equipment.every((piece) => this.equipment.has(piece)))
    return run ? { kind: 'test', test: run.id, why: 'It was mended: the retest says whether that was it, and whether it was all.' } : null
  }

  /** Nothing saves minutes any more, but it is not sure enough yet: what clears most doubt for its minutes. */
  private surer(belief: Belief, choices: Choices): Advice | null {
    const test = choices.tests.reduce<TestChoice | null>((best, choice) => (choice.clears > LEAST_CLEARED && choice.clears > LEAST_CLEARED_PER_MINUTE * choice.cost && (!best || choice.clears / choice.cost > best.clears / best.cost) ? choice : best), null)
    const repair = choices.repairs.reduce<Choices['repairs'][number] | null>((best, choice) => (choice.chance > LEAST_MENDED && (!best || choice.chance / choice.cost > best.chance / best.cost) ? choice : best), null)
    if (repair && (!test || repair.chance / repair.cost > test.clears / test.cost)) return this.repairAdvice(belief, choices, repair)
    return test ? { kind: 'test', test: this.engine.tests[test.test]?.id ?? '', why: this.why(choices, test) } : null
  }

  /** Surely something is wrong, and no test saves its minutes: what moves most of the chances a minute, or mends most of them. */
  private narrow(belief: Belief, choices: Choices): Advice | null {
    const { groupOf, groups } = this.costs
    let [best, bestRate]: [TestChoice | null, number] = [null, 0]
    for (const choice of choices.tests) {
      const after = choices.after(choice.test).map((chances) => {
        const ofGroups = new Float64Array(groups.length)
        for (const [suspect, chance] of chances.entries()) ofGroups[groupOf[suspect] as number] = (ofGroups[groupOf[suspect] as number] as number) + chance
        return ofGroups
      })
      let moved = 0
      for (let group = 0; group < groups.length; group++) {
        const now = after.reduce((sum, of, outcome) => sum + (choice.outcomes[outcome] as number) * (of[group] as number), 0)
        moved += after.reduce((sum, of, outcome) => sum + (choice.outcomes[outcome] as number) * Math.abs((of[group] as number) - now), 0) / 2
      }
      if (moved >= LEAST_MOVED && moved / choice.cost > bestRate) [best, bestRate] = [choice, moved / choice.cost]
    }
    const repair = choices.repairs.reduce<Choices['repairs'][number] | null>((most, entry) => (entry.chance > LEAST_MENDED && (!most || entry.chance / entry.cost > most.chance / most.cost) ? entry : most), null)
    if (repair && repair.chance / repair.cost > bestRate) return this.repairAdvice(belief, choices, repair)
    return best ? { kind: 'test', test: this.engine.tests[best.test]?.id ?? '', why: this.why(choices, best) } : null
  }

  /** The test that changes the belief in these suspects most for its minutes; null where none within the limit tells much. */
  private surestLook(choices: Choices, suspects: readonly number[], mostMinutes: number): TestChoice | null {
    let [best, bestRate]: [TestChoice | null, number] = [null, 0]
    for (const choice of choices.tests) {
      if (choice.cost > mostMinutes) continue
      const after = choices.after(choice.test).map((chances) => suspects.reduce((sum, index) => sum + (chances[index] as number), 0))
      const now = after.reduce((sum, value, outcome) => sum + value * (choice.outcomes[outcome] as number), 0)
      const change = after.reduce((sum, value, outcome) => sum + (choice.outcomes[outcome] as number) * Math.abs(value - now), 0)
      if (change >= TELLING && change / choice.cost > bestRate) [best, bestRate] = [choice, change / choice.cost]
    }
    return best
  }

  /** Mend it; but look first where a test that costs less would tell more about it. */
  private repairAdvice(belief: Belief, choices: Choices, { group, chance, cost }: Choices['repairs'][number]): Advice {
    const { suspects, suspect } = this.costs.groups[group] as BenchCosts['groups'][number]
    const look = chance > SURE_CHANCE ? null : this.surestLook(choices, suspects, LOOK_SHARE * cost)
    if (look) return { kind: 'test', test: this.engine.tests[look.test]?.id ?? '', why: this.why(choices, look) }
    const likeliest = suspects.reduce((most, index) => ((belief.marginals[index] as number) > (belief.marginals[most] as number) ? index : most), suspects[0] as number)
    return { kind: 'repair', suspect: this.engine.suspects[likeliest]?.id ?? '', why: `${percent(chance)} for this, and no test saves more than it costs. ${suspect.remedy.name}: ${Math.round(cost)} min with the retest.` }
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
      id: known.id, words: known.name, how: known.how, minutes: test.minutes, totalMinutes: test.minutes + choice.way.minutes, takesOff: choice.way.parts, needsWhole: test.whole,
      caution: test.caution, equipment: test.equipment, value: choice.value,
      outcomes: test.outcomes.map((outcome, index) => ({ id: outcome.id, words: outcome.name, chance: choice.outcomes[index] as number })),
      why: this.why(choices, choice), then: choice.then === null ? null : this.engine.tests[choice.then]?.id ?? null,
    }
  }

  /** The suspect the test moves most, and where two of its outcomes would take it. */
  private why(choices: Choices, { test, outcomes }: TestChoice): string {
    const after = choices.after(test)
    const before = this.engine.suspects.map((_, suspect) => after.reduce((sum, chances, outcome) => sum + (outcomes[outcome] as number) * (chances[suspect] as number), 0))
    const seen = [...after.keys()].filter((outcome) => (outcomes[outcome] as number) > 0.02)
    let [moved, most] = [-1, 0]
    for (const [suspect, now] of before.entries()) {
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
    return `${named(up)} would take “${suspect.name}” from ${percent(before[moved] as number)} to ${percent(chanceAfter(up))}, ${named(down)} to ${percent(chanceAfter(down))}.`
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
