import type { Equipment } from '../../knowledge/knowledge-schema'
import type { BenchAct } from '../acts/acts-of'
import type { BenchCosts } from '../acts/bench-costs'
import type { Noticed } from '../acts/noticed'
import type { BenchTest } from '../places/bench-tests'
import type { Belief } from '../belief/belief'
import type { CompiledEngine } from '../compiled-engine'
import { inMinutes, percent, sidesInWords } from './in-words'
import { DEAR_MINUTES, REPAIR_CHANCE, SensibleRepairs, SURE_CHANCE, type Repair } from './sensible-repairs'
import { askable, valueActs, type ActChoice, type Withheld } from './value-of-acts'
import { ATTENTION_MINUTES, Worlds } from './worlds'

export interface BenchNow {
  /** Parts that are off. */
  readonly off?: readonly string[]
  /** Acts or single observations that could not be done, or are not wanted. */
  readonly refused?: readonly string[]
  /** Confirmed suspects that are to stay as they are: left undone, or declined by the owner. */
  readonly leave?: readonly string[]
}

export type Advice =
  | { readonly kind: 'act'; readonly act: string; readonly why: string }
  | {
      readonly kind: 'repair'
      readonly suspect: string
      /** Mended at one go with it: places alike, and what lies open anyway. */
      readonly also: readonly string[]
      readonly why: string
    }
  | {
      readonly kind: 'done'
      /** The trial has passed; otherwise nothing that can be done makes it surer. */
      readonly passed: boolean
      readonly why: string
      /** What may still be there, and what it would cost to look. */
      readonly left: ReadonlyArray<{ readonly suspect: string; readonly chance: number; readonly minutes: number }>
    }

/** Below this chance of any fault that would be noticed the search ends, once the trial has passed; judged, and known no better than to a hundredth. */
export const STOP_CHANCE = 0.06
/** From this chance on a dear repair is likely enough to be looked at by itself. */
const PROBABLE = 0.7
/** A repair of so many minutes waits for a look at what it mends, if that costs no more than this share of it. */
const DEAR_UNSEEN = 30
const SHORT_LOOK = 0.25
/** Where nothing can be asked any more, a repair this likely is still worth its minutes. */
const LAST_CHANCE = 0.05
/** So likely hidden still, it is looked for before what was found beside the way is mended. */
const STILL_HIDDEN = 0.8
/** From this chance on something that what was found speaks for is searched for before all else. */
const UNEXPLAINED = 0.15
/** So much of what can be noted at the trial has to be noted for it to count as made. */
const TRIED_SHARE = 0.3
/** A thing less likely is not looked for by itself. */
const LOOKED_FOR = 0.06
/** A look for one thing takes away so much of what is open about it. */
const TELLS_SHARE = 0.2
/** Of an act that saves most, another has to save so much to be taken for being cheaper. */
const HALF_AS_GOOD = 0.5
/** … and cheaper is what costs no more than this of it, the attention counted. */
const CHEAPER = 0.75
/** A place alike is mended with it from this share of its chance on. */
const ALIKE_SHARE = 0.5
const ALIKE_CHANCE = 0.15
/** … and with what was found from this chance on. */
const ALIKE_FOUND = 0.4
/** Of what may be left so many are named. */
const NAMED_LEFT = 4
const NAMED_CHANCE = 0.01
/** A slip of the reckoning in minutes: less is not worth a question. */
const WORTH_MINUTES = 0.1

export interface Choices {
  readonly acts: readonly ActChoice[]
  readonly withheld: readonly Withheld[]
  readonly worlds: Worlds
}

const aMinute = ({ act, told }: { readonly act: ActChoice; readonly told: number }): number =>
  told / (act.cost + ATTENTION_MINUTES)

/** What to do next with one engine, and why: an act, a repair, or nothing more. */
export class Adviser {
  private readonly repairs: SensibleRepairs
  private readonly wellKnown = new Map<number, ReadonlyMap<number, number>>()

  constructor(
    private readonly engine: CompiledEngine,
    private readonly costs: BenchCosts,
    private readonly equipment: ReadonlySet<Equipment>,
    private readonly noticed: Noticed,
  ) {
    this.repairs = new SensibleRepairs(engine, costs)
  }

  /** Every act that can be done now with what it is worth, best first. */
  choose(belief: Belief, bench: BenchNow): Choices {
    // While it does not do what it should, only what that speaks for is searched for behind what has to come off.
    const implied = belief.impliedSuspects
    const unexplained =
      belief.history.findings.length > 0 && !this.trialPassed(belief) && this.hiddenChance(belief) > UNEXPLAINED
    const made = new Set([...this.costs.acts.keys()].filter((act) => this.justMade(belief, act)))
    const worldsOf = (counts: (suspect: number) => boolean): Worlds =>
      new Worlds(belief, this.costs, (suspect, variant) => this.noticed(suspect, variant) && counts(suspect), made)
    const everything = worldsOf(() => true)
    const worlds = unexplained ? worldsOf((suspect) => implied[suspect] === true) : everything
    const off = new Set(bench.off ?? [])
    const { tests, withheld } = askable(belief, this.costs, this.runsNow(belief, worlds), {
      off,
      refused: new Set(bench.refused ?? []),
      equipment: this.equipment,
    })
    const ofIt = { acts: this.valued(worlds, tests, off), withheld, worlds }
    // Nothing leads on any more to what it came with: then whatever anybody would notice may as well be seen.
    return !unexplained || this.leadsOn(belief, ofIt, off)
      ? ofIt
      : { acts: this.valued(everything, tests, off), withheld, worlds: everything }
  }

  private valued(worlds: Worlds, tests: ReadonlySet<number>, off: ReadonlySet<string>): readonly ActChoice[] {
    return valueActs(worlds, tests, off).sort((one, other) => other.value - one.value)
  }

  /** Whether there is an act, a look or a repair that these worlds ask for. */
  private leadsOn(belief: Belief, choices: Choices, off: ReadonlySet<string>): boolean {
    const { worlds } = choices
    if (this.pick(belief, choices) || this.nextLook(belief, choices, off)) return true
    return this.repairs.likely(belief, worlds.groupChances(worlds.weights), off) !== null
  }

  private mendedSomething({ history }: Belief): boolean {
    return history.events.some(({ kind }) => kind === 'repaired')
  }

  /** Chance that something hidden is there that what was found speaks for, besides what is mended anyway. */
  private hiddenChance(belief: Belief, mended: readonly string[] = []): number {
    const { suspects, unlisted } = this.engine
    const given = new Set(belief.given)
    const hidden = belief.impliedSuspects.flatMap((so, index) =>
      so && !given.has(index) && index !== unlisted && !mended.includes(suspects[index]?.id ?? '') ? [index] : [],
    )
    return belief.chanceOfAny(new Set(hidden))
  }

  /** Whether what can only be judged on a motor that turns can be judged: as last seen in this state, or as is to be expected. */
  private runsNow({ seenHere, state }: Belief, worlds: Worlds): boolean {
    const seen = seenHere.filter((finding) => {
      const { test } = this.engine.tests[this.engine.indexOfTest(finding.test)] as BenchTest
      return finding.state === state && test.reading.kind === 'motion' && test.reach === 'as-it-stands'
    })
    return seen.length > 0
      ? seen.some(({ outcome }) => outcome === 'runs' || outcome === 'falters')
      : worlds.likelyTurns
  }

  /** Chance that something is left, hidden, that one more trial would show: signs looked for in this state already have shown, or do not. */
  leftToNotice(belief: Belief): number {
    const { engine, trial } = this
    const { seenHere, state } = belief
    const given = new Set(belief.given)
    const noted = new Set(seenHere.flatMap((finding) => (finding.state === state ? [finding.test] : [])))
    const observations = (trial === null ? [] : (this.costs.acts[trial] as BenchAct).observations).filter((index) => {
      const { id, test } = engine.tests[index] as BenchTest
      return test.reading.kind !== 'signs' || !noted.has(id)
    })
    return belief.chanceToNotice((suspect, variant) => {
      if (given.has(suspect)) return 0
      const well = this.wellWith(suspect, variant)
      return 1 - observations.reduce((rest, index) => rest * (well.get(index) as number), 1)
    })
  }

  /** By observation of the trial: how often it is as it should with one thing wrong, in times of how often it is with nothing wrong. */
  private wellWith(suspect: number, variant: number): ReadonlyMap<number, number> {
    const { engine, wellKnown, trial } = this
    const key = suspect * (engine.variants.length + 1) + variant + 1
    const known = wellKnown.get(key)
    if (known) return known
    const sound = engine.circuitRow([], 0)
    const row = variant < 0 ? sound : engine.circuitRow([variant], 1)
    const well = new Map(
      (trial === null ? [] : (this.costs.acts[trial] as BenchAct).observations).map((index) => {
        const count = (engine.tests[index] as BenchTest).test.outcomes.length
        const [wrong, right] = [new Float64Array(count), new Float64Array(count)]
        engine.chances(index, [suspect], row, wrong)
        engine.chances(index, [], sound, right)
        return [index, Math.min(1, (wrong[0] as number) / (right[0] as number))] as const
      }),
    )
    wellKnown.set(key, well)
    return well
  }

  /** Index of the act that tries the machine whole; null where there is nothing to do it with. */
  get trial(): number | null {
    const test = this.engine.tests.findIndex(
      ({ test: { proves, reading, equipment } }) =>
        proves && reading.kind === 'motion' && equipment.every((piece) => this.equipment.has(piece)),
    )
    return test < 0 ? null : (this.costs.actOf[test] as number)
  }

  /** Whether the machine was tried in this state and everything noted was as it should be. */
  trialPassed({ seenHere, state }: Belief): boolean {
    const proofs = seenHere.flatMap((finding) => {
      const { test } = this.engine.tests[this.engine.indexOfTest(finding.test)] as BenchTest
      return finding.state === state && test.proves ? [{ test, outcome: finding.outcome }] : []
    })
    return (
      proofs.some(({ test }) => test.reading.kind === 'motion') &&
      proofs.every(({ test, outcome }) => test.outcomes[0]?.id === outcome)
    )
  }

  /** The one thing to do next, and why. */
  advise(belief: Belief, choices: Choices, bench: BenchNow): Advice {
    const { engine, costs } = this
    const mend = this.mendFound(belief, bench)
    // What was found beside the way does not explain what it came with: that is looked for first, and all mended together.
    const onward = mend && this.hiddenChance(belief, mend.also) > STILL_HIDDEN ? this.pick(belief, choices) : null
    if (onward && onward.value > onward.cost)
      return { kind: 'act', act: (costs.acts[onward.act] as BenchAct).id, why: sidesInWords(choices.worlds, onward) }
    if (mend) return mend
    const retest = this.retest(belief, bench)
    if (retest) return retest
    const left = this.leftToNotice(belief)
    const passed = this.trialPassed(belief)
    // Somebody complained, nothing was mended, and it runs: then what he meant has not been found.
    const answered = !engine.circumstances.has('complained-of') || this.mendedSomething(belief)
    if (passed && left < STOP_CHANCE && answered) return this.done(belief, choices.worlds, true)
    const best = this.pick(belief, choices)
    const off = new Set(bench.off ?? [])
    const chances = choices.worlds.groupChances(choices.worlds.weights)
    const repair = this.repairs.readiest(belief, chances, off)
    const check = repair ? this.lookBefore(belief, choices, repair, off) : null
    if (check && repair)
      return { kind: 'act', act: (costs.acts[check.act] as BenchAct).id, why: this.beforeIt(repair.group, off) }
    if (repair && repair.chance >= SURE_CHANCE && !(best && best.value > best.cost))
      return this.repair(belief, repair, off)
    if (best)
      return { kind: 'act', act: (costs.acts[best.act] as BenchAct).id, why: sidesInWords(choices.worlds, best) }
    const look = passed ? null : this.nextLook(belief, choices, off)
    if (look)
      return { kind: 'act', act: (costs.acts[look.act] as BenchAct).id, why: sidesInWords(choices.worlds, look) }
    const likely = this.repairs.likely(belief, chances, off)
    if (likely) return this.repair(belief, likely, off)
    const trial = this.trial
    const tried = !choices.acts.some(({ act }) => act === trial) || this.justMade(belief, trial ?? -1)
    if (passed && (tried || left < STOP_CHANCE)) return this.done(belief, choices.worlds, true)
    if (!tried && trial !== null && !bench.refused?.includes((costs.acts[trial] as BenchAct).id))
      return {
        kind: 'act',
        act: (costs.acts[trial] as BenchAct).id,
        why: `No look saves its minutes any more; that something is left has a chance of ${percent(left)}. One run tells.`,
      }
    // Before what is hardly so is mended, what was seen good and is likelier all the same: a look can miss it.
    const last = this.repairs.readiest(belief, chances, off, { seenGood: true })
    return last && last.chance >= LAST_CHANCE
      ? this.repair(belief, last, off)
      : this.done(belief, choices.worlds, false)
  }

  /** What was found is mended first, the cheapest way in first, and with it what lies open then. */
  private mendFound(belief: Belief, bench: BenchNow): Extract<Advice, { kind: 'repair' }> | null {
    const { engine, costs } = this
    const left = new Set(bench.leave ?? [])
    const off = new Set(bench.off ?? [])
    const found = belief.given
      .filter((index) => !left.has(engine.suspects[index]?.id ?? ''))
      .map((index) => ({ index, price: costs.repair(costs.groupOf[index] as number, off) }))
      .sort((one, other) => one.price.total - other.price.total || one.index - other.index)
    const [first, ...others] = found
    if (!first) return null
    const open = new Set([...off, ...first.price.parts])
    const also = others.filter(({ index }) => costs.repair(costs.groupOf[index] as number, open).parts.length === 0)
    const alike = this.alikeTo(
      belief,
      [first, ...also].map(({ index }) => index),
      open,
    )
    const suspect = engine.suspects[first.index] as (typeof engine.suspects)[number]
    return {
      kind: 'repair',
      suspect: suspect.id,
      also: [...also.map(({ index }) => index), ...alike].map((index) => engine.suspects[index]?.id ?? ''),
      why:
        others.length === 0
          ? `It was found: ${suspect.name}. Mend it${alike.length > 0 ? ', and the place like it at the same go' : ''}, then one run.`
          : `${found.length} things were found. ${also.length > 0 ? `With this, ${also.length} more ${also.length === 1 ? 'lies' : 'lie'} open. ` : ''}All are mended before the next run.`,
    }
  }

  /** What most likely has the same as something that was found, was not seen itself, and is soon mended with it. */
  private alikeTo(belief: Belief, found: readonly number[], open: ReadonlySet<string>): number[] {
    const { costs } = this
    const { suspects } = this.engine
    const given = new Set(belief.given)
    const faults = new Set(found.flatMap((index) => (suspects[index]?.fault.alike ? [suspects[index].fault.id] : [])))
    return [...suspects.keys()].filter(
      (index) =>
        !given.has(index) &&
        faults.has(suspects[index]?.fault.id ?? '') &&
        (belief.marginals[index] as number) >= ALIKE_FOUND &&
        costs.repair(costs.groupOf[index] as number, open).total < DEAR_MINUTES &&
        !this.repairs.seenGood(belief, index, -1),
    )
  }

  /** Nothing has been tried since the last repair: one run says whether that was it, and whether it was all. */
  private retest(belief: Belief, bench: BenchNow): Advice | null {
    const { events } = belief.history
    const { trial, costs } = this
    if (
      trial === null ||
      !events.some((event) => event.kind === 'repaired' && event.state === belief.state) ||
      belief.seenHere.some((finding) => finding.state === belief.state)
    )
      return null
    const { id } = costs.acts[trial] as BenchAct
    return bench.refused?.includes(id)
      ? null
      : { kind: 'act', act: id, why: 'It was mended: one run says whether that was it, and whether it was all.' }
  }

  /** What saves most; but something cheaper, or that takes nothing off, where it saves half as much. */
  private pick(belief: Belief, { acts }: Choices): ActChoice | null {
    const open = acts.filter(({ act }) => !this.justMade(belief, act))
    const [best] = open
    if (!best || best.value <= WORTH_MINUTES) return null
    return open
      .filter(
        ({ value, cost }) =>
          value >= HALF_AS_GOOD * best.value &&
          value > WORTH_MINUTES &&
          cost + ATTENTION_MINUTES <= CHEAPER * (best.cost + ATTENTION_MINUTES),
      )
      .reduce((cheapest, act) => (act.cost < cheapest.cost ? act : cheapest), best)
  }

  /** No act saves minutes beyond those of looking for one thing after the other: then that is done, the likeliest a minute first. */
  private nextLook(belief: Belief, { acts, worlds }: Choices, off: ReadonlySet<string>): ActChoice | null {
    const chances = worlds.groupChances(worlds.weights)
    const open = acts.filter(({ act }) => !this.justMade(belief, act))
    // A look dearer than mending the thing comes after all that are not.
    let dear: ActChoice | null = null
    for (const { group } of worlds.order(worlds.weights, off)) {
      const chance = chances[group] as number
      if (chance < LOOKED_FOR) return dear
      const unknown = -chance * Math.log(chance) - (1 - chance) * Math.log(1 - chance)
      // Of the looks that tell of it, the one that tells most a minute.
      const [look = null] = open
        .map((act) => ({
          act,
          told: Math.max(0, ...act.questions.map(({ ofGroup }) => ofGroup[group] as number)),
        }))
        .filter(({ told }) => told >= TELLS_SHARE * unknown)
        .sort((one, other) => aMinute(other) - aMinute(one))
        .map(({ act }) => act)
      // What is so likely that looking costs more than mending it for nothing is mended.
      if (look && look.cost < this.costs.repair(group, off).total) return look
      if (chance < REPAIR_CHANCE) dear ??= look
      if (chance >= SURE_CHANCE) return null
    }
    return dear
  }

  /** Whether an act was made in this state: what was not noted at it then was not to be noted. */
  private justMade({ seenHere, state }: Belief, act: number): boolean {
    const { observations } = this.costs.acts[act] as BenchAct
    const made = new Set(
      seenHere.flatMap((finding) => (finding.state === state ? [this.engine.indexOfTest(finding.test)] : [])),
    )
    const noted = observations.filter((test) => made.has(test))
    // A trial of which sheets or a word have told little is not made yet.
    if (act === this.trial) return noted.length >= TRIED_SHARE * observations.length
    return noted.length >= Math.min(2, observations.length) || noted.some((test) => test === observations[0])
  }

  /** A dear repair of what nobody has seen waits for a short look or measurement that shows it: sure is not seen. */
  private lookBefore(
    belief: Belief,
    { acts }: Choices,
    { group, chance }: Repair,
    off: ReadonlySet<string>,
  ): ActChoice | null {
    const { suspects } = this.costs.groups[group] as BenchCosts['groups'][number]
    const { total } = this.costs.repair(group, off)
    if (chance < PROBABLE || total < DEAR_UNSEEN || suspects.some((index) => belief.given.includes(index))) return null
    return acts
      .filter(
        (look) =>
          look.cost <= SHORT_LOOK * total &&
          !this.justMade(belief, look.act) &&
          look.questions.some(({ test }) => suspects.some((index) => this.repairs.shows(test, index))),
      )
      .reduce<ActChoice | null>((cheapest, look) => (cheapest && cheapest.cost <= look.cost ? cheapest : look), null)
  }

  private beforeIt(group: number, off: ReadonlySet<string>): string {
    const { suspect } = this.costs.groups[group] as BenchCosts['groups'][number]
    return `Seen before it is mended: ${suspect.name}. ${suspect.remedy.name} takes ${inMinutes(this.costs.repair(group, off).total)}.`
  }

  /** Mend it, and at the same go where places alike are as likely. */
  private repair(belief: Belief, { group, chance }: Repair, off: ReadonlySet<string>): Advice {
    const { engine, costs } = this
    const likeliest = (suspects: readonly number[]): (typeof engine.suspects)[number] =>
      engine.suspects[
        suspects.reduce((most, index) =>
          (belief.marginals[index] as number) > (belief.marginals[most] as number) ? index : most,
        )
      ] as (typeof engine.suspects)[number]
    const { suspect, suspects } = costs.groups[group] as (typeof costs.groups)[number]
    const also = costs.groups.flatMap((other, index) => {
      if (
        index === group ||
        other.suspect.remedy.id !== suspect.remedy.id ||
        other.suspect.place.role !== suspect.place.role
      )
        return []
      const theirs = belief.chanceOfAny(new Set(other.suspects))
      return theirs >= ALIKE_CHANCE && theirs >= ALIKE_SHARE * chance ? [likeliest(other.suspects).id] : []
    })
    const reason = this.repairs.seenGoodSince(belief, group)
      ? `It was seen good, but a look can miss it, and nothing likelier is left to mend (${percent(chance)}).`
      : `${chance < 0.5 ? 'Perhaps' : 'Probably'} this (${percent(chance)}), and no look saves more than it costs.`
    return {
      kind: 'repair',
      suspect: likeliest(suspects).id,
      also,
      why: `${reason} ${suspect.remedy.name}: ${inMinutes(costs.repair(group, off).total)} with the retest.${also.length > 0 ? ' The place like it at the same go.' : ''}`,
    }
  }

  private done(belief: Belief, worlds: Worlds, passed: boolean): Advice {
    const { engine, costs } = this
    const given = new Set(belief.given)
    const { marginals } = belief
    const left = [...marginals.keys()]
      .filter((index) => !given.has(index) && index !== engine.unlisted && (marginals[index] as number) >= NAMED_CHANCE)
      .sort((one, other) => (marginals[other] as number) - (marginals[one] as number))
      .slice(0, NAMED_LEFT)
      .map((index) => {
        const { act, minutes, goal } = worlds.checks[costs.groupOf[index] as number] as (typeof worlds.checks)[number]
        return {
          suspect: engine.suspects[index]?.id ?? '',
          chance: marginals[index] as number,
          minutes: act === null ? minutes + costs.wayIn(goal, new Set()).minutes : costs.act(act, new Set()).total,
        }
      })
    const noticed = this.leftToNotice(belief)
    return {
      kind: 'done',
      passed,
      left,
      why: passed
        ? `The trial has passed. That anything is left that somebody would notice has a chance of ${percent(noticed)}.`
        : `Nothing that can be done makes it surer; that something is left has a chance of ${percent(noticed)}. Repeat what surprised, or say what you see.`,
    }
  }
}
