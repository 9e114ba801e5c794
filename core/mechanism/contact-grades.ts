import { CLOSED_OHMS } from '../continuity/expected-continuity'
import type { JudgedWheel } from '../continuity/judge-continuity'
import type { EngineDescription } from '../engine/description-schema'
import { pickupMap } from '../engine/pickup-map'
import { placeInTrain } from '../engine/train-layout'
import type { ContactPoint } from './stall-risk'

/** How well one wheel, roller or shoe touches. */
export const contactGrades = ['clean', 'dull', 'dirty', 'dead'] as const
export type ContactGrade = (typeof contactGrades)[number]

export const contactGradeWords: Readonly<Record<ContactGrade, string>> = {
  clean: 'bright',
  dull: 'dull',
  dirty: 'dirty',
  dead: 'never touches',
}

/** Chance that it fails to touch at one place of the track; judged, no published source. */
export const failChances: Readonly<Record<ContactGrade, number>> = { clean: 0.005, dull: 0.05, dirty: 0.3, dead: 1 }

/** Where a wheel was not measured. */
export const UNMEASURED_GRADE: ContactGrade = 'dull'

/** What a wheel's continuity readings say of how well it will collect; null where they do not say. */
export function gradeOf({ readings, cells }: JudgedWheel): ContactGrade | null {
  const { own } = readings
  const rim = cells.rim?.verdict
  if (!own || !cells.own) return rim === 'broken' ? 'dirty' : null
  if (own.kind === 'open') return 'dead'
  if (own.kind === 'ohms' && own.ohms > CLOSED_OHMS && cells.own.verdict === 'high') return 'dirty'
  return rim === 'broken' ? 'dull' : 'clean'
}

/**
 * The collecting points of an engine as they stand one behind the other.
 *
 * @param description the engine
 * @param grades by pickup point; what is not named counts as not measured
 */
export function contactPoints(
  description: EngineDescription,
  grades: Readonly<Record<string, ContactGrade>>,
): ContactPoint[] {
  const along = placeInTrain(description)
  return pickupMap(description).flatMap((point) =>
    point.collects && point.rail !== null
      ? [
          {
            id: point.id,
            pole: point.rail,
            atMm: along(point),
            failChance: failChances[grades[point.id] ?? UNMEASURED_GRADE],
          },
        ]
      : [],
  )
}

/** How many points of a rail touch on the average: three dirty wheels are not three wheels. */
export function effectivePoints(
  points: readonly ContactPoint[],
  pole: ContactPoint['pole'],
): { readonly fitted: number; readonly effective: number } {
  const here = points.filter((point) => point.pole === pole)
  return { fitted: here.length, effective: here.reduce((sum, point) => sum + 1 - point.failChance, 0) }
}
