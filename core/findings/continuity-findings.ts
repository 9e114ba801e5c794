import type { JudgedWheel } from '../continuity/judge-continuity'
import { CLOSED_OHMS } from '../continuity/expected-continuity'
import type { EngineDescription } from '../engine/description-schema'
import { benchTestsOf } from '../diagnosis/places/bench-tests'
import type { Knowledge } from '../knowledge/knowledge-schema'
import { placesOf } from '../diagnosis/places/places-of'

/** A test outcome that a sheet shows by itself. */
export interface GatheredOutcome {
  readonly test: string
  readonly outcome: string
  /** In which words it stands among the findings. */
  readonly words: string
}

/**
 * What a continuity sheet says to the diagnosis, truck by truck: how many wheels carry to their lead, whether the
 * rims themselves pass, and whether the insulated wheels are insulated. Nothing is said of a truck whose readings do
 * not settle it yet, and nothing of insulation from open readings on rims that do not pass.
 *
 * @param description the engine
 * @param knowledge checked
 * @param sheet every wheel judged
 */
export function continuityFindings(
  description: EngineDescription,
  knowledge: Knowledge,
  sheet: readonly JudgedWheel[],
): GatheredOutcome[] {
  const tests = benchTestsOf(description, placesOf(description), knowledge, new Set())
  return tests.flatMap(({ id, test, place, name }): GatheredOutcome[] => {
    const here = sheet.filter((entry) => entry.wheel.truck === place.truck)
    const outcome =
      test.id === 'rim-check'
        ? rimOutcome(here)
        : test.reading.kind === 'wheel-continuity'
          ? ownOutcome(here)
          : test.role === 'wheel-insulation' && test.reading.kind === 'component-ohms'
            ? insulationOutcome(here)
            : null
    const words = outcome && test.outcomes.find((entry) => entry.id === outcome.id)?.name
    return outcome && words
      ? [{ test: id, outcome: outcome.id, words: `${name}: ${words.toLowerCase()}${outcome.count}` }]
      : []
  })
}

interface Settled {
  readonly id: string
  readonly count: string
}

function rimOutcome(truck: readonly JudgedWheel[]): Settled | null {
  const tried = truck.filter((entry) => entry.wheel.collects && entry.cells.rim)
  const open = tried.filter((entry) => entry.cells.rim?.verdict === 'broken').length
  if (open > 0) return { id: 'open', count: `, ${open} of ${tried.length}` }
  return tried.length > 0 && tried.length === truck.filter((entry) => entry.wheel.collects).length
    ? { id: 'short', count: '' }
    : null
}

/** An open wheel counts whatever its rim is like: that it does not collect now is certain, only why is not. */
function ownOutcome(truck: readonly JudgedWheel[]): Settled | null {
  const collecting = truck.filter((entry) => entry.wheel.collects)
  const carrying = collecting.map((entry) => carries(entry)).filter((value) => value !== null)
  const good = carrying.filter(Boolean).length
  if (good > 0 && good < carrying.length) return { id: 'some', count: `, ${good} of ${carrying.length} carry` }
  if (collecting.length === 0 || carrying.length < collecting.length) return null
  return { id: good > 0 ? 'all' : 'none', count: '' }
}

function carries({ readings, cells }: JudgedWheel): boolean | null {
  if (!readings.own || !cells.own) return null
  return (
    readings.own.kind === 'closed' ||
    (readings.own.kind === 'ohms' && (readings.own.ohms <= CLOSED_OHMS || cells.own.verdict === 'good'))
  )
}

function insulationOutcome(truck: readonly JudgedWheel[]): Settled | null {
  const against = truck.flatMap((entry) =>
    (['other', 'chassis'] as const).flatMap((column) =>
      entry.wheel.expected[column] && entry.wheel.expected[column].kind !== 'closed'
        ? [entry.cells[column]?.verdict ?? null]
        : [],
    ),
  )
  const shorts = against.filter((verdict) => verdict === 'short').length
  if (shorts > 0) return { id: 'wrong', count: `, ${shorts === 1 ? 'one reading' : `${shorts} readings`} bridged` }
  return against.length > 0 && against.every((verdict) => verdict === 'good') ? { id: 'as-it-should', count: '' } : null
}
