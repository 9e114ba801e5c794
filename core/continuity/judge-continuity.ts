import {
  CLOSED_OHMS,
  continuityColumns,
  type ContinuityColumn,
  type ContinuityPlan,
  type ContinuityWheel,
  type ExpectedReading,
} from './expected-continuity'

/** What the meter said: a beep, nothing, or a number. */
export type ContinuityReading =
  { readonly kind: 'closed' } | { readonly kind: 'open' } | { readonly kind: 'ohms'; readonly ohms: number }

/** The readings of one wheel, as far as they were taken. */
export type WheelReadings = Readonly<Partial<Record<ContinuityColumn, ContinuityReading>>>

export const cellVerdicts = ['good', 'high', 'broken', 'short', 'uncertain', 'idle'] as const
export type CellVerdict = (typeof cellVerdicts)[number]

/** One reading of a continuity sheet: where the probes go. */
export interface SheetCell {
  readonly point: string
  readonly column: ContinuityColumn
}
export interface JudgedCell {
  readonly verdict: CellVerdict
  /** One sentence: what it means, and what to do where it means nothing yet. */
  readonly words: string
}

export interface JudgedWheel {
  readonly wheel: ContinuityWheel
  readonly readings: WheelReadings
  readonly cells: Readonly<Partial<Record<ContinuityColumn, JudgedCell>>>
}

/** Below this a continuity tester beeps: from memory, most do between 20 and 50 Ω. */
const BEEP_OHMS = 30
/** A path through a motor that reads less than this share of what it should is bridged. */
const BRIDGED_SHARE = 0.3

/**
 * Judges a sheet of continuity readings wheel by wheel. An open reading counts only where two probes on that wheel's
 * own rim have read a short before: on a dirty or blackened rim it says nothing about what lies behind.
 *
 * @param plan what a sound engine reads
 * @param readings by pickup point
 */
export function judgeContinuity(
  plan: ContinuityPlan,
  readings: Readonly<Record<string, WheelReadings>>,
): JudgedWheel[] {
  return plan.wheels.map((wheel) => {
    const mine = readings[wheel.point] ?? {}
    const cells = Object.fromEntries(
      continuityColumns.flatMap((column) => {
        const reading = mine[column]
        const expected = wheel.expected[column]
        return reading && expected ? [[column, judgeCell(column, reading, expected, rimOf(mine), wheel)]] : []
      }),
    )
    return { wheel, readings: mine, cells }
  })
}

/** What two probes on the rim have shown: `null` while that was not tried. */
function rimOf({ rim }: WheelReadings): 'clean' | 'dirty' | null {
  return rim === undefined ? null : ohmsOf(rim) <= CLOSED_OHMS ? 'clean' : 'dirty'
}

function ohmsOf(reading: ContinuityReading): number {
  return reading.kind === 'closed' ? 0 : reading.kind === 'open' ? Number.POSITIVE_INFINITY : reading.ohms
}

function judgeCell(
  column: ContinuityColumn,
  reading: ContinuityReading,
  expected: ExpectedReading,
  rim: 'clean' | 'dirty' | null,
  wheel: ContinuityWheel,
): JudgedCell {
  const ohms = ohmsOf(reading)
  const open = ohms === Number.POSITIVE_INFINITY
  if (column === 'rim') {
    return ohms <= CLOSED_OHMS
      ? { verdict: 'good', words: 'The rim is bright enough to be measured through.' }
      : {
          verdict: 'broken',
          words:
            'The rim itself does not pass: dirt or blackening. Clean or abrade it before any open reading here counts.',
        }
  }
  if (open && rim !== 'clean' && expected.kind !== 'open') return unsure(rim, 'whether anything is broken behind it')
  if (expected.kind === 'closed') {
    if (open)
      return column === 'own'
        ? { verdict: 'broken', words: 'Open from rim to lead: its wiper, bearing or lead does not carry.' }
        : { verdict: 'broken', words: 'Open where this wheel should have metal to the frame.' }
    if (ohms > CLOSED_OHMS + 2 * expected.ohms)
      return {
        verdict: 'high',
        words: `${showOhms(ohms)} where ${showOhms(expected.ohms)} or so is sound: a poor contact on the way, it collapses under a motor’s current.`,
      }
    return {
      verdict: 'good',
      words: column === 'own' ? 'Carries to its lead.' : 'Metal to the frame, as it should be.',
    }
  }
  if (expected.kind === 'open') {
    if (open && column === 'own') return { verdict: 'idle', words: 'This wheel leads nowhere, as built.' }
    if (open)
      return rim === 'clean'
        ? { verdict: 'good', words: 'Insulated, on a rim that does pass.' }
        : unsure(rim, 'about its insulation')
    if (column === 'own')
      return { verdict: 'good', words: 'Carries to the lead, more than the construction says: an added pickup?' }
    return {
      verdict: 'short',
      words: `${reading.kind === 'closed' ? 'Closed' : showOhms(ohms)} where it must be open: its insulation is bridged.`,
    }
  }
  const sound = `about ${showOhms(expected.ohms)} through the motor`
  if (reading.kind === 'closed' && expected.ohms < BEEP_OHMS)
    return { verdict: 'uncertain', words: `A beep says nothing here: sound is ${sound}. Read the ohms.` }
  if (open)
    return {
      verdict: 'good',
      words: `Insulated. Sound is ${sound}: the way through the motor is open, or it is unsoldered.`,
    }
  if (ohms < BRIDGED_SHARE * expected.ohms)
    return {
      verdict: 'short',
      words: `${reading.kind === 'closed' ? 'Closed' : showOhms(ohms)} where ${sound} is sound: something bridges the two sides${wheel.tyre ? '' : ', this wheel’s insulation first'}.`,
    }
  return { verdict: 'good', words: `As it should: ${sound}.` }
}

function unsure(rim: 'clean' | 'dirty' | null, what: string): JudgedCell {
  return rim === 'dirty'
    ? {
        verdict: 'uncertain',
        words: `Open on a rim that does not pass says nothing ${what}. Clean the rim, then again.`,
      }
    : {
        verdict: 'uncertain',
        words: `Open, but the rim was not tried: two probes on it first, or this says nothing ${what}.`,
      }
}

/**
 * Ohms as a meter's face shows them.
 *
 * @example showOhms(0.42) // '0.4 Ω'
 */
export function showOhms(ohms: number): string {
  if (ohms === Number.POSITIVE_INFINITY) return 'open'
  if (ohms >= 1e6) return `${(ohms / 1e6).toPrecision(2)} MΩ`
  if (ohms >= 1000) return `${(ohms / 1000).toPrecision(2)} kΩ`
  return `${ohms >= 99.5 ? Math.round(ohms) : ohms >= 9.95 ? ohms.toFixed(0) : ohms.toFixed(1)} Ω`
}

/**
 * The next cell worth measuring; null when the sheet is full. First whether the collecting wheels carry, truck by
 * truck, then whether the sides are kept apart, last what leads nowhere anyhow; a rim always before what is measured
 * through it.
 *
 * @example
 * nextCell(expectedContinuity(describeConstruction('tank-can')), {})
 * // { point: 'driver-1.left', column: 'rim' }
 */
export function nextCell(plan: ContinuityPlan, readings: Readonly<Record<string, WheelReadings>>): SheetCell | null {
  const trucks = [...new Set(plan.wheels.map((wheel) => wheel.truck))]
  const leads = new Set(plan.wheels.filter((wheel) => wheel.collects).map((wheel) => wheel.truck))
  const urgency = (wheel: ContinuityWheel, column: ContinuityColumn): number =>
    wheel.collects && (column === 'rim' || column === 'own') ? 0 : leads.has(wheel.truck) ? 1 : 2
  const open = plan.wheels.flatMap((wheel, at) =>
    continuityColumns
      .filter((column) => wheel.expected[column] && !readings[wheel.point]?.[column])
      .map((column) => ({
        point: wheel.point,
        column,
        order: [urgency(wheel, column), trucks.indexOf(wheel.truck), continuityColumns.indexOf(column), at],
      })),
  )
  const first = open.sort(
    (one, other) =>
      one.order.map((value, index) => value - (other.order[index] as number)).find((difference) => difference !== 0) ??
      0,
  )[0]
  return first ? { point: first.point, column: first.column } : null
}
