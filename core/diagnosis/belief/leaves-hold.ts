import { drawn } from './drawn'
import { drawnSet } from './drawn-set'
import type { Evidence } from './evidence'
import { slotFactors, weightIn, type BelievedLeaf } from './leaves'
import type { Option } from './slots'
import { worth } from './worth'

/** So many sets tell whether the leaves hold. */
const TRIED = 120
/** They do where the sets drawn are worth so large a share of their number (Kish's effective sample size). */
const HOLDS = 0.2
/** Of the sets, so many are drawn from the leaves, the others as likely as they were before anything was found. */
const FROM_LEAVES = 0.5

/**
 * Whether the leaves hold. In a leaf what is open is taken to change the findings each for itself; where two things
 * show only together (both bogies collect from both rails), and many are likely, that is not so, and the leaves may
 * miss most of what there is. Some full sets are drawn, half of them from the leaves and half as likely as they were
 * before, and each is worked out and weighed against how likely it was to be drawn (importance sampling from a
 * defensive mixture: Hesterberg 1995). If few of them carry all the weight the leaves do not hold.
 *
 * @param evidence the findings
 * @param leaves with their chances
 */
export function leavesHold(evidence: Evidence, leaves: readonly BelievedLeaf[]): boolean {
  return worth(new Sampler(evidence, leaves).draw()) >= HOLDS * TRIED
}

/** Draws full sets, always the same for the same belief, and weighs them. */
class Sampler {
  private readonly logWhole: Float64Array
  /** Natural logarithm of the chance before anything was found that nothing hidden is there. */
  private readonly logBefore: number
  private readonly drawable: readonly Drawable[]

  constructor(
    private readonly evidence: Evidence,
    leaves: readonly BelievedLeaf[],
  ) {
    const { slots } = evidence.slots
    this.logWhole = Float64Array.from(slots, ({ given, options }) =>
      Math.log(options.reduce((sum, { weight }) => sum + weight, given ? 0 : 1)),
    )
    this.logBefore = -this.logWhole.reduce((sum, log) => sum + log, 0)
    this.drawable = leaves.map((leaf) => drawableOf(evidence, leaf))
  }

  /** @returns natural logarithms of the weights of some sets */
  draw(): number[] {
    const { evidence, drawable } = this
    const ofLeaves = Math.round(FROM_LEAVES * TRIED)
    let [leaf, passed] = [0, 0]
    return Array.from({ length: TRIED }, (_, index): number => {
      if (index >= ofLeaves) return this.weighed(this.drawBefore(index))
      const position = (index + 0.5) / ofLeaves
      while (leaf < drawable.length - 1 && passed + (drawable[leaf]?.leaf.chance ?? 0) < position)
        passed += drawable[leaf++]?.leaf.chance ?? 0
      const from = drawable[leaf] as Drawable
      return this.weighed(drawnSet(evidence, from.leaf, index), from)
    })
  }

  /** As likely as it was before anything was found. */
  private drawBefore(index: number): Int16Array {
    const { slots, firstOf } = this.evidence
    return Int16Array.from(slots.slots, ({ given, options, suspect }, slot) => {
      let rest = drawn(index, suspect) * Math.exp(this.logWhole[slot] as number) - (given ? 0 : 1)
      if (rest <= 0 && !given) return -1
      const at = options.findIndex(({ weight }) => (rest -= weight) <= 0)
      return (firstOf[slot] as number) + (at < 0 ? options.length - 1 : at)
    })
  }

  /** @param from the leaf it was drawn from, where it was */
  private weighed(set: Int16Array, from?: Drawable): number {
    const { evidence } = this
    const { options, slots } = evidence
    let before = this.logBefore
    let arrivedSound = true
    for (const option of set) {
      if (option < 0) continue
      const { weight, bornAt } = options[option] as Option
      before += Math.log(weight)
      if (bornAt === 0) arrivedSound = false
    }
    const holding = from ?? this.drawable.find((entry) => holds(entry, set))
    const drawnAs =
      (holding ? FROM_LEAVES * holding.leaf.chance * Math.exp(this.logWithin(holding, set)) : 0) +
      (1 - FROM_LEAVES) * Math.exp(before)
    return before + evidence.logOf(set) + (arrivedSound ? Math.log(slots.soundOnArrival) : 0) - Math.log(drawnAs)
  }

  /** Natural logarithm of the chance of a set among those of its leaf. */
  private logWithin({ leaf, open, logOpen }: Drawable, set: Int16Array): number {
    let log = -logOpen
    for (const slot of open) {
      const option = set[slot] as number
      if (option !== leaf.core[slot]) log += Math.log(weightIn(this.evidence, leaf, option))
    }
    return log
  }
}

/** A leaf with what of it is decided, what open, and what all that is open weighs together, as natural logarithm. */
interface Drawable {
  readonly leaf: BelievedLeaf
  readonly decided: Int16Array
  readonly open: Int16Array
  readonly logOpen: number
}

function drawableOf(evidence: Evidence, leaf: BelievedLeaf): Drawable {
  const slots = Int16Array.from(leaf.core.keys())
  const open = slots.filter((slot) => leaf.decided[slot] !== 1)
  const factors = slotFactors(evidence, leaf)
  return {
    leaf,
    decided: slots.filter((slot) => leaf.decided[slot] === 1),
    open,
    logOpen: open.reduce((sum, slot) => sum + Math.log(factors[slot] as number), 0),
  }
}

/** Whether a set is one of a leaf's: hardly any is, and what is decided tells so at once. */
function holds({ leaf, decided, open }: Drawable, set: Int16Array): boolean {
  for (const slot of decided) if (set[slot] !== leaf.core[slot]) return false
  for (const slot of open) {
    const option = set[slot] as number
    if (option !== leaf.core[slot] && (option < 0 || leaf.open[option] !== 1)) return false
  }
  return true
}
