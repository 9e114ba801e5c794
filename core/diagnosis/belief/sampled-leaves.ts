import type { Evidence } from './evidence'
import type { BelievedLeaf, Leaf } from './leaves'
import type { Population } from './population'
import { SetWeigher } from './weighed-sets'

/** So many sets are asked how likely what none of them holds would be besides. */
const ASKED = 4
/** Less than this in times of the set itself, as natural logarithm, is nothing. */
const NOTHING = -6

/** What so few of the sets hold is rare. */
const RARE = 0.06

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
  const ratios = Float64Array.from(options, (_, option) => {
    if (open[option] !== 1 || hangs[option] !== true) return 1
    const slot = slotOf[option] as number
    const times = asked.map((set) => {
      const bare = set.core[slot] === -1 ? set : weigher.changed(set, [[slot, -1]], Number.NEGATIVE_INFINITY)
      const changed = bare && weigher.changed(bare, [[slot, option]], bare.log + NOTHING)
      return changed && bare ? Math.exp(changed.log - bare.log) : 0
    })
    return times.reduce((sum, own) => sum + own, 0) / times.length
  })
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
