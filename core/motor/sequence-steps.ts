/** What can be seen of a sequence switch from outside. */
export type SeenPosition = 'forward' | 'reverse' | 'neutral'

/** What each interruption did to the drum, as the likeliest account of everything seen. */
export interface SequenceAccount {
  /** Steps each interruption moved it: 1 is right, 0 missed, 2 and 3 doubled. */
  readonly steps: readonly number[]
  readonly missed: number
  readonly doubled: number
  /** Another account with as many faults exists: neutral after neutral may be none or two. */
  readonly ambiguous: boolean
}

/** Forward, neutral, reverse, neutral, and round again. */
const CYCLE: readonly SeenPosition[] = ['forward', 'neutral', 'reverse', 'neutral']
/** How far from right a number of steps is. */
const BLAME: readonly number[] = [1, 0, 1, 2]

interface Path {
  readonly blame: number
  readonly steps: readonly number[]
  readonly ways: number
}

/**
 * Reads the drum's steps from what was seen after each interruption: the two neutrals look alike, so the whole row is
 * explained at once with the fewest faulty steps (a shortest path through the drum's positions).
 *
 * @param seen position before the first interruption, then after each; at least one
 * @throws RangeError for an empty row
 * @example readSequence(['forward', 'neutral', 'neutral', 'reverse']).steps // [ 1, 0, 1 ]
 */
export function readSequence(seen: readonly SeenPosition[]): SequenceAccount {
  const [first, ...after] = seen
  if (!first) throw new RangeError('A sequence needs what was seen at the start.')
  let paths: Array<Path | null> = CYCLE.map((position) =>
    position === first ? { blame: 0, steps: [], ways: 1 } : null,
  )
  for (const position of after) {
    paths = CYCLE.map((here, at) => {
      if (here !== position) return null
      const candidates = CYCLE.flatMap((_, from) => {
        const path = paths[from]
        const step = (at - from + CYCLE.length) % CYCLE.length
        return path ? [{ blame: path.blame + (BLAME[step] ?? 0), steps: [...path.steps, step], ways: path.ways }] : []
      })
      return best(candidates)
    })
  }
  const found = best(paths.flatMap((path) => path ?? []))
  if (!found) throw new RangeError('Nothing the drum can do explains what was seen.')
  return {
    steps: found.steps,
    missed: found.steps.filter((step) => step === 0).length,
    doubled: found.steps.filter((step) => step > 1).length,
    ambiguous: found.ways > 1,
  }
}

function best(candidates: readonly Path[]): Path | null {
  const least = Math.min(...candidates.map((path) => path.blame))
  const equal = candidates.filter((path) => path.blame === least)
  const [first] = equal
  return first ? { ...first, ways: equal.reduce((sum, path) => sum + path.ways, 0) } : null
}
