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
 * @param fallsTo indices of the outcomes it has to fall to for that; none where any change will do
 * @param out chances of the outcomes, filled from `offset`
 */
export function mixMoods(
  readings: ReadonlyArray<ArrayLike<number>>,
  moods: readonly Moods[],
  unsteady: number,
  fallsTo: readonly number[],
  out: Float32Array,
  offset: number,
  count: number,
  from: number,
): void {
  const modes = 3 ** moods.length
  const subsets = 2 ** moods.length
  // What each subset most likely shows, and how often it is what is read, are worked out once for all moods.
  const likeliest = Uint8Array.from({ length: subsets }, (_, subset) =>
    likeliestOf(readings[subset] as ArrayLike<number>, from, count),
  )
  const shares = new Float64Array(subsets)
  if (unsteady < 0 || likeliest.every((shown) => shown === likeliest[0])) {
    // Nothing is seen to change: what wavers is as often broken as made when it is read, each for itself.
    for (let subset = 0; subset < subsets; subset++)
      shares[subset] = moods.reduce(
        (share, [broken, wavering, made], bit) =>
          share * ((subset >> bit) & 1 ? broken : made) + share * (wavering / 2),
        1,
      )
    return read(readings, shares, out, offset, count, from)
  }
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
    let falls = fallsTo.length === 0
    for (let subset = wavers; ; subset = (subset - 1) & wavers) {
      const shown = likeliest[broken | subset] as number
      if (fallsTo.includes(shown)) falls = true
      if (first < 0) first = shown
      else if (shown !== first) differs = true
      reached++
      if (subset === 0) break
    }
    const seen = differs && falls && unsteady >= 0 ? UNSTEADY_SEEN : 0
    if (seen > 0) out[offset + unsteady] = (out[offset + unsteady] as number) + weight * seen
    const share = (weight * (1 - seen)) / reached
    for (let subset = wavers; ; subset = (subset - 1) & wavers) {
      shares[broken | subset] = (shares[broken | subset] as number) + share
      if (subset === 0) break
    }
  }
  read(readings, shares, out, offset, count, from)
}

/** Adds what each subset shows, by how often it is the one that is broken when it is read. */
function read(
  readings: ReadonlyArray<ArrayLike<number>>,
  shares: Float64Array,
  out: Float32Array,
  offset: number,
  count: number,
  from: number,
): void {
  for (let subset = 0; subset < shares.length; subset++) {
    const chances = readings[subset] as ArrayLike<number>
    const share = shares[subset] as number
    for (let outcome = 0; outcome < count; outcome++)
      out[offset + outcome] = (out[offset + outcome] as number) + share * (chances[from + outcome] as number)
  }
}

function likeliestOf(chances: ArrayLike<number>, from: number, count: number): number {
  let best = 0
  for (let outcome = 1; outcome < count; outcome++)
    if ((chances[from + outcome] as number) > (chances[from + best] as number)) best = outcome
  return best
}
