import type { Evidence } from './evidence'
import type { BelievedLeaf, Leaf } from './leaves'
import type { Population } from './population'
import type { Option } from './slots'
import { SetWeigher, type WeighedSet } from './weighed-sets'

/** So many sets are asked how likely what none of them holds would be besides. */
const ASKED = 4
/** Less than this in times of the set itself, as natural logarithm, is nothing. */
const NOTHING = -6

/** What so few of the sets hold is rare. */
const RARE = 0.06
/** However likely it would be besides the sets that lack it, it is absent that often at least. */
const LEAST_ABSENT = 0.01

/**
 * The sets drawn, as shares of what is believed. What few of them hold or none is not told by counting them: it is left
 * open, as likely as it would be besides some of them; what no finding hangs on is as likely as before.
 */
export function sampledLeaves(evidence: Evidence, { sets, particles }: Population): BelievedLeaf[] {
  const { options, slots, slotOf } = evidence
  const share = new Float64Array(options.length)
  for (const { core } of sets)
    for (const option of core) if (option >= 0) share[option] = (share[option] as number) + 1 / sets.length
  const hangs = options.map((_, option) => evidence.concerns(option))
  const weigher = new SetWeigher(evidence)
  const asked = Array.from(
    { length: ASKED },
    (_, at) => particles[Math.floor((at * particles.length) / ASKED)],
  ).flatMap((particle) => (particle ? [weigher.weigh(particle.core)] : []))
  const decided = new Uint8Array(slots.slots.length)
  const ratios = new Float64Array(options.length).fill(1)
  for (const [slot, { given }] of slots.slots.entries()) {
    const ways = waysOf(evidence, slot)
    const held = ways.reduce((sum, option) => sum + (share[option] as number), 0)
    const hanging = ways.some((option) => hangs[option])
    if (given || (hanging && held > RARE)) decided[slot] = 1
    else if (hanging) {
      const beside = besideSets(evidence, weigher, asked, slot)
      const chances = ways.map((option, way) => (share[option] as number) + (1 - held) * (beside[way] as number))
      const absent = Math.max(LEAST_ABSENT, 1 - chances.reduce((sum, one) => sum + one, 0))
      for (const [way, option] of ways.entries())
        ratios[option] = (chances[way] as number) / absent / (options[option] as Option).weight
    }
  }
  const open = Uint8Array.from(options, (_, option) => Number(decided[slotOf[option] as number] === 0))
  const kept = new Map<string, { readonly leaf: Leaf; count: number }>()
  for (const { core, log, logs } of sets) {
    const own = core.map((option, slot) => (decided[slot] === 1 ? option : -1))
    const key = own.join()
    const known = kept.get(key)
    if (known) known.count++
    else {
      const says = Array.from(logs, (one) => ({ base: Math.exp(one), times: ratios }))
      const evaluation = { log, ratios, says, exact: true }
      kept.set(key, { leaf: { core: own, decided, open, evaluation, logCore: log }, count: 1 })
    }
  }
  return [...kept.values()].map(({ leaf, count }) => ({ ...leaf, chance: count / sets.length, arrivedSound: 0 }))
}

/** Options of a slot. */
function waysOf({ firstOf }: Evidence, slot: number): number[] {
  const first = firstOf[slot] as number
  return Array.from({ length: (firstOf[slot + 1] as number) - first }, (_, way) => first + way)
}

/** By way of a slot: how likely it is besides sets that lack it. Of one that holds it little is left without it: that would say nothing of the others. */
function besideSets(evidence: Evidence, weigher: SetWeigher, asked: readonly WeighedSet[], slot: number): number[] {
  const ways = waysOf(evidence, slot)
  const without = asked.filter(({ core }) => core[slot] === -1)
  const chances = ways.map(() => 0)
  for (const set of without) {
    const odds = ways.map((option) => {
      const changed = weigher.changed(set, [[slot, option]], set.log + NOTHING)
      return changed ? (evidence.options[option] as Option).weight * Math.exp(changed.log - set.log) : 0
    })
    const whole = odds.reduce((sum, one) => sum + one, 1)
    for (const [way, one] of odds.entries()) chances[way] = (chances[way] as number) + one / whole / without.length
  }
  return chances
}
