/** A small seeded generator (mulberry32): the same seed gives the same casualty, reading for reading. */
export class SeededRandom {
  private state: number

  constructor(seed: number) {
    this.state = seed >>> 0
  }

  /** Uniform in [0, 1). */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) >>> 0
    let mixed = this.state
    mixed = Math.imul(mixed ^ (mixed >>> 15), mixed | 1)
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296
  }

  between(low: number, high: number): number {
    return low + (high - low) * this.next()
  }

  /** Standard normal, by Box and Muller. */
  normal(): number {
    return Math.sqrt(-2 * Math.log(1 - this.next())) * Math.cos(2 * Math.PI * this.next())
  }

  pick<T>(list: readonly T[]): T {
    if (list.length === 0) throw new RangeError('There is nothing to pick from.')
    return list[Math.min(list.length - 1, Math.floor(this.next() * list.length))] as T
  }
}
