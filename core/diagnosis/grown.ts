type Numbers = Uint8Array | Int16Array | Int32Array | Float64Array

/** A longer copy of some numbers; what is new in it holds `rest`. */
export function grown<T extends Numbers>(from: T, length: number, rest = 0): T {
  const to = new (from.constructor as new (length: number) => T)(length).fill(rest, from.length) as T
  to.set(from)
  return to
}
