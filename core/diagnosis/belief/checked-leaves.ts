import { drawnSet } from './drawn-set'
import type { Evidence } from './evidence'
import type { Leaf } from './leaves'

/** A leaf with its weight, and that of what of it arrived with nothing wrong, as natural logarithms. */
export interface WeighedLeaf {
  readonly leaf: Leaf
  readonly all: number
  readonly sound: number
}

/** So many sets of a leaf are worked out. */
const CHECKED = 6
/** Leaves lighter than this share of all are as wrong as those that were checked, on the mean. */
const LEAST_SHARE = 0.002
/** So many leaves are checked in a round, and so many rounds are made: what was light may be heavy once others are put right. */
const MOST_LEAVES = 60
const ROUNDS = 2
/** A leaf none of whose sets fits weighs nothing beside the others; it must not make nothing of them. */
const LEAST_LOG = -50

/**
 * What is open in a leaf is taken to change the findings each for itself, and a core not worked out is estimated: how
 * far that holds is found by working out some full sets drawn from the leaf (importance sampling). Their mean puts the
 * leaf's weight right.
 *
 * @param evidence the findings
 * @param leaves weighed as they were taken apart
 */
export function checked(evidence: Evidence, leaves: readonly WeighedLeaf[]): WeighedLeaf[] {
  const corrections = new Map<number, number>()
  for (let round = 0; round < ROUNDS; round++) {
    const logs = corrected(leaves, corrections)
    const heaviest = logs.reduce((most, log) => Math.max(most, log), Number.NEGATIVE_INFINITY)
    const whole = logs.reduce((sum, log) => sum + Math.exp(log - heaviest), 0)
    const due = [...logs.keys()]
      .filter((index) => !corrections.has(index) && Math.exp((logs[index] as number) - heaviest) > LEAST_SHARE * whole)
      .sort((one, other) => (logs[other] as number) - (logs[one] as number))
      .slice(0, MOST_LEAVES)
    for (const index of due) corrections.set(index, correctionOf(evidence, (leaves[index] as WeighedLeaf).leaf))
  }
  const logs = corrected(leaves, corrections)
  return leaves.map(({ leaf, all, sound }, index) => {
    const log = logs[index] as number
    return { leaf, all: log, sound: sound + log - all }
  })
}

function corrected(leaves: readonly WeighedLeaf[], corrections: ReadonlyMap<number, number>): number[] {
  const known = [...corrections.values()]
  const usual = known.length === 0 ? 0 : known.reduce((sum, log) => sum + log, 0) / known.length
  return leaves.map(({ all }, index) => all + (corrections.get(index) ?? usual))
}

/** Natural logarithm of what the sets of a leaf weigh in times of what it was taken for. */
function correctionOf(evidence: Evidence, leaf: Leaf): number {
  let sum = 0
  for (let draw = 0; draw < CHECKED; draw++) {
    const set = drawnSet(evidence, leaf, draw)
    const taken = set.reduce(
      (log, option, slot) =>
        option === leaf.core[slot] ? log : log + Math.log(leaf.evaluation.ratios[option] as number),
      leaf.evaluation.log,
    )
    sum += Math.exp(evidence.logOf(set) - taken)
  }
  return Math.max(LEAST_LOG, Math.log(sum / CHECKED))
}
