/**
 * How many sets of equal weight some are worth (Kish's effective sample size).
 *
 * @param logs natural logarithms of their weights
 * @example worth([0, 0, 0, 0]) // 4
 */
export function worth(logs: readonly number[]): number {
  const heaviest = logs.reduce((most, log) => Math.max(most, log), Number.NEGATIVE_INFINITY)
  let [sum, squares] = [0, 0]
  for (const log of logs) {
    const weight = Math.exp(log - heaviest)
    sum += weight
    squares += weight ** 2
  }
  return sum ** 2 / squares
}
