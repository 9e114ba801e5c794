import { applyDifferences } from '../core/engine/apply-differences'
import type { EngineDescription } from '../core/engine/description-schema'
import type { Difference } from '../core/engine/difference-schema'
import { differenceInWords } from '../core/engine/difference-in-words'
import { inPresentForm } from '../core/engine/older-description'
import { driveTrain } from '../core/engine/drive-train'
import { describeConstruction, UNKNOWN_CONSTRUCTION } from '../core/knowledge/constructions'
import type { ComponentRow, EngineTypeRow } from '../messages/book'
import type { EngineUnit } from '../messages/book-entries'
import { withNotedUnits } from './noted-units'

/** What an engine's description is made from: the book's type, its own differences, and what is fitted. */
export interface EngineLayers {
  readonly type: EngineTypeRow
  readonly adaptations: readonly Difference[]
  readonly components: readonly ComponentRow[]
  /** The shop's own construction the type was given; null where it has one that ships. */
  readonly template: EngineDescription | null
  /** The units of this very engine as they were noted; the construction's alone where none are. */
  readonly units?: readonly EngineUnit[]
}

/** The type's figures, its own list, what is fitted to the engine, or the engine's own list. */
export type DifferenceOrigin = 'figures' | 'type' | 'fitted' | 'engine'

export interface DescribedDifference {
  readonly origin: DifferenceOrigin
  /** Its place in its own list. */
  readonly index: number
  readonly difference: Difference
  readonly words: string
  /** Why it could not be applied; null where it was. */
  readonly problem: string | null
}

export interface DescribedEngine {
  readonly construction: EngineDescription
  readonly description: EngineDescription
  /** True while nobody has said how it is made: a generic machine stands in. */
  readonly generic: boolean
  readonly differences: readonly DescribedDifference[]
}

/** The one description of an engine: its construction, then the type's figures and differences, then its own. */
export function describeEngine({ type, adaptations, components, template, units = [] }: EngineLayers): DescribedEngine {
  const construction = template ? inPresentForm(template) : describeConstruction(type.construction, type.power)
  const layers: ReadonlyArray<readonly [DifferenceOrigin, readonly Difference[]]> = [
    ['figures', differencesOfFigures(type, construction)],
    ['type', type.adaptations],
    ['fitted', fittedDecoder(components, type)],
    ['engine', adaptations],
  ]
  let description = construction
  const differences: DescribedDifference[] = []
  for (const [origin, list] of layers) {
    const adapted = applyDifferences(description, list)
    const before = description
    differences.push(
      ...list.map((difference, index): DescribedDifference => ({
        origin,
        index,
        difference,
        words: differenceInWords(difference, before),
        problem: adapted.flagged.find((entry) => entry.index === index)?.message ?? null,
      })),
    )
    description = adapted.description
  }
  return {
    construction,
    description: withNotedUnits(description, units),
    generic: template === null && type.construction === UNKNOWN_CONSTRUCTION,
    differences,
  }
}

/** What the type's own figures say, where they are known: ratio, wheels, motor. */
function differencesOfFigures(type: EngineTypeRow, construction: EngineDescription): Difference[] {
  const train = driveTrain(construction)
  const driven = construction.wheelSets.filter((wheelSet) => train.turning.has(wheelSet.rotor))
  const ratio = 1 / (train.wheels.find((wheel) => wheel.driven)?.order ?? Number.POSITIVE_INFINITY)
  const [motor] = construction.motors
  const found: Difference[] = []
  if (type.gearRatio !== null && driven.length > 0 && Math.abs(type.gearRatio - ratio) > 0.005 * ratio)
    found.push({ kind: 'gear-ratio', turns: type.gearRatio })
  if (type.wheelDiameterMm !== null && driven.some((wheelSet) => wheelSet.diameterMm !== type.wheelDiameterMm)) {
    found.push({ kind: 'wheels', wheelSets: driven.map((wheelSet) => wheelSet.id), diameterMm: type.wheelDiameterMm })
  }
  const winding = construction.components.find((component) => component.id === motor?.armature)
  const kind = type.motorKind === 'unknown' || type.motorKind === 'ac-series' ? motor?.kind : type.motorKind
  const segments = type.poles !== null && type.poles >= 3 ? type.poles : motor?.segments
  if (
    motor &&
    winding?.ohms &&
    segments &&
    motor.field === null &&
    kind &&
    kind !== 'ac-series' &&
    (kind !== motor.kind || segments !== motor.segments)
  ) {
    found.push({
      kind: 'motor',
      motor: motor.id,
      name: `${poleWords[segments] ?? `${segments}-pole`} ${motorWords[kind]}`,
      motorKind: kind,
      ohms: winding.ohms,
      backEmf: motor.backEmf,
      segments,
    })
  }
  return found
}

const poleWords: Readonly<Record<number, string>> = { 3: 'Three-pole', 5: 'Five-pole', 7: 'Seven-pole' }
const motorWords = {
  'open-frame': 'open-frame motor',
  'side-brush': 'side-brush motor',
  can: 'can motor',
  coreless: 'coreless motor',
} as const

/** A decoder that is fitted counts whether or not the type runs on DCC. */
function fittedDecoder(components: readonly ComponentRow[], type: EngineTypeRow): Difference[] {
  const fitted = components.some((component) => component.kind === 'decoder' && component.removedOn === null)
  return fitted && type.power !== 'dcc' ? [{ kind: 'decoder' }] : []
}
