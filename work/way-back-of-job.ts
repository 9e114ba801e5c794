import type { EngineDescription } from '../core/engine/description-schema'
import { milliamps } from '../core/motor/step-comparison'
import { expectedCurrent, type ExpectedCurrent } from '../core/strip/step-current'
import { wayBack, type BackStep } from '../core/strip/way-back'
import type { JobBook } from '../messages/book'
import { stripState, type LyingPart, type StripState } from './strip-state'
import { testedSteps, type JudgedStep } from './tested-steps'

/** One step of the way back, and where it stands. */
export interface JobBackStep {
  readonly id: string
  readonly step: BackStep
  readonly done: boolean
  /** Where the part lies; null for what is no part. */
  readonly lies: LyingPart | null
}

/** What a test of the way back came to. */
export interface BackVerdict {
  readonly weight: 'sound' | 'care' | 'fault'
  readonly sentence: string
}

/** A test of the way back: what is to be expected, what was read since its part was fitted, and what that means. */
interface BackTest {
  readonly expected: ExpectedCurrent | null
  readonly volts: number
  readonly read: JudgedStep | null
  readonly verdict: BackVerdict | null
}

export interface JobWayBack extends BackTest {
  readonly state: StripState
  readonly steps: readonly JobBackStep[]
  readonly next: JobBackStep | null
  /** Verdicts on tests of the way back by when they were taken: they count before any other judgement of them. */
  readonly judged: ReadonlyMap<string, BackVerdict>
}

/**
 * The way back of a job: everything that came off since the engine was last whole, each step with its cell and whether
 * it is done, and at a test what current is to be expected and whether what was read is more.
 *
 * @param usualVolts at which tests of this engine are made
 */
export function wayBackOfJob(
  book: Pick<JobBook, 'strip' | 'search' | 'sheets'>,
  description: EngineDescription,
  usualVolts: number,
): JobWayBack {
  const state = stripState(book.strip, book.search)
  const fitting = state.opened.filter((part) => !isGone(state, part))
  const steps = wayBack(description, fitting).map((step): JobBackStep => {
    const id = stepId(step)
    const done = step.kind === 'fit' ? !state.off.has(step.part) : state.done.has(id)
    return { id, step, done, lies: step.kind === 'fit' ? (state.off.get(step.part) ?? null) : null }
  })
  const next = steps.find((entry) => !entry.done) ?? null
  const tested = testedSteps(book.sheets)
  const offAt = (index: number): Set<string> => offAfter(fitting, steps, index)

  function testAt(index: number): BackTest {
    const step = steps[index]?.step
    if (step?.kind !== 'test') return { expected: null, volts: usualVolts, read: null, verdict: null }
    const since = lastFitted(book.strip, step.after)
    const read = tested.findLast((test) => test.name === step.name && test.at >= since) ?? null
    const earlier = steps
      .slice(0, index)
      .flatMap((entry, at) => (entry.step.kind === 'test' && entry.done ? [{ at, name: entry.step.name }] : []))
      .findLast((entry) => tested.some((test) => test.name === entry.name && test.turns !== 'stands'))
    const before = earlier && tested.findLast((test) => test.name === earlier.name)
    const volts = read?.volts ?? before?.volts ?? usualVolts
    const expected = expectedCurrent(
      description,
      offAt(index),
      earlier && before
        ? {
            off: offAt(earlier.at),
            amps: before.current.value,
            uncertainty: (before.current.high - before.current.low) / 2,
          }
        : null,
      volts,
    )
    return { expected, volts, read, verdict: read ? verdictOf(step, read, expected) : null }
  }
  const tests = steps.map((_, index) => testAt(index))
  const judged = new Map(tests.flatMap(({ read, verdict }) => (read && verdict ? [[read.at, verdict] as const] : [])))
  const nothing = { expected: null, volts: usualVolts, read: null, verdict: null }
  return { state, steps, next, judged, ...((next && tests[steps.indexOf(next)]) ?? nothing) }
}

const isGone = (state: StripState, part: string): boolean =>
  state.off.has(part) && !state.lying.some((thing) => thing.part === part)

function stepId(step: BackStep): string {
  switch (step.kind) {
    case 'fit':
      return `fit ${step.part}`
    case 'lubricate':
      return `oil ${step.point}`
    case 'ohms':
      return `ohms ${step.after}`
    case 'test':
      return `test ${step.after}`
    case 'direction':
      return `direction ${step.before}`
  }
}

/** What is still off once the sequence has come so far. */
function offAfter(fitting: readonly string[], steps: readonly JobBackStep[], index: number): Set<string> {
  const off = new Set(fitting)
  for (const { step } of steps.slice(0, index + 1)) if (step.kind === 'fit') off.delete(step.part)
  return off
}

function lastFitted(strip: JobBook['strip'], part: string): string {
  return strip.findLast((row) => row.entry.kind === 'back' && row.entry.part === part)?.capturedAt ?? ''
}

function verdictOf(
  step: Extract<BackStep, { kind: 'test' }>,
  read: JudgedStep,
  expected: ExpectedCurrent | null,
): BackVerdict {
  const causes = step.causes.length > 0 ? ` Usual causes here: ${step.causes.join('; ')}.` : ''
  if (read.turns === 'stands') return { weight: 'fault', sentence: `It takes current and does not turn.${causes}` }
  if (!expected) return { weight: 'sound', sentence: 'The first figure: what follows is held against it.' }
  const words = `${milliamps(read.current.value)} read, ${milliamps(expected.low)} to ${milliamps(expected.high)} expected`
  if (read.current.low > expected.high)
    return { weight: 'fault', sentence: `More than this step may add: ${words}.${causes}` }
  if (read.current.high < expected.low)
    return { weight: 'care', sentence: `Less than expected: ${words}. Does everything that should turn?` }
  return { weight: 'sound', sentence: `As expected: ${words}.` }
}
