import type { Evidence } from './evidence'
import type { BelievedLeaf, Leaf } from './leaves'
import type { Population } from './population'
import type { Option } from './slots'
import { SetWeigher } from './weighed-sets'

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
  const { options, slots, firstOf, slotOf } = evidence
  const held = new Float64Array(slots.slots.length)
  for (const { core } of sets)
    for (const [slot, option] of core.entries()) if (option >= 0) held[slot] = (held[slot] as number) + 1 / sets.length
  const decided = Uint8Array.from(held, (share) => Number(share > RARE))
  const hangs = options.map((_, option) => evidence.concerns(option))
  for (const [slot, { given }] of slots.slots.entries()) {
    const hanging = hangs.slice(firstOf[slot], firstOf[slot + 1]).some(Boolean)
    if (given) decided[slot] = 1
    else if (!hanging) decided[slot] = 0
  }
  const open = Uint8Array.from(options, (_, option) => Number(decided[slotOf[option] as number] === 0))
  const weigher = new SetWeigher(evidence)
  const asked = Array.from(
    { length: ASKED },
    (_, at) => particles[Math.floor((at * particles.length) / ASKED)],
  ).flatMap((particle) => (particle ? [weigher.weigh(particle.core)] : []))
  const share = new Float64Array(options.length)
  for (const { core } of sets)
    for (const option of core) if (option >= 0) share[option] = (share[option] as number) + 1 / sets.length
  const ratios = new Float64Array(options.length).fill(1)
  for (const [slot, { options: ways }] of slots.slots.entries()) {
    if (decided[slot] === 1) continue
    const own = ways.map((_, way) => (firstOf[slot] as number) + way)
    if (!own.some((option) => hangs[option])) continue
    // Of a set that holds it little is left without it: that would say nothing of the others.
    const without = asked.filter(({ core }) => core[slot] === -1)
    const chances = own.map((option) => (share[option] as number) / (1 - (held[slot] as number)))
    for (const set of without) {
      const odds = own.map((option) => {
        const changed = weigher.changed(set, [[slot, option]], set.log + NOTHING)
        return changed ? (options[option] as Option).weight * Math.exp(changed.log - set.log) : 0
      })
      const whole = odds.reduce((sum, one) => sum + one, 1)
      for (const [way, one] of odds.entries()) chances[way] = (chances[way] as number) + one / whole / without.length
    }
    const chance = (1 - (held[slot] as number)) * chances.reduce((sum, one) => sum + one, 0)
    for (const [way, option] of own.entries())
      ratios[option] =
        ((1 - (held[slot] as number)) * (chances[way] as number)) /
        Math.max(LEAST_ABSENT, 1 - chance) /
        (options[option] as Option).weight
  }
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
