/** Solution of a small weighted least-squares problem. */
export interface LeastSquaresSolution {
  readonly parameters: number[]
  /** Inverse of the weighted normal matrix: the covariance when the weights are 1/σ². */
  readonly covariance: number[][]
}

/**
 * Weighted linear least squares for a handful of parameters, by Cholesky on the column-scaled normal matrix.
 *
 * @param rows design rows, one per observation
 * @param observed what each row should give
 * @param weights 1/σ² of each observation, > 0
 * @returns null when the columns cannot be told apart (pivot below 1e-12 of its scaled size)
 * @example solveWeightedLeastSquares([[1, 0], [1, 1], [1, 2]], [1, 3, 5], [1, 1, 1])?.parameters // [ 1, 2 ]
 */
export function solveWeightedLeastSquares(
  rows: readonly (readonly number[])[],
  observed: readonly number[],
  weights: readonly number[],
): LeastSquaresSolution | null {
  const size = rows[0]?.length ?? 0
  if (rows.length < size || size === 0) return null
  const scale = Array.from({ length: size }, (_, column) =>
    Math.sqrt(rows.reduce((sum, row, i) => sum + (weights[i] as number) * (row[column] as number) ** 2, 0)),
  )
  if (scale.some((value) => !(value > 0) || !Number.isFinite(value))) return null

  const normal = Array.from({ length: size }, () => new Array<number>(size).fill(0))
  const right = new Array<number>(size).fill(0)
  rows.forEach((row, i) => {
    const weight = weights[i] as number
    for (let a = 0; a < size; a++) {
      const scaled = (row[a] as number) / (scale[a] as number)
      right[a] = (right[a] as number) + weight * scaled * (observed[i] as number)
      for (let b = 0; b <= a; b++) {
        ;(normal[a] as number[])[b] =
          ((normal[a] as number[])[b] as number) + weight * scaled * ((row[b] as number) / (scale[b] as number))
      }
    }
  })

  const inverse = invertByCholesky(normal)
  if (!inverse) return null
  const parameters = inverse.map(
    (line, a) => line.reduce((sum, value, b) => sum + value * (right[b] as number), 0) / (scale[a] as number),
  )
  const covariance = inverse.map((line, a) =>
    line.map((value, b) => value / ((scale[a] as number) * (scale[b] as number))),
  )
  return { parameters, covariance }
}

/** Inverse of a symmetric positive definite matrix with unit diagonal, given its lower half; null when it is singular. */
function invertByCholesky(matrix: readonly (readonly number[])[]): number[][] | null {
  const size = matrix.length
  const lower = Array.from({ length: size }, () => new Array<number>(size).fill(0))
  const at = (grid: readonly (readonly number[])[], i: number, j: number): number =>
    (grid[i] as readonly number[])[j] as number
  for (let i = 0; i < size; i++) {
    for (let j = 0; j <= i; j++) {
      let sum = at(matrix, i, j)
      for (let k = 0; k < j; k++) sum -= at(lower, i, k) * at(lower, j, k)
      if (i === j) {
        if (sum < 1e-12) return null
        ;(lower[i] as number[])[i] = Math.sqrt(sum)
      } else {
        ;(lower[i] as number[])[j] = sum / at(lower, j, j)
      }
    }
  }
  const inverse = Array.from({ length: size }, () => new Array<number>(size).fill(0))
  for (let column = 0; column < size; column++) {
    const forward = new Array<number>(size).fill(0)
    for (let i = 0; i < size; i++) {
      let sum = i === column ? 1 : 0
      for (let k = 0; k < i; k++) sum -= at(lower, i, k) * (forward[k] as number)
      forward[i] = sum / at(lower, i, i)
    }
    for (let i = size - 1; i >= 0; i--) {
      let sum = forward[i] as number
      for (let k = i + 1; k < size; k++) sum -= at(lower, k, i) * at(inverse, k, column)
      ;(inverse[i] as number[])[column] = sum / at(lower, i, i)
    }
  }
  return inverse
}
