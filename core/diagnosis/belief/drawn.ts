/** A number from 0 to 1 that belongs to a place in a list and a suspect (an integer hash, multiply and shift). */
export function drawn(index: number, suspect: number): number {
  let hash = Math.imul(index + 1, 0x9e3779b1) ^ Math.imul(suspect + 7, 0x85ebca6b)
  hash = Math.imul(hash ^ (hash >>> 15), 0x2c1b3c6d)
  hash = Math.imul(hash ^ (hash >>> 12), 0x297a2d39)
  return ((hash ^ (hash >>> 15)) >>> 0) / 0x1_0000_0000
}
