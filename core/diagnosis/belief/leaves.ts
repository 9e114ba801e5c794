import type { Evaluation, Evidence } from './evidence'

/**
 * A share of all sets of faults: those with this core, and besides it any of what is still open. What is open hangs
 * on the core alone, each for itself: its chance is exact, however many there are.
 */
export interface Leaf {
  /** By slot its option, −1 where the suspect is absent or not yet decided. */
  readonly core: Int16Array
  /** By slot: whether it is decided. */
  readonly decided: Uint8Array
  /** By option: whether it is still open; those of decided slots are not. */
  readonly open: Uint8Array
  readonly evaluation: Evaluation
  /** Weight of the core alone, as natural logarithm. */
  readonly logCore: number
}

/** How far the sets are taken apart: so many cores are worked out at most, so many shares made, and none that could change less than a share; `checked` on full sets drawn from them. */
export interface Effort {
  readonly cores: number
  readonly leaves: number
  readonly least: number
  readonly checked: boolean
}

/** A leaf with its chance, and that of what of it arrived with nothing wrong: a complaint makes that less likely. */
export interface BelievedLeaf extends Leaf {
  readonly chance: number
  readonly arrivedSound: number
}

/** So many things one after the other are thought of, and none that weighs less. */
const MOST_STEPS = 6
const LEAST_PICKED = 0.05
/** In shares heavier than this of all, as natural logarithm, what is open is told apart in the end. */
const HEAVY_LOG = -4
/** A core not worked out is doubted by at least this much. */
const ESTIMATED = 0.05
/** From this many times on what an option makes of the findings is called an explanation. */
const EXPLAINS = 1.5
/** What the circuit may show together with something else though it shows nothing alone. */
const TOGETHER = 0.15

/**
 * Takes all sets of faults apart, the heaviest share first: a suspect that explains what was found is decided either
 * way, until what is open no longer competes for the same findings. Every set is in exactly one of the leaves.
 *
 * @param evidence the findings
 * @param effort how far
 */
export function leavesOf(evidence: Evidence, effort: Effort): Leaf[] {
  const { slots, options, firstOf } = evidence
  const core = new Int16Array(slots.slots.length).fill(-1)
  let logCore = 0
  for (const [slot, { given, options: ways }] of slots.slots.entries()) {
    if (!given) continue
    // What was seen is there: in the commonest of its ways, unless a split takes another.
    const best = ways.reduce((most, way, at) => (way.weight > (ways[most]?.weight ?? 0) ? at : most), 0)
    core[slot] = (firstOf[slot] as number) + best
    logCore += Math.log((ways[best] as (typeof ways)[number]).weight)
  }
  const evaluation = evidence.evaluate(core)
  const root: Leaf = {
    core,
    decided: new Uint8Array(core.length),
    open: new Uint8Array(options.length).fill(1),
    evaluation,
    logCore: logCore + evaluation.log,
  }
  interface Share {
    readonly leaf: Leaf
    /** Weight, and how much of it hangs on one open option, as natural logarithms: the first estimates are many times too heavy. */
    readonly log: number
    readonly doubt: number
    readonly option: number
  }
  const found: Share[] = []
  const add = (leaf: Leaf): void => {
    const { log, option, score } = weighed(evidence, leaf)
    found.push({ leaf, log, option, doubt: log + Math.log(leaf.evaluation.exact ? score : Math.max(score, ESTIMATED)) })
  }
  const take = (): Share | undefined => {
    const best = found.reduce(
      (most, { doubt }, at) => (doubt > (found[most]?.doubt ?? Number.NEGATIVE_INFINITY) ? at : most),
      0,
    )
    const doubt = found[best]?.doubt ?? Number.NEGATIVE_INFINITY
    // More than this share of all there is, told against the doubt itself.
    const total = found.reduce((sum, { log }) => sum + Math.exp(Math.min(700, log - doubt)), 0)
    return effort.least * total >= 1 || doubt === Number.NEGATIVE_INFINITY ? undefined : found.splice(best, 1)[0]
  }
  add(root)
  for (let cores = 1; found.length < effort.leaves;) {
    const share = take()
    if (!share) break
    const { leaf, option } = share
    if (!leaf.evaluation.exact && cores < effort.cores) {
      cores++
      const exact = evidence.evaluate(leaf.core)
      add({ ...leaf, evaluation: exact, logCore: leaf.logCore - leaf.evaluation.log + exact.log })
    } else if (option < 0) {
      // Nothing competes, and there is no time to work it out: it stays as estimated.
      found.push({ ...share, doubt: Number.NEGATIVE_INFINITY })
    } else split(evidence, leaf, option).forEach(add)
  }
  const heaviest = found.reduce((most, { log }) => Math.max(most, log), Number.NEGATIVE_INFINITY)
  const total = heaviest + Math.log(found.reduce((sum, { log }) => sum + Math.exp(log - heaviest), 0))
  return found.flatMap(({ leaf, log }) => takenApart(evidence, leaf, log > total + HEAVY_LOG))
}

/**
 * What is still open in a leaf and explains the same findings, told apart: none of it, or one of it first, the others
 * then as likely as before anything was found. What one thing alone explains stays open.
 *
 * @param heavy whether it matters which of them it is
 */
function takenApart(evidence: Evidence, leaf: Leaf, heavy: boolean): Leaf[] {
  const explaining = explainersOf(evidence, leaf)
  if (explaining.length < 2) return [leaf]
  const calm = (entry: Leaf): Leaf => ({
    ...entry,
    evaluation: { ...entry.evaluation, ratios: entry.evaluation.ratios.map((ratio) => Math.min(1, ratio)) },
  })
  if (!heavy) return [calm(leaf)]
  const leaves: Leaf[] = []
  let rest = leaf
  for (const { options } of explaining) {
    for (const option of options) {
      const [without, withIt] = split(evidence, rest, option)
      rest = without
      leaves.push(calm(withIt))
    }
  }
  return [rest, ...leaves]
}

/** By slot that explains what was found, the strongest first: its open options that do, and what they and it weigh. */
function explainersOf(
  evidence: Evidence,
  leaf: Leaf,
): ReadonlyArray<{ readonly options: readonly number[]; readonly weight: number }> {
  const { firstOf } = evidence
  const { ratios } = leaf.evaluation
  const found: Array<{ options: number[]; weight: number }> = []
  for (let slot = 0; slot < leaf.core.length; slot++) {
    if (leaf.decided[slot] === 1) continue
    const base = leaf.core[slot] as number
    let here: { options: number[]; weight: number } | null = null
    for (let option = firstOf[slot] as number; option < (firstOf[slot + 1] as number); option++) {
      if (leaf.open[option] !== 1 || option === base || (ratios[option] as number) <= EXPLAINS) continue
      const weight = weightIn(evidence, leaf, option)
      here ??= { options: [], weight: 0 }
      here.options.push(option)
      here.weight += weight
    }
    if (here) found.push(here)
  }
  return found.sort((one, other) => other.weight - one.weight)
}

/** Those sets of a leaf without one option, and those with it. */
function split(evidence: Evidence, leaf: Leaf, option: number): readonly [without: Leaf, withIt: Leaf] {
  const { options, slotOf } = evidence
  const slot = slotOf[option] as number
  const open = leaf.open.slice()
  open[option] = 0
  const core = leaf.core.slice()
  const before = core[slot] as number
  core[slot] = option
  const decided = leaf.decided.slice()
  decided[slot] = 1
  const evaluation = evidence.estimate(leaf.evaluation, option)
  const odds =
    (options[option] as (typeof options)[number]).weight /
    (before < 0 ? 1 : (options[before] as (typeof options)[number]).weight)
  return [
    { ...leaf, open },
    {
      core,
      decided,
      open: leaf.open,
      evaluation,
      logCore: leaf.logCore - leaf.evaluation.log + evaluation.log + Math.log(odds),
    },
  ]
}

/** What an open option weighs in a leaf against the core's own way of that suspect. */
export function weightIn({ options, slotOf }: Evidence, { core, evaluation }: Leaf, option: number): number {
  const base = core[slotOf[option] as number] as number
  if (base === option) return 1
  return (
    ((options[option] as (typeof options)[number]).weight /
      (base < 0 ? 1 : (options[base] as (typeof options)[number]).weight)) *
    (evaluation.ratios[option] as number)
  )
}

/** By slot: what all its ways weigh together against the core's own, each by a share of it; 1 where it is decided. */
export function slotFactor(
  evidence: Evidence,
  leaf: Leaf,
  slot: number,
  share: (option: number) => number = () => 1,
): number {
  if (leaf.decided[slot] === 1) return 1
  const base = leaf.core[slot] as number
  let sum = base < 0 ? 1 : share(base)
  for (let option = evidence.firstOf[slot] as number; option < (evidence.firstOf[slot + 1] as number); option++)
    if (option !== base && leaf.open[option] === 1) sum += share(option) * weightIn(evidence, leaf, option)
  return sum
}

const known = new WeakMap<Leaf, Float64Array>()

/** By slot: what all its ways weigh together; worked out once for a leaf, however many sets are drawn from it. */
export function slotFactors(evidence: Evidence, leaf: Leaf): Float64Array {
  const found = known.get(leaf) ?? Float64Array.from(leaf.core, (_, slot) => slotFactor(evidence, leaf, slot))
  known.set(leaf, found)
  return found
}

/**
 * Of a leaf its weight, as natural logarithm; the open option that explains most, −1 where none does; and how much of
 * the leaf hangs on that. What was found is explained one thing after the other, the likeliest first: of all that
 * explain the same, any one will do.
 */
function weighed(
  evidence: Evidence,
  leaf: Leaf,
): { readonly log: number; readonly option: number; readonly score: number } {
  const { firstOf, slotOf, options } = evidence
  const open: number[] = []
  const odds = new Float64Array(options.length)
  for (let at = 0; at < options.length; at++) {
    const slot = slotOf[at] as number
    if (leaf.open[at] !== 1 || leaf.decided[slot] === 1 || leaf.core[slot] === at) continue
    open.push(at)
    odds[at] = weightIn(evidence, leaf, at) / (leaf.evaluation.ratios[at] as number)
  }
  let [log, option, best] = [leaf.logCore, -1, 0]
  for (let slot = 0; slot < leaf.core.length; slot++) {
    if (leaf.decided[slot] === 1) continue
    let factor = 1
    for (let at = firstOf[slot] as number; at < (firstOf[slot + 1] as number); at++)
      factor += (odds[at] as number) * Math.min(EXPLAINS, leaf.evaluation.ratios[at] as number)
    log += Math.log(factor)
    for (let at = firstOf[slot] as number; at < (firstOf[slot + 1] as number); at++) {
      if (!evidence.inCircuit(at) || (leaf.evaluation.ratios[at] as number) > EXPLAINS) continue
      const doubtful = (TOGETHER * (odds[at] as number) * (leaf.evaluation.ratios[at] as number)) / factor
      if (doubtful > best) [option, best] = [at, doubtful]
    }
  }
  let score = best
  const picked = new Set<number>()
  let now = leaf.evaluation
  for (let step = 0; step < MOST_STEPS; step++) {
    let [pick, most, count] = [-1, LEAST_PICKED, 0]
    for (const at of open) {
      if ((now.ratios[at] as number) <= EXPLAINS || picked.has(slotOf[at] as number)) continue
      count++
      const weight = (odds[at] as number) * (now.ratios[at] as number)
      if (weight > most) [pick, most] = [at, weight]
    }
    if (pick < 0) break
    const next = evidence.estimate(now, pick)
    let alike = 0
    for (const at of open) {
      const own = slotOf[at] === slotOf[pick]
      if ((now.ratios[at] as number) <= EXPLAINS || picked.has(slotOf[at] as number)) continue
      if (own || (next.ratios[at] as number) <= EXPLAINS) alike += (odds[at] as number) * (now.ratios[at] as number)
    }
    log += Math.log(1 + alike)
    // One alone competes with nothing.
    if (step === 0) [option, score] = [pick, Math.max(best, (alike / (1 + alike)) * (count > 1 ? 1 : TOGETHER))]
    picked.add(slotOf[pick] as number)
    now = next
  }
  return { log, option, score }
}
