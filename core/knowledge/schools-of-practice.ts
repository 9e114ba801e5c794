import type { EngineDescription, PartKind } from '../engine/description-schema'
import { plastics } from '../engine/plastics'
import type { Knowledge, Remedy } from './knowledge-schema'

/** Where practitioners disagree, and what a shop may hold with. */
export interface School {
  readonly id: string
  readonly question: string
  /** The first is what the product holds with until told otherwise. */
  readonly options: readonly SchoolOption[]
}

export interface SchoolOption {
  readonly id: string
  readonly name: string
  readonly because: string
  readonly changes: readonly RemedyChange[]
}

/** How a remedy is done by those who hold with an option. Chance of success and what it mends are facts and stay. */
export interface RemedyChange extends Partial<Pick<Remedy, 'name' | 'minutes' | 'parts' | 'products' | 'caution'>> {
  readonly remedy: string
  /** Only on machines run so. */
  readonly power?: EngineDescription['power']
  /** Only where nothing that oil reaches is plastic, or may be. */
  readonly onlyAllMetal?: boolean
}

/** By school the option held with; the first where none is named. */
export type ChosenSchools = Readonly<Record<string, string>>

/** Parts that oil reaches. */
const oiled: ReadonlySet<PartKind> = new Set([
  'gear',
  'shaft',
  'axle',
  'wheel',
  'chassis',
  'motor',
  'motor-part',
  'rod',
])

export function optionOf(school: School, chosen: ChosenSchools): SchoolOption {
  return school.options.find((option) => option.id === chosen[school.id]) ?? (school.options[0] as SchoolOption)
}

/**
 * The knowledge as a shop practises it: remedies done its way. Faults, tests, chances and successes are the same under
 * every school; only what is advised, and what it takes, differs.
 *
 * @param knowledge checked
 * @param schools all there are
 * @param chosen options held with
 * @param description the engine it is for
 */
export function practised(
  knowledge: Knowledge,
  schools: readonly School[],
  chosen: ChosenSchools,
  description: EngineDescription,
): Knowledge {
  const allMetal = !description.parts.some(
    (part) => oiled.has(part.kind) && part.materials.some((material) => plastics.has(material)),
  )
  const changes = schools
    .flatMap((school) => optionOf(school, chosen).changes)
    .filter(
      (change) =>
        (change.power === undefined || change.power === description.power) && (!change.onlyAllMetal || allMetal),
    )
  if (changes.length === 0) return knowledge
  const remedies = knowledge.remedies.map((remedy) =>
    changes
      .filter((change) => change.remedy === remedy.id)
      .reduce<Remedy>(
        (done, { remedy: _remedy, power: _power, onlyAllMetal: _onlyAllMetal, ...change }) => ({ ...done, ...change }),
        remedy,
      ),
  )
  return { ...knowledge, remedies }
}
