/** One conducting branch between two nodes, by index. */
export interface Branch {
  readonly from: number
  readonly to: number
  /** S; 0 is no connection. */
  readonly conductance: number
}

/**
 * A network of conductances, factorised once (nodal analysis, Kirchhoff's current law: G·v = i, Cholesky) and then
 * asked for its node potentials under any balanced injection. Each island of connected nodes is grounded at one of
 * its own, so that loose ends cost nothing and disturb nothing.
 */
export class LinearNetwork {
  /** Which island each node belongs to; two nodes with the same number are connected. */
  readonly island: Int32Array
  private readonly lower: Float64Array
  private readonly grounded: Uint8Array

  constructor(
    private readonly size: number,
    branches: readonly Branch[],
  ) {
    this.island = islandsOf(size, branches)
    this.grounded = new Uint8Array(size)
    const seen = new Set<number>()
    for (let node = 0; node < size; node++) {
      const home = this.island[node] as number
      if (!seen.has(home)) this.grounded[node] = 1
      seen.add(home)
    }
    this.lower = this.factorise(branches)
  }

  private factorise(branches: readonly Branch[]): Float64Array {
    const { size, grounded } = this
    const matrix = new Float64Array(size * size)
    for (const { from, to, conductance } of branches) {
      if (conductance === 0 || from === to) continue
      if (!grounded[from]) matrix[from * size + from] = (matrix[from * size + from] as number) + conductance
      if (!grounded[to]) matrix[to * size + to] = (matrix[to * size + to] as number) + conductance
      if (!grounded[from] && !grounded[to]) {
        const place = from > to ? from * size + to : to * size + from
        matrix[place] = (matrix[place] as number) - conductance
      }
    }
    for (let node = 0; node < size; node++) if (grounded[node]) matrix[node * size + node] = 1
    for (let column = 0; column < size; column++) {
      let pivot = matrix[column * size + column] as number
      for (let k = 0; k < column; k++) pivot -= (matrix[column * size + k] as number) ** 2
      const root = Math.sqrt(pivot)
      matrix[column * size + column] = root
      for (let row = column + 1; row < size; row++) {
        let sum = matrix[row * size + column] as number
        for (let k = 0; k < column; k++)
          sum -= (matrix[row * size + k] as number) * (matrix[column * size + k] as number)
        matrix[row * size + column] = sum / root
      }
    }
    return matrix
  }

  /** Node potentials, V, under the injected currents, A; within each island they must add up to nothing. */
  potentials(injected: Float64Array): Float64Array {
    const { size, lower, grounded } = this
    const result = injected.slice()
    for (let row = 0; row < size; row++) {
      if (grounded[row]) {
        result[row] = 0
        continue
      }
      let sum = result[row] as number
      for (let k = 0; k < row; k++) sum -= (lower[row * size + k] as number) * (result[k] as number)
      result[row] = sum / (lower[row * size + row] as number)
    }
    for (let row = size - 1; row >= 0; row--) {
      let sum = result[row] as number
      for (let k = row + 1; k < size; k++) sum -= (lower[k * size + row] as number) * (result[k] as number)
      result[row] = grounded[row] ? 0 : sum / (lower[row * size + row] as number)
    }
    return result
  }
}

function islandsOf(size: number, branches: readonly Branch[]): Int32Array {
  const parent = new Int32Array(size)
  for (let node = 0; node < size; node++) parent[node] = node
  const find = (node: number): number => {
    let root = node
    while ((parent[root] as number) !== root) root = parent[root] as number
    while ((parent[node] as number) !== root) {
      const next = parent[node] as number
      parent[node] = root
      node = next
    }
    return root
  }
  for (const { from, to, conductance } of branches) {
    if (conductance > 0) parent[find(from)] = find(to)
  }
  const island = new Int32Array(size)
  for (let node = 0; node < size; node++) island[node] = find(node)
  return island
}
