import { Type, type Static } from 'typebox'
import { closed } from '../schema/pieces'
import { Fault, Knowledge, Remedy, Test } from './knowledge-schema'

const Gone = Type.Array(Type.String({ minLength: 1, maxLength: 60 }), { maxItems: 300, uniqueItems: true })

/** How a copy of the knowledge departs from what ships: rows put in place of shipped ones or added, and rows left out. */
export const KnowledgeChanges = Type.Object(
  {
    faults: Type.Array(Fault, { maxItems: 200 }),
    tests: Type.Array(Test, { maxItems: 200 }),
    remedies: Type.Array(Remedy, { maxItems: 200 }),
    without: Type.Object({ faults: Gone, tests: Gone, remedies: Gone }, closed),
    /** Chance that something no row names is wrong; null: as it ships. */
    unlisted: Type.Union([Type.Null(), Knowledge.properties.unlisted]),
  },
  closed,
)
export type KnowledgeChanges = Static<typeof KnowledgeChanges>

export const noChanges: KnowledgeChanges = {
  faults: [],
  tests: [],
  remedies: [],
  without: { faults: [], tests: [], remedies: [] },
  unlisted: null,
}
export const knowledgeLists = ['faults', 'tests', 'remedies'] as const
export type KnowledgeList = (typeof knowledgeLists)[number]

/**
 * The copy: shipped rows with the changes laid over them, new rows at the end of their list. What ships stays as it is.
 *
 * @param shipped checked
 * @param changes by schema; whether the copy still holds together is for `checkKnowledge`
 */
export function changedKnowledge(shipped: Knowledge, changes: KnowledgeChanges | null): Knowledge {
  if (changes === null) return shipped
  const laid = <T extends { readonly id: string }>(
    rows: readonly T[],
    own: readonly T[],
    without: readonly string[],
  ): T[] => {
    const byId = new Map(own.map((row) => [row.id, row]))
    const known = new Set(rows.map((row) => row.id))
    const gone = new Set(without)
    return [
      ...rows.flatMap((row) => (gone.has(row.id) ? [] : [byId.get(row.id) ?? row])),
      ...own.filter((row) => !known.has(row.id) && !gone.has(row.id)),
    ]
  }
  return {
    ...shipped,
    unlisted: changes.unlisted ?? shipped.unlisted,
    faults: laid(shipped.faults, changes.faults, changes.without.faults),
    tests: laid(shipped.tests, changes.tests, changes.without.tests),
    remedies: laid(shipped.remedies, changes.remedies, changes.without.remedies),
  }
}

/**
 * What makes one knowledge of another; the order of rows does not count.
 *
 * @returns changes that `changedKnowledge` turns back into the copy, but for rows that are as they ship
 */
export function changesBetween(shipped: Knowledge, copy: Knowledge): KnowledgeChanges {
  const different = <T extends { readonly id: string }>(rows: readonly T[], own: readonly T[]): T[] => {
    const byId = new Map(rows.map((row) => [row.id, canonical(row)]))
    return own.filter((row) => byId.get(row.id) !== canonical(row))
  }
  const missing = (rows: readonly { readonly id: string }[], own: readonly { readonly id: string }[]): string[] => {
    const kept = new Set(own.map((row) => row.id))
    return rows.filter((row) => !kept.has(row.id)).map((row) => row.id)
  }
  return {
    faults: different(shipped.faults, copy.faults),
    tests: different(shipped.tests, copy.tests),
    remedies: different(shipped.remedies, copy.remedies),
    without: {
      faults: missing(shipped.faults, copy.faults),
      tests: missing(shipped.tests, copy.tests),
      remedies: missing(shipped.remedies, copy.remedies),
    },
    unlisted: copy.unlisted === shipped.unlisted ? null : copy.unlisted,
  }
}

/** The changes without whatever is said of one row: it is as it ships, or is not there. */
export function asShipped(changes: KnowledgeChanges, list: KnowledgeList, id: string): KnowledgeChanges {
  return {
    ...changes,
    [list]: changes[list].filter((row) => row.id !== id),
    without: { ...changes.without, [list]: changes.without[list].filter((entry) => entry !== id) },
  }
}

/** The changes with one row left out: one that ships is named, one of the copy's own is gone. */
export function leftOut(
  shipped: Knowledge,
  changes: KnowledgeChanges,
  list: KnowledgeList,
  id: string,
): KnowledgeChanges {
  const next = asShipped(changes, list, id)
  return shipped[list].some((row) => row.id === id)
    ? { ...next, without: { ...next.without, [list]: [...next.without[list], id] } }
    : next
}

/**
 * @example countChanges(changesBetween(diagnosisKnowledge, diagnosisKnowledge)) // 0
 */
export function countChanges(changes: KnowledgeChanges): number {
  return knowledgeLists.reduce(
    (sum, list) => sum + changes[list].length + changes.without[list].length,
    changes.unlisted === null ? 0 : 1,
  )
}

/** Fields in whatever order they were written. */
function canonical(value: unknown): string {
  return JSON.stringify(value, (_, part: unknown) =>
    part !== null && typeof part === 'object' && !Array.isArray(part)
      ? Object.fromEntries(Object.entries(part).sort(([first], [second]) => (first < second ? -1 : 1)))
      : part,
  )
}
