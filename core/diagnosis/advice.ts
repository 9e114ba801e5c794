import type { Belief } from './belief'
import type { BenchCosts } from './bench-costs'
import type { CompiledEngine } from './compiled-engine'
import type { Equipment } from '../knowledge/knowledge-schema'
import type { Choices, TestChoice } from './next-test'

export interface BenchNow {
  /** Parts that are off. */
  readonly off?: readonly string[]
  /** Tests that could not be done, or are not wanted. */
  readonly refused?: readonly string[]
  /** Confirmed suspects that are to stay as they are: left undone, or declined by the owner. */
  readonly leave?: readonly string[]
}

export type Advice =
  | { readonly kind: 'test'; readonly test: string; readonly why: string }
  | { readonly kind: 'repair'; readonly suspect: string; readonly why: string }
  /** Nothing hidden is likely any more: everything that has to pass, once more. */
  | { readonly kind: 'prove'; readonly tests: readonly string[]; readonly why: string }
  | { readonly kind: 'done'; readonly why: string }

/** Below this chance of any fault that matters the search ends, once Prove has passed. */
export const STOP_CHANCE = 0.03
/** From this chance on a repair is worth more than another test that saves little. */
const SURE_CHANCE = 0.9
/** Where no test is worth its minutes, a repair of at least this chance is. */
const REPAIR_CHANCE = 0.5
/** A test that changes the chance of any fault by less is not made for it. */
const LEAST_CLEARED = 0.001
/** Nor one that clears less than this in a minute. */
const LEAST_CLEARED_PER_MINUTE = 0.0012
/** A repair less likely to be needed is not made to be sure. */
const LEAST_MENDED = 0.025
/** Nor a long one that wants new parts, unless it is likelier than this: nothing is rewound or exchanged to be sure. */
const LONG_MINUTES = 15
const WORTH_PARTS = 0.1
/** While something is as good as surely wrong there is nothing to prove: it is narrowed down. */
const PROVE_CHANCE = 0.15
/** A test that moves less of the chances narrows nothing down. */
const LEAST_MOVED = 0.05
/** So often one remedy at one place is advised in a search. */
const MOST_REPAIRS = 2

/** What to do next with one engine, and why: a test, a repair, the proof, or nothing more. */
export class Adviser {
  constructor(
    private readonly engine: CompiledEngine,
    private readonly costs: BenchCosts,
    private readonly equipment: ReadonlySet<Equipment>,
  ) {}

  /** What Prove still has to see in this state; null when all of it was made. */
  prove(belief: Belief, refused: readonly string[] = []): Advice | null {
    const made = new Set(
      belief.history.findings.flatMap((finding) => (finding.state === belief.state ? [finding.test] : [])),
    )
    const { runsNow } = belief
    const tests = this.engine.tests
      .filter(
        ({ id, test }) =>
          test.proves &&
          !made.has(id) &&
          !refused.includes(id) &&
          test.equipment.every((piece) => this.equipment.has(piece)) &&
          (!test.needsRunning || runsNow),
      )
      .map(({ id }) => id)
    return tests.length === 0
      ? null
      : {
          kind: 'prove',
          tests,
          why: `That nothing hidden is left has a chance of ${percent(belief.nothingHidden)}: now everything has to pass.`,
        }
  }

  /** The one thing to do next, and why. */
  advise(belief: Belief, choices: Choices, bench: BenchNow): Advice {
    const { engine } = this
    const left = new Set(bench.leave ?? [])
    const [confirmed] = belief.here.given
      .filter((index) => !left.has(engine.suspects[index]?.id ?? ''))
      .sort(
        (first, second) =>
          this.costs.repair(this.costs.groupOf[first] as number, new Set(bench.off ?? [])).total -
          this.costs.repair(this.costs.groupOf[second] as number, new Set(bench.off ?? [])).total,
      )
    if (confirmed !== undefined) {
      const suspect = engine.suspects[confirmed] as CompiledEngine['suspects'][number]
      return {
        kind: 'repair',
        suspect: suspect.id,
        why: `It is confirmed that ${suspect.name}. Mend it, then test again: finding one does not end the search.`,
      }
    }
    const retest = this.retest(belief)
    if (retest) return retest
    const anyFault = 1 - belief.nothingHidden
    const [best] = choices.tests
    // What no row names has no remedy to be advised; and what was mended twice is not mended by doing it a third time.
    const timesMended = (group: number): number =>
      belief.history.events.filter(
        (event) => event.kind === 'repaired' && this.costs.groupOf[engine.indexOfSuspect(event.suspect)] === group,
      ).length
    const known = {
      ...choices,
      repairs: choices.repairs.filter(
        (entry) => entry.group !== this.costs.groupOf[engine.unlisted] && timesMended(entry.group) < MOST_REPAIRS,
      ),
    }
    const likely = known.repairs.reduce<Choices['repairs'][number] | undefined>(
      (most, entry) => (!most || entry.chance > most.chance ? entry : most),
      undefined,
    )
    if (likely && likely.chance > SURE_CHANCE && !(best && best.value > best.cost))
      return this.repairAdvice(belief, choices, likely, bench)
    if (best && best.value > 0 && anyFault > STOP_CHANCE)
      return { kind: 'test', test: engine.tests[best.test]?.id ?? '', why: this.why(choices, best) }
    if (likely && likely.chance >= REPAIR_CHANCE) return this.repairAdvice(belief, choices, likely, bench)
    const narrowed = belief.nothingHidden < PROVE_CHANCE ? this.narrow(belief, known, bench) : null
    if (narrowed) return narrowed
    const prove = this.prove(belief, bench.refused)
    if (prove) return prove
    if (anyFault > STOP_CHANCE)
      return (
        this.surer(belief, known, bench) ?? {
          kind: 'done',
          why: `No test that can be done makes it surer; the chance that something is left is ${percent(anyFault)}. Repeat what surprised, or note by hand what you see.`,
        }
      )
    return { kind: 'done', why: `Prove has passed, and the chance that anything is left is ${percent(anyFault)}.` }
  }

  /** Nothing has been tried since the last repair: first see whether it runs. */
  private retest(belief: Belief): Advice | null {
    const { findings, events } = belief.history
    if (
      !events.some((event) => event.kind === 'repaired' && event.state === belief.state) ||
      findings.some((finding) => finding.state === belief.state)
    )
      return null
    const feed = this.engine.description.power === 'dcc' ? 'dcc-track' : 'track'
    const run = this.engine.tests.find(
      ({ test }) =>
        test.reading.kind === 'motion' &&
        test.reading.feed === feed &&
        test.equipment.every((piece) => this.equipment.has(piece)),
    )
    return run
      ? {
          kind: 'test',
          test: run.id,
          why: 'It was mended: the retest says whether that was it, and whether it was all.',
        }
      : null
  }

  /** Nothing saves minutes any more, but it is not sure enough yet: what clears most doubt for its minutes. */
  private surer(belief: Belief, choices: Choices, bench: BenchNow): Advice | null {
    const test = choices.tests.reduce<TestChoice | null>(
      (best, choice) =>
        choice.clears > LEAST_CLEARED &&
        choice.clears > LEAST_CLEARED_PER_MINUTE * choice.cost &&
        (!best || choice.clears / choice.cost > best.clears / best.cost)
          ? choice
          : best,
      null,
    )
    const repair = this.readiest(choices)
    if (
      repair &&
      repair.chance > LEAST_CLEARED_PER_MINUTE * repair.cost &&
      (!test || repair.chance / repair.cost > test.clears / test.cost)
    )
      return this.repairAdvice(belief, choices, repair, bench)
    return test ? { kind: 'test', test: this.engine.tests[test.test]?.id ?? '', why: this.why(choices, test) } : null
  }

  /** The repair with most chance a minute, of those likely enough to be made at all. */
  private readiest(choices: Choices): Choices['repairs'][number] | null {
    const worth = ({ group, chance, cost }: Choices['repairs'][number]): boolean =>
      chance > LEAST_MENDED &&
      (cost <= LONG_MINUTES || chance >= WORTH_PARTS || this.costs.groups[group]?.suspect.remedy.parts.length === 0)
    return choices.repairs.reduce<Choices['repairs'][number] | null>(
      (best, choice) =>
        worth(choice) && (!best || choice.chance / choice.cost > best.chance / best.cost) ? choice : best,
      null,
    )
  }

  /** Surely something is wrong, and no test saves its minutes: what moves most of the chances a minute, or mends most of them. */
  private narrow(belief: Belief, choices: Choices, bench: BenchNow): Advice | null {
    const { groupOf, groups } = this.costs
    let [best, bestRate]: [TestChoice | null, number] = [null, 0]
    for (const choice of choices.tests) {
      const after = choices.after(choice.test).map((chances) => {
        const ofGroups = new Float64Array(groups.length)
        for (const [suspect, chance] of chances.entries())
          ofGroups[groupOf[suspect] as number] = (ofGroups[groupOf[suspect] as number] as number) + chance
        return ofGroups
      })
      let moved = 0
      for (let group = 0; group < groups.length; group++) {
        const now = after.reduce(
          (sum, of, outcome) => sum + (choice.outcomes[outcome] as number) * (of[group] as number),
          0,
        )
        moved +=
          after.reduce(
            (sum, of, outcome) => sum + (choice.outcomes[outcome] as number) * Math.abs((of[group] as number) - now),
            0,
          ) / 2
      }
      if (moved >= LEAST_MOVED && moved / choice.cost > bestRate) [best, bestRate] = [choice, moved / choice.cost]
    }
    const repair = this.readiest(choices)
    if (repair && repair.chance / repair.cost > bestRate) return this.repairAdvice(belief, choices, repair, bench)
    return best ? { kind: 'test', test: this.engine.tests[best.test]?.id ?? '', why: this.why(choices, best) } : null
  }

  /**
   * The look that spares most minutes before a repair: mending what is sound wastes them, and so does leaving what is
   * not; a test is worth what it takes off that loss beyond its own cost. What the repair takes off anyway costs the
   * look something only where it ends with no repair.
   */
  private lookFirst(
    choices: Choices,
    group: number,
    repairMinutes: number,
    offAfter: ReadonlySet<string>,
  ): TestChoice | null {
    const { suspects } = this.costs.groups[group] as BenchCosts['groups'][number]
    const loss = (chance: number): number => repairMinutes * Math.min(chance, 1 - chance)
    let [best, most]: [TestChoice | null, number] = [null, 0]
    for (const choice of choices.tests) {
      if (choice.cost >= repairMinutes) continue
      const after = choices
        .after(choice.test)
        .map((chances) => 1 - suspects.reduce((rest, index) => rest * (1 - (chances[index] as number)), 1))
      const expected = (of: (chance: number) => number): number =>
        after.reduce((sum, chance, outcome) => sum + (choice.outcomes[outcome] as number) * of(chance), 0)
      const mended = expected((chance) => (chance >= REPAIR_CHANCE ? 1 : 0))
      const cost = mended * this.costs.test(choice.test, offAfter).total + (1 - mended) * choice.cost
      const spared = loss(expected((chance) => chance)) - expected(loss) - cost
      if (spared > most) [best, most] = [choice, spared]
    }
    return best
  }

  /** Mend it; but look first where that spares minutes. */
  private repairAdvice(
    belief: Belief,
    choices: Choices,
    { group, chance, cost }: Choices['repairs'][number],
    bench: BenchNow,
  ): Advice {
    const { suspects, suspect } = this.costs.groups[group] as BenchCosts['groups'][number]
    const look = this.lookFirst(choices, group, cost, this.costs.repair(group, new Set(bench.off ?? [])).offAfter)
    if (look) return { kind: 'test', test: this.engine.tests[look.test]?.id ?? '', why: this.why(choices, look) }
    const likeliest = suspects.reduce(
      (most, index) => ((belief.marginals[index] as number) > (belief.marginals[most] as number) ? index : most),
      suspects[0] as number,
    )
    return {
      kind: 'repair',
      suspect: this.engine.suspects[likeliest]?.id ?? '',
      why: `${chance < 0.5 ? 'Perhaps' : 'Probably'} this (${percent(chance)}), and no test saves more than it costs. ${suspect.remedy.name}: ${Math.round(cost)} min with the retest.`,
    }
  }

  /** The suspect the test moves most, and where two of its outcomes would take it. */
  why(choices: Choices, { test, outcomes }: TestChoice): string {
    const after = choices.after(test)
    const before = this.engine.suspects.map((_, suspect) =>
      after.reduce((sum, chances, outcome) => sum + (outcomes[outcome] as number) * (chances[suspect] as number), 0),
    )
    const seen = [...after.keys()].filter((outcome) => (outcomes[outcome] as number) > 0.02)
    let [moved, most] = [-1, 0]
    for (const [suspect, now] of before.entries()) {
      if (suspect === this.engine.unlisted) continue
      const change = seen.reduce(
        (sum, outcome) => sum + (outcomes[outcome] as number) * Math.abs((after[outcome]?.[suspect] as number) - now),
        0,
      )
      if (change > most) [moved, most] = [suspect, change]
    }
    const suspect = this.engine.suspects[moved]
    if (!suspect || seen.length < 2) return 'It is the cheapest way to be surer that nothing is left.'
    const chanceAfter = (outcome: number): number => after[outcome]?.[moved] as number
    // An outcome that hardly ever comes explains no test.
    const drawn = (outcome: number): number =>
      (outcomes[outcome] as number) * (chanceAfter(outcome) - (before[moved] as number))
    const up = seen.reduce((best, outcome) => (drawn(outcome) > drawn(best) ? outcome : best))
    const down = seen.reduce((best, outcome) => (drawn(outcome) < drawn(best) ? outcome : best))
    const { test: known } = this.engine.tests[test] as CompiledEngine['tests'][number]
    // The look ahead leaves the least likely out: what it says is how far the odds go up or down from where they stand.
    const from = choices.now[moved] as number
    const to = (outcome: number): number => shifted(from, chanceAfter(outcome), before[moved] as number)
    const named = (outcome: number): string => `“${known.outcomes[outcome]?.name ?? ''}”`
    return `${named(up)} would take “${suspect.name}” from ${percent(from)} to ${percent(to(up))}, ${named(down)} to ${percent(to(down))}.`
  }
}

/** A chance whose odds change as much as those of another did. */
function shifted(chance: number, after: number, before: number): number {
  const odds = ((chance / (1 - chance)) * (after / (1 - after))) / (before / (1 - before))
  return Number.isNaN(odds) ? after : odds === Number.POSITIVE_INFINITY ? 1 : odds / (1 + odds)
}

export function percent(chance: number): string {
  return chance > 0 && chance < 0.01
    ? 'under 1 %'
    : chance > 0.99 && chance < 1
      ? 'over 99 %'
      : `${Math.round(100 * chance)} %`
}
