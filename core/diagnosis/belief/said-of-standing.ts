import type { BenchTest } from '../places/bench-tests'

/** What is odd about a motor that turns is less often said of one that never does; from memory. */
export const ODD_OF_STANDING = 0.5
/** Which of its wheels turn is hardly ever said of a machine that never turns one; from memory. */
export const WHEELS_OF_STANDING = 0.2

/**
 * How much less often something is noted of a machine on which no motor turns than of one that runs. Judged thing by
 * thing, ten things noted at one run would count ten times; so it is little, but where the wheels themselves are named.
 */
export function saidOfStanding({ test, place }: BenchTest, outcome: number): number {
  if (!test.needsRunning) return 1
  if (test.reading.kind === 'wheels-turn') return place.role === 'driven-wheels' ? 1 : WHEELS_OF_STANDING
  return outcome > 0 ? ODD_OF_STANDING : 1
}
