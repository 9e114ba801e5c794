/**
 * A network of conductances whose joints never change and whose values do: which entries fill in during elimination
 * is worked out once (minimum degree first), after which a new set of values is factorised and solved in a small
 * part of the time a full matrix takes (G·v = i, LDLᵀ). Every node leaks a hair to a common ground, so that loose
 * pieces cost nothing and disturb nothing.
 */
export class PatternedNetwork {
  private readonly place: Int32Array
  private readonly branchSlot: Int32Array
  private readonly pointer: Int32Array
  private readonly neighbour: Int32Array
  /** Three numbers an update: where it goes, and the two entries whose product goes there. */
  private readonly updates: Int32Array
  private readonly updatePointer: Int32Array
  private readonly diagonal: Float64Array
  private readonly entries: Float64Array
  private readonly work: Float64Array

  /**
   * @param size number of nodes
   * @param ends the two nodes of every branch, in the order of the conductances given later
   */
  constructor(
    readonly size: number,
    private readonly ends: ReadonlyArray<readonly [number, number]>,
  ) {
    const { order, higher } = eliminate(size, ends)
    this.place = new Int32Array(size)
    for (const [place, node] of order.entries()) this.place[node] = place
    this.pointer = new Int32Array(size + 1)
    const neighbours: number[] = []
    const slots = new Map<number, number>()
    for (let place = 0; place < size; place++) {
      this.pointer[place] = neighbours.length
      for (const other of higher[place] as number[]) slots.set(place * size + other, neighbours.push(other) - 1)
    }
    this.pointer[size] = neighbours.length
    this.neighbour = Int32Array.from(neighbours)
    this.branchSlot = Int32Array.from(ends, ([from, to]) => {
      const [first, second] = [this.place[from] as number, this.place[to] as number]
      return first === second ? -1 : (slots.get(Math.min(first, second) * size + Math.max(first, second)) as number)
    })
    const updates: number[] = []
    this.updatePointer = new Int32Array(size + 1)
    for (let place = 0; place < size; place++) {
      this.updatePointer[place] = updates.length
      const row = higher[place] as number[]
      for (let one = 0; one < row.length; one++) {
        for (let other = one; other < row.length; other++) {
          const [low, high] = [row[one] as number, row[other] as number]
          // The diagonal is told by a negative place.
          updates.push(
            one === other ? -1 - low : (slots.get(low * size + high) as number),
            (this.pointer[place] as number) + one,
            (this.pointer[place] as number) + other,
          )
        }
      }
    }
    this.updatePointer[size] = updates.length
    this.updates = Int32Array.from(updates)
    this.diagonal = new Float64Array(size)
    this.entries = new Float64Array(neighbours.length)
    this.work = new Float64Array(size)
  }

  /** Takes these conductances, S; until the next call potentials are theirs. */
  factorise(conductances: ArrayLike<number>): void {
    const { diagonal, entries, updates, updatePointer, pointer, branchSlot, place, ends } = this
    diagonal.fill(LEAK_SIEMENS)
    entries.fill(0)
    for (let branch = 0; branch < ends.length; branch++) {
      const conductance = conductances[branch] as number
      const slot = branchSlot[branch] as number
      if (conductance === 0 || slot < 0) continue
      const [from, to] = ends[branch] as readonly [number, number]
      diagonal[place[from] as number] = (diagonal[place[from] as number] as number) + conductance
      diagonal[place[to] as number] = (diagonal[place[to] as number] as number) + conductance
      entries[slot] = (entries[slot] as number) - conductance
    }
    for (let row = 0; row < this.size; row++) {
      const pivot = diagonal[row] as number
      for (let at = updatePointer[row] as number; at < (updatePointer[row + 1] as number); at += 3) {
        const change =
          ((entries[updates[at + 1] as number] as number) * (entries[updates[at + 2] as number] as number)) / pivot
        if (change === 0) continue
        const target = updates[at] as number
        if (target < 0) diagonal[-1 - target] = (diagonal[-1 - target] as number) - change
        else entries[target] = (entries[target] as number) - change
      }
      for (let at = pointer[row] as number; at < (pointer[row + 1] as number); at++)
        entries[at] = (entries[at] as number) / pivot
    }
  }

  /** Node potentials, V, with so many amps put in at one node and taken out at another. */
  potentials(from: number, to: number, amps: number): Float64Array {
    const { work, entries, pointer, neighbour, diagonal, place, size } = this
    work.fill(0)
    work[place[from] as number] = (work[place[from] as number] as number) + amps
    work[place[to] as number] = (work[place[to] as number] as number) - amps
    for (let row = 0; row < size; row++) {
      const value = work[row] as number
      if (value === 0) continue
      for (let at = pointer[row] as number; at < (pointer[row + 1] as number); at++)
        work[neighbour[at] as number] = (work[neighbour[at] as number] as number) - (entries[at] as number) * value
    }
    for (let row = size - 1; row >= 0; row--) {
      let value = (work[row] as number) / (diagonal[row] as number)
      for (let at = pointer[row] as number; at < (pointer[row + 1] as number); at++)
        value -= (entries[at] as number) * (work[neighbour[at] as number] as number)
      work[row] = value
    }
    const result = new Float64Array(size)
    for (let node = 0; node < size; node++) result[node] = work[place[node] as number] as number
    return result
  }
}

/** To ground from every node, S: far below any leak that matters. */
const LEAK_SIEMENS = 1e-9
/** Two nodes with more than this between them are joined by the leak alone, Ω. */
export const UNJOINED_OHMS = 2e6

/** Nodes in the order of elimination, and of each the later nodes it is joined to by then. */
function eliminate(
  size: number,
  ends: ReadonlyArray<readonly [number, number]>,
): { order: number[]; higher: number[][] } {
  const joined = Array.from({ length: size }, () => new Set<number>())
  for (const [from, to] of ends) {
    if (from === to) continue
    joined[from]?.add(to)
    joined[to]?.add(from)
  }
  const order: number[] = []
  const left = new Set(Array.from({ length: size }, (_, node) => node))
  const laterThan: number[][] = []
  while (left.size > 0) {
    let best = -1
    for (const node of left)
      if (best < 0 || (joined[node] as Set<number>).size < (joined[best] as Set<number>).size) best = node
    const around = [...(joined[best] as Set<number>)]
    for (const one of around) {
      joined[one]?.delete(best)
      for (const other of around) if (one !== other) joined[one]?.add(other)
    }
    left.delete(best)
    order.push(best)
    laterThan.push(around)
  }
  const place = new Int32Array(size)
  for (const [at, node] of order.entries()) place[node] = at
  return {
    order,
    higher: laterThan.map((around) =>
      around.map((node) => place[node] as number).sort((first, second) => first - second),
    ),
  }
}
