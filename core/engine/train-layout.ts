import type { EngineDescription } from './description-schema'

/** Judged: what a unit reaches beyond its last wheel, and the gap between coupled units. */
const OVERHANG_MM = 16
const COUPLING_MM = 18
const LEAST_UNIT_MM = 46

export interface UnitPlace {
  readonly unit: string
  readonly name: string
  /** Its front behind the front of the train, mm. */
  readonly startMm: number
  readonly lengthMm: number
}

/** The units one behind the other as they run, with lengths judged from their wheels. */
export function trainLayout(description: EngineDescription): UnitPlace[] {
  const reach = (unit: string): number =>
    Math.max(
      0,
      ...description.wheelSets.filter((entry) => entry.unit === unit).map((entry) => entry.xMm),
      ...description.centrePickups.filter((entry) => entry.unit === unit).map((entry) => entry.xMm),
    )
  let startMm = 0
  return description.units.map(({ id, name }) => {
    const lengthMm = Math.max(LEAST_UNIT_MM, reach(id) + OVERHANG_MM)
    const place = { unit: id, name, startMm, lengthMm }
    startMm += lengthMm + COUPLING_MM
    return place
  })
}

/** Where along the train something stands, mm behind its front, from its place in its own unit. */
export function placeInTrain(
  description: EngineDescription,
): (place: { readonly unit: string; readonly xMm: number }) => number {
  const starts = new Map(trainLayout(description).map((entry) => [entry.unit, entry.startMm]))
  return ({ unit, xMm }) => (starts.get(unit) ?? 0) + xMm
}
