import { benchTestsOf } from '../core/diagnosis/places/bench-tests'
import { placesOf } from '../core/diagnosis/places/places-of'
import { suspectsOf } from '../core/diagnosis/places/suspects'
import type { EngineDescription } from '../core/engine/description-schema'
import { atStart } from '../core/engine/name-in-sentence'
import { diagnosisKnowledge } from '../core/knowledge/diagnosis-knowledge'
import type { KnowledgeChanges, KnowledgeList } from '../core/knowledge/knowledge-changes'
import type { Fault, Knowledge, Remedy, Test } from '../core/knowledge/knowledge-schema'
import { nameInGeneral } from './name-in-general'

/** A row of a type's own copy of the knowledge, as it is read beside what ships. */
export interface KnowledgeRow {
  readonly id: string
  readonly name: string
  readonly aside: string
  readonly figures: readonly string[]
  /** What the figures are as they ship; null where they do not differ. */
  readonly shipped: readonly string[] | null
  readonly state: 'as shipped' | 'changed' | 'own' | 'left out'
  /** Whether it concerns this engine: a fault it has a place for, a test that can be made on it, a remedy of such a fault. */
  readonly concerns: boolean
}

type AnyRow = Fault | Test | Remedy
type Told = Pick<KnowledgeRow, 'name' | 'aside' | 'figures'>

/**
 * The rows of one list of a type's copy, those it leaves out at the end.
 *
 * @param list which of them
 * @param copy of the type
 * @param changes it was made by
 * @param description an engine of the type
 */
export function knowledgeRows(
  list: KnowledgeList,
  copy: Knowledge,
  changes: KnowledgeChanges,
  description: EngineDescription,
): KnowledgeRow[] {
  const places = placesOf(description)
  const suspects = suspectsOf(description, places, copy, new Set())
  const placeNames = new Map(suspects.map(({ fault, name }) => [fault.id, name]))
  const power = new Set([`power-${description.power}` as const])
  const concerned: Readonly<Record<KnowledgeList, () => Set<string>>> = {
    faults: () => new Set(suspects.map(({ fault }) => fault.id)),
    tests: () => new Set(benchTestsOf(description, places, copy, power).map(({ test }) => test.id)),
    remedies: () => new Set(suspects.map(({ remedy }) => remedy.id)),
  }
  const here = concerned[list]()
  const tell = telling(copy, placeNames)[list] as (row: AnyRow) => Told
  const shippedById = new Map((diagnosisKnowledge[list] as readonly AnyRow[]).map((row) => [row.id, row]))
  const own = new Set(changes[list].map((row) => row.id))
  const kept = (copy[list] as readonly AnyRow[]).map((row): KnowledgeRow => {
    const shipped = shippedById.get(row.id)
    return {
      id: row.id,
      ...tell(row),
      shipped: shipped && own.has(row.id) ? tell(shipped).figures : null,
      state: !shipped ? 'own' : own.has(row.id) ? 'changed' : 'as shipped',
      concerns: here.has(row.id),
    }
  })
  const left = changes.without[list].flatMap((id): KnowledgeRow[] => {
    const row = shippedById.get(id)
    return row ? [{ id, ...tell(row), shipped: null, state: 'left out', concerns: here.has(id) }] : []
  })
  return [...kept, ...left]
}

const percent = (chance: number): string => `${Number((chance * 100).toPrecision(2))} %`

function telling(copy: Knowledge, placeNames: ReadonlyMap<string, string>) {
  return {
    faults: (row: Fault): Told => ({
      name: atStart(
        row.name === diagnosisKnowledge.faults.find((fault) => fault.id === row.id)?.name
          ? (placeNames.get(row.id) ?? nameInGeneral(row))
          : nameInGeneral(row),
      ),
      aside: `${row.area.replaceAll('-', ' ')}; ${copy.remedies.find((remedy) => remedy.id === row.remedy)?.name ?? row.remedy}`,
      figures: [percent(row.prior)],
    }),
    tests: (row: Test): Told => ({
      name: nameInGeneral(row),
      aside: row.outcomes.map((outcome) => outcome.name).join(', '),
      figures: [`${row.minutes} min`, percent(row.misread)],
    }),
    remedies: (row: Remedy): Told => ({
      name: row.name,
      aside: [...row.parts, ...row.products].join(', '),
      figures: [`${row.minutes} min`, percent(row.success)],
    }),
  }
}
