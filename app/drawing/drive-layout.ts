import type { DriveLink, EngineDescription, Rotor } from '~~/core/engine/description-schema'
import type { DriveTrain } from '~~/core/engine/drive-train'

export interface DrawnRotor {
  readonly rotor: Rotor
  readonly x: number
  readonly y: number
  readonly radius: number
  readonly turns: number
  /** An axle in two halves with a muff between them. */
  readonly split: boolean
}

export interface DrawnLink {
  readonly link: DriveLink
  readonly x1: number
  readonly y1: number
  readonly x2: number
  readonly y2: number
}

const COLUMN = 118
const ROW = 84

/**
 * The drive as a drawing: motor at the left, each part in the column of its distance from it, axles at the right from
 * front to back, those that rods couple in one column. Sizes follow the teeth and the wheels.
 */
export function layOutDrive(
  description: EngineDescription,
  train: DriveTrain,
): { width: number; height: number; rotors: DrawnRotor[]; links: DrawnLink[] } {
  const links = new Map(description.links.map((link) => [link.id, link]))
  const depth = (rotor: string): number =>
    (train.turning.get(rotor)?.path ?? []).filter((id) => links.get(id)?.kind !== 'rods').length
  // The far half of a split axle lies behind its own wheel: it is drawn with it.
  const farHalves = new Set(description.links.filter((link) => link.kind === 'muff').map((link) => link.to))
  const splitAxles = new Set(description.links.filter((link) => link.kind === 'muff').map((link) => link.from))
  const shown = description.rotors.filter((rotor) => train.turning.has(rotor.id) && !farHalves.has(rotor.id))
  const position = new Map(
    description.wheelSets.map((wheelSet) => [
      wheelSet.rotor,
      wheelSet.xMm + description.units.findIndex((unit) => unit.id === wheelSet.unit) * 10_000,
    ]),
  )
  const parentOf = (rotor: string): string | null => {
    const last = links.get(train.turning.get(rotor)?.path.at(-1) ?? '')
    return last ? (last.to === rotor ? last.from : last.to) : null
  }
  const children = (rotor: string): Rotor[] => shown.filter((other) => parentOf(other.id) === rotor)
  const places = new Map<string, number>()
  let next = 0
  const place = (rotor: Rotor): number => {
    const below = children(rotor.id).sort((first, second) => leftmost(first) - leftmost(second))
    const coupled = below.filter((other) => depth(other.id) === depth(rotor.id))
    const further = below.filter((other) => !coupled.includes(other))
    // An axle has a row of its own, among those it turns; anything else stands in the middle of what it turns.
    const own = rotor.kind === 'axle' || further.length === 0
    const inFront = (other: Rotor): boolean => leftmost(other) < (position.get(rotor.id) ?? 0)
    for (const other of [...coupled, ...(own ? further : [])].filter(inFront)) place(other)
    const row = own ? next++ : further.map(place).reduce((sum, value) => sum + value, 0) / further.length
    places.set(rotor.id, row)
    for (const other of [...coupled, ...(own ? further : [])].filter((entry) => !inFront(entry))) place(other)
    return row
  }
  const leftmost = (rotor: Rotor): number =>
    Math.min(position.get(rotor.id) ?? Number.POSITIVE_INFINITY, ...children(rotor.id).map(leftmost))
  for (const motor of description.motors) {
    const rotor = shown.find((entry) => entry.id === motor.rotor)
    if (rotor && !places.has(rotor.id)) place(rotor)
  }
  const deepest = Math.max(0, ...shown.map((rotor) => depth(rotor.id)))
  // Axles stand together at the right, however many gears lie before them.
  const columnOf = (rotor: Rotor): number => (rotor.kind === 'axle' ? deepest : depth(rotor.id))
  const at = (rotor: string) => {
    const found = description.rotors.find((entry) => entry.id === rotor)
    return { x: 62 + (found ? columnOf(found) : 0) * COLUMN, y: 52 + (places.get(rotor) ?? 0) * ROW }
  }
  return {
    width: 62 + deepest * COLUMN + 190,
    height: 34 + Math.max(1, next) * ROW,
    rotors: shown.map((rotor) => ({
      rotor,
      ...at(rotor.id),
      radius: radiusOf(description, rotor),
      turns: train.turning.get(rotor.id)?.turnsPerMotorTurn ?? 0,
      split: splitAxles.has(rotor.id),
    })),
    links: description.links
      .filter(
        (link) =>
          train.turning.has(link.from) &&
          train.turning.has(link.to) &&
          !farHalves.has(link.from) &&
          !farHalves.has(link.to),
      )
      .map((link) => ({ link, x1: at(link.from).x, y1: at(link.from).y, x2: at(link.to).x, y2: at(link.to).y })),
  }
}

function radiusOf(description: EngineDescription, rotor: Rotor): number {
  if (rotor.kind === 'axle') {
    const diameter = description.wheelSets.find((wheelSet) => wheelSet.rotor === rotor.id)?.diameterMm ?? 10
    const largest = Math.max(...description.wheelSets.map((wheelSet) => wheelSet.diameterMm))
    return 14 + 16 * (diameter / largest)
  }
  const teeth = description.links.flatMap((link) =>
    link.to === rotor.id && link.teethTo !== null
      ? [link.teethTo]
      : link.from === rotor.id && link.teethFrom !== null && link.kind !== 'worm'
        ? [link.teethFrom]
        : [],
  )
  return rotor.kind === 'armature' ? 26 : teeth.length > 0 ? Math.min(28, 8 + Math.sqrt(Math.max(...teeth)) * 2.6) : 12
}
