/**
 * The owner's complaint, repeated as a trial: how often it failed of how many attempts, before and after.
 */
export interface TrialOutcome {
  readonly failures: number
  readonly attempts: number
}

export type TrialVerdict = 'cured' | 'better' | 'worse' | 'no-measurable-change'

/**
 * Judges two outcomes by Fisher's exact test, one-sided in the direction seen, at 5 %.
 * "Cured" also asks that no attempt failed afterwards.
 *
 * @throws RangeError where a count is not whole, or more failures than attempts are given
 * @example compareTrials({ failures: 5, attempts: 6 }, { failures: 0, attempts: 20 }) // 'cured'
 */
export function compareTrials(before: TrialOutcome, after: TrialOutcome): TrialVerdict {
  for (const outcome of [before, after]) assertOutcome(outcome)
  const failures = before.failures + after.failures
  const total = before.attempts + after.attempts
  const beforeRate = before.failures / before.attempts
  const afterRate = after.failures / after.attempts
  if (beforeRate === afterRate) return 'no-measurable-change'
  const improved = afterRate < beforeRate
  let tail = 0
  for (let k = 0; k <= Math.min(failures, after.attempts); k++) {
    const asExtreme = improved ? k <= after.failures : k >= after.failures
    if (asExtreme)
      tail += Math.exp(
        logChoose(after.attempts, k) + logChoose(before.attempts, failures - k) - logChoose(total, failures),
      )
  }
  if (tail >= 0.05) return 'no-measurable-change'
  if (!improved) return 'worse'
  return after.failures === 0 ? 'cured' : 'better'
}

function assertOutcome({ failures, attempts }: TrialOutcome): void {
  if (!Number.isInteger(attempts) || attempts < 1) throw new RangeError('A trial needs at least one attempt.')
  if (!Number.isInteger(failures) || failures < 0 || failures > attempts) {
    throw new RangeError('A trial cannot fail more often than it was attempted.')
  }
}

function logChoose(n: number, k: number): number {
  if (k < 0 || k > n) return Number.NEGATIVE_INFINITY
  let sum = 0
  for (let i = 1; i <= k; i++) sum += Math.log(n - k + i) - Math.log(i)
  return sum
}
