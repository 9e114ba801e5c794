/**
 * Seeded number sources, so that whatever is simulated can be run again exactly. Passed in by the caller;
 * nothing in the core makes its own randomness.
 */

/**
 * Uniform numbers in [0, 1): mulberry32 (public domain).
 *
 * @example seededUniform(1)() === seededUniform(1)() // true
 */
export function seededUniform(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let mixed = Math.imul(state ^ (state >>> 15), state | 1)
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296
  }
}

/** Standard normal numbers by Box and Muller from a uniform source. */
export function seededNormal(seed: number): () => number {
  const uniform = seededUniform(seed)
  return () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform())
}
