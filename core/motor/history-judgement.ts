import type { IntervalFigure } from '../measure/measured-value'
import { historyFigureNames, type HistoryFigureName, type MotorFigures } from './motor-figures'
import { shrunkSpread, type ClassPrior } from './shrunk-spread'

/** A sheet of this engine from before, with its motor of today. */
export interface EarlierSheet {
  readonly id: string
  /** ms since 1970. */
  readonly at: number
  readonly figures: MotorFigures
}

export interface MotorHistory {
  /** This engine's own, oldest first. */
  readonly own: readonly EarlierSheet[]
  /** The shop's other engines of the type, one sheet each, taken after the work. */
  readonly shop: readonly MotorFigures[]
  /** Of the logarithms, for the class of motor. */
  readonly prior: Readonly<Record<HistoryFigureName, ClassPrior>>
}

/** One figure against what it was and what is usual. */
export interface HistoryLine {
  readonly name: HistoryFigureName
  readonly now: IntervalFigure
  /** Against this engine's latest earlier sheet that has the figure; `share` is now over then, less one. */
  readonly own: {
    readonly sheet: string
    readonly at: number
    readonly then: IntervalFigure
    readonly share: number
    readonly beyondDoubt: boolean
  } | null
  /** Against its first sheet of all, where that is another: what the years did. */
  readonly drift: { readonly at: number; readonly share: number; readonly beyondDoubt: boolean } | null
  /** Against sound examples of the type: where 95 of 100 lie, and how many standard deviations off this one is. */
  readonly usual: {
    readonly value: number
    readonly low: number
    readonly high: number
    readonly examples: number
    readonly deviations: number
  }
  readonly verdict: 'as-usual' | 'low' | 'high'
}

export interface HistoryJudgement {
  readonly lines: readonly HistoryLine[]
  /** The figure that changed, or stands out, most; null where nothing does. */
  readonly most: { readonly line: HistoryLine; readonly since: 'own' | 'usual' } | null
  /** What the figures together usually mean; null where nothing stands out. */
  readonly meaning: string | null
}

const COVERAGE = 1.96
/** Beyond so many standard deviations a figure is called unusual: one sound example in twenty would be. */
const UNUSUAL = 2

/**
 * Judges a motor's figures against its own earlier sheets, the shop's examples of the type, and the class.
 *
 * @param now what today's sheet says
 */
export function judgeAgainstHistory(now: MotorFigures, history: MotorHistory): HistoryJudgement {
  const lines = historyFigureNames.flatMap((name) => {
    const figure = now[name]
    return figure ? [lineOf(name, figure, history)] : []
  })
  return { lines, most: mostOf(lines), meaning: meaningOf(lines) }
}

function lineOf(name: HistoryFigureName, now: IntervalFigure, history: MotorHistory): HistoryLine {
  const expected = shrunkSpread(
    history.shop.flatMap((figures) => (figures[name] ? [Math.log(figures[name].value)] : [])),
    history.prior[name],
  )
  const deviations = (Math.log(now.value) - expected.centre) / Math.hypot(expected.deviation, relative(now))
  const earlier = [...history.own].reverse().find((sheet) => sheet.figures[name])
  const then = earlier?.figures[name]
  const first = history.own.find((sheet) => sheet.figures[name])
  const atFirst = first !== earlier ? first?.figures[name] : undefined
  const own =
    earlier && then
      ? {
          sheet: earlier.id,
          at: earlier.at,
          then,
          share: now.value / then.value - 1,
          beyondDoubt: changeDeviations(now, then) > COVERAGE,
        }
      : null
  return {
    name,
    now,
    own,
    drift:
      first && atFirst
        ? { at: first.at, share: now.value / atFirst.value - 1, beyondDoubt: changeDeviations(now, atFirst) > COVERAGE }
        : null,
    usual: {
      value: Math.exp(expected.centre),
      low: Math.exp(expected.centre - COVERAGE * expected.deviation),
      high: Math.exp(expected.centre + COVERAGE * expected.deviation),
      examples: expected.examples,
      deviations,
    },
    verdict: deviations > UNUSUAL ? 'high' : deviations < -UNUSUAL ? 'low' : 'as-usual',
  }
}

/** Standard uncertainty as a share of the value: that of its logarithm, to first order. */
const relative = (figure: IntervalFigure): number => (figure.high - figure.low) / 2 / COVERAGE / figure.value

/** How far two sheets of one engine lie apart, in their combined standard uncertainties. */
function changeDeviations(now: IntervalFigure, then: IntervalFigure): number {
  return Math.abs(Math.log(now.value / then.value)) / Math.hypot(relative(now), relative(then))
}

function mostOf(lines: readonly HistoryLine[]): HistoryJudgement['most'] {
  const changed = lines
    .filter((line) => line.own?.beyondDoubt)
    .sort((first, second) => Math.abs(Math.log1p(second.own?.share ?? 0)) - Math.abs(Math.log1p(first.own?.share ?? 0)))
  if (changed[0]) return { line: changed[0], since: 'own' }
  const unusual = lines
    .filter((line) => line.verdict !== 'as-usual')
    .sort((first, second) => Math.abs(second.usual.deviations) - Math.abs(first.usual.deviations))
  return unusual[0] ? { line: unusual[0], since: 'usual' } : null
}

/** What usually lies behind a pattern, first fit first. Common practice. */
const MEANINGS: ReadonlyArray<{
  readonly if: Partial<Record<HistoryFigureName, 'low' | 'high'>>
  readonly means: string
}> = [
  {
    if: { resistance: 'low', backEmf: 'low' },
    means:
      'Turns are missing from both: usually a shorted winding or carbon across a gap. Clean the gaps, then ohms from segment to segment.',
  },
  {
    if: { resistance: 'high', keepsTurningDownTo: 'high' },
    means: 'Usually the brushes or a dirty commutator: clean it, look at springs and seats, and measure again.',
  },
  {
    if: { resistance: 'high' },
    means:
      'Usually contact at the brushes or a joint: commutator, springs, brush seats; an open winding shows in one direction of the armature only.',
  },
  {
    if: { resistance: 'low' },
    means: 'Usually a shorted winding or carbon across a gap; or another motor than the book says.',
  },
  {
    if: { backEmf: 'low', noLoadCurrent: 'high' },
    means:
      'Usually a tired magnet. Look at armature bearings before it is strengthened: a weak magnet hides worn ones.',
  },
  { if: { backEmf: 'low' }, means: 'Usually a tired magnet: it runs fast and light, and pulls little.' },
  {
    if: { backEmf: 'high' },
    means: 'A stronger magnet than usual, or another motor: note which, and listen for worn bearings.',
  },
  {
    if: { noLoadCurrent: 'high', keepsTurningDownTo: 'high' },
    means: 'Usually drag: old grease, a dry bearing, a mesh too tight, hair on a shaft.',
  },
  {
    if: { noLoadCurrent: 'high' },
    means: 'Usually drag while running: old grease, a dry bearing, something that rubs.',
  },
  {
    if: { keepsTurningDownTo: 'high' },
    means: 'Usually something that sticks at standstill, or a poor contact at low volts.',
  },
]

function meaningOf(lines: readonly HistoryLine[]): string | null {
  const state = (name: HistoryFigureName): 'low' | 'high' | null => {
    const line = lines.find((entry) => entry.name === name)
    if (!line) return null
    if (line.verdict !== 'as-usual') return line.verdict
    return line.own?.beyondDoubt && Math.abs(line.own.share) > NOTICEABLE_SHARE
      ? line.own.share > 0
        ? 'high'
        : 'low'
      : null
  }
  return (
    MEANINGS.find((entry) => Object.entries(entry.if).every(([name, way]) => state(name as HistoryFigureName) === way))
      ?.means ?? null
  )
}

/** A change of its own that is beyond doubt but smaller than this means nothing yet. Common practice. */
const NOTICEABLE_SHARE = 0.08
