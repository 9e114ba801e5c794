/** How long in one test something that comes and goes is broken throughout, makes and breaks, or holds throughout. */
export type Moods = readonly [broken: number, unsteady: number, made: number]

/** Where what is unsteady changes the reading, this is how often the unsteadiness is what is seen. */
const UNSTEADY_SEEN = 0.85

/**
 * What is seen when some things come and go: each is broken throughout, unsteady, or made throughout; where what is
 * unsteady changes the likeliest outcome, the reading is unsteady.
 *
 * @param readings chances of the outcomes for every subset that is broken at the moment, by bit mask
 * @param moods of each thing that comes and goes
 * @param unsteady index of the outcome that says so; −1 where the test has none
 * @param fallsTo index of the outcome it has to fall to for that; −1 where any change will do
 * @param out chances of the outcomes, filled from `offset`
 */
export function mixMoods(
  readings: ReadonlyArray<ArrayLike<number>>,
  moods: readonly Moods[],
  unsteady: number,
  fallsTo: number,
  out: Float32Array,
  offset: number,
  count: number,
  from: number,
): void {
  const modes = 3 ** moods.length
  for (let mode = 0; mode < modes; mode++) {
    let weight = 1
    let broken = 0
    let wavers = 0
    let rest = mode
    for (let bit = 0; bit < moods.length; bit++) {
      const mood = rest % 3
      rest = (rest - mood) / 3
      weight *= (moods[bit] as Moods)[mood] as number
      if (mood === 0) broken |= 1 << bit
      if (mood === 1) wavers |= 1 << bit
    }
    let reached = 0
    let first = -1
    let differs = false
    let falls = fallsTo < 0
    for (let subset = wavers; ; subset = (subset - 1) & wavers) {
      const likeliest = likeliestOf(readings[broken | subset] as ArrayLike<number>, from, count)
      if (likeliest === fallsTo) falls = true
      if (first < 0) first = likeliest
      else if (likeliest !== first) differs = true
      reached++
      if (subset === 0) break
    }
    const seen = differs && falls && unsteady >= 0 ? UNSTEADY_SEEN : 0
    if (seen > 0) out[offset + unsteady] = (out[offset + unsteady] as number) + weight * seen
    const share = (weight * (1 - seen)) / reached
    for (let subset = wavers; ; subset = (subset - 1) & wavers) {
      const chances = readings[broken | subset] as ArrayLike<number>
      for (let outcome = 0; outcome < count; outcome++)
        out[offset + outcome] = (out[offset + outcome] as number) + share * (chances[from + outcome] as number)
      if (subset === 0) break
    }
  }
}

function likeliestOf(chances: ArrayLike<number>, from: number, count: number): number {
  let best = 0
  for (let outcome = 1; outcome < count; outcome++)
    if ((chances[from + outcome] as number) > (chances[from + best] as number)) best = outcome
  return best
}
