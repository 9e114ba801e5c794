import type { Act } from '../../knowledge/knowledge-schema'
import type { CompiledEngine } from '../compiled-engine'

/** An act on one engine: done once, at all places that are alike, and everything that can be noted at it. */
export interface BenchAct {
  readonly id: string
  readonly name: string
  readonly how: string
  readonly minutes: number
  readonly caution: string
  /** It is entered wheel by wheel. */
  readonly byWheel: boolean
  /** It needs the engine complete on its wheels. */
  readonly whole: boolean
  /** What must be off for it. */
  readonly goal: readonly (readonly string[])[]
  /** Indices of the tests. */
  readonly observations: readonly number[]
}

/** Places alike are done at one go where that takes off no more minutes' worth than this. */
const ONE_GO_MINUTES = 2

/**
 * Every act of the knowledge as this engine allows it. Observations of one act that lie equally deep are one act;
 * where one lies deeper, that is another, with what has to come off for it.
 *
 * @param engine compiled
 * @param minutesTo have something off, and on again
 */
export function actsOf(engine: CompiledEngine, minutesTo: (goal: BenchAct['goal']) => number): BenchAct[] {
  const rows = new Map<string, Act>(engine.knowledge.acts.map((act) => [act.id, act]))
  const found: Array<{ readonly row: Act; goal: BenchAct['goal']; readonly observations: number[]; whole: boolean }> =
    []
  for (const [index, { test, goal, name, how }] of engine.tests.entries()) {
    const row = rows.get(test.act ?? '') ?? {
      id: engine.tests[index]?.id ?? test.id,
      name,
      how,
      minutes: test.minutes,
      caution: test.caution,
      source: test.source,
    }
    const near = found.find((entry) => {
      if (entry.row.id !== row.id) return false
      const both = minutesTo(together(entry.goal, goal))
      // The deeper of the two is not dearer than needed, and the shallower loses nothing.
      return both - Math.min(minutesTo(entry.goal), minutesTo(goal)) <= ONE_GO_MINUTES
    })
    if (near) {
      near.goal = together(near.goal, goal)
      near.observations.push(index)
      near.whole ||= test.whole
    } else found.push({ row, goal, observations: [index], whole: test.whole })
  }
  const times = new Map<string, number>()
  return found.map(({ row, goal, observations, whole }): BenchAct => {
    const before = times.get(row.id) ?? 0
    times.set(row.id, before + 1)
    return {
      id: before === 0 ? row.id : `${row.id}.${before + 1}`,
      name: row.name,
      how: row.how,
      minutes: row.minutes,
      caution: row.caution,
      byWheel: row.byWheel ?? false,
      whole,
      goal,
      observations,
    }
  })
}

function together(one: BenchAct['goal'], other: BenchAct['goal']): BenchAct['goal'] {
  const known = new Set(one.map((group) => group.join()))
  return [...one, ...other.filter((group) => !known.has(group.join()))]
}
