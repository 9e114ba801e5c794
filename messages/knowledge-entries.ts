import { Type, type Static } from 'typebox'
import { KnowledgeChanges } from '../core/knowledge/knowledge-changes'
import { closed, Line, NeededLine, OrNull } from './parts'

/** What a closed job adds to what the shop knows. */
export const LearnFields = Type.Object(
  {
    /** Suspects of the search that were really so: lead-strand@leads.lead.trailing. */
    suspects: Type.Array(NeededLine(160), { maxItems: 40, uniqueItems: true }),
    /** Put at the end of what is noted of the type; empty: nothing. */
    typeNote: Line(600),
    /** Taken back: the job does not count. */
    withdrawn: Type.Boolean(),
  },
  closed,
)
export type LearnFields = Static<typeof LearnFields>

/** What was learned so far no longer counts; null: of every construction. */
export const ForgetFields = Type.Object({ construction: OrNull(NeededLine(60)) }, closed)
export type ForgetFields = Static<typeof ForgetFields>

/** The type's own copy of the knowledge, as it departs from what ships. */
export const TypeKnowledgeFields = Type.Object({ changes: KnowledgeChanges }, closed)
export type TypeKnowledgeFields = Static<typeof TypeKnowledgeFields>
