import { noChanges, type KnowledgeChanges } from '../core/knowledge/knowledge-changes'
import type { Fault, Remedy } from '../core/knowledge/knowledge-schema'
import { diagnosisKnowledge } from '../core/knowledge/diagnosis-knowledge'

const fault = (id: string, change: Partial<Fault>): Fault => ({ ...need(diagnosisKnowledge.faults, id), ...change })
const remedy = (id: string, change: Partial<Remedy>): Remedy => ({
  ...need(diagnosisKnowledge.remedies, id),
  ...change,
})

function need<T extends { readonly id: string }>(rows: readonly T[], id: string): T {
  const row = rows.find((entry) => entry.id === id)
  if (!row) throw new RangeError(`There is no row “${id}” in the knowledge.`)
  return row
}

/** What the bench found different with a type, by its key. */
export const demoTypeKnowledge: Readonly<Record<string, KnowledgeChanges>> = {
  kontor: {
    ...noChanges,
    faults: [
      fault('sequence-sticks', { prior: 0.18, source: 'this bench: three of the last five Kontors' }),
      fault('sequence-coil-open', { prior: 0.05, source: 'this bench: fine wire, breaks at the tag' }),
    ],
    remedies: [
      remedy('free-sequence', {
        minutes: 12,
        caution: 'The pawl spring flies: a finger on it, glasses on.',
        source: 'this bench',
      }),
    ],
  },
}
