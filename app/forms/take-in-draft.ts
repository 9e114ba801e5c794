import type { EngineFields, EngineTypeFields, JobFields, OwnerFields } from '~~/messages/book-entries'
import type { CommandPayload } from '~~/messages/commands'
import type { Construction, Power } from '~~/messages/vocabulary'

/** How an engine is made, as far as it bears on what can be told of it. */
export interface Machine {
  construction: Construction
  power: Power
  history: string
}
/** What is being taken in: owner, type and engine of the book or new, and the job. */
export interface TakeInDraft {
  owner: { id: string; name: string } | null
  newOwner: OwnerFields | null
  type: ({ id: string; name: string } & Partial<Machine>) | null
  newType: EngineTypeFields | null
  engine: ({ id: string; name: string } & Partial<Machine>) | null
  newEngine: Omit<EngineFields, 'ownerId' | 'typeId'> | null
  job: JobFields
  /** Of one that was sent before and refused: its photographs wait for a job of this number. */
  jobId?: string
}

/** The form again of a take-in that was refused. What it took from the book is named as it was chosen, not by its name. */
export function takeInDraftOf(written: CommandPayload<'job.take-in'>): TakeInDraft {
  const { jobId, owner, type, engine, job } = written
  return {
    owner: 'existing' in owner ? { id: owner.existing, name: 'The owner chosen before' } : null,
    newOwner: 'made' in owner ? owner.made.fields : null,
    type: type && 'existing' in type ? { id: type.existing, name: 'The type chosen before' } : null,
    newType: type && 'made' in type ? type.made.fields : null,
    engine: 'existing' in engine ? { id: engine.existing, name: 'The engine chosen before' } : null,
    newEngine: 'made' in engine ? engine.made.fields : null,
    job,
    jobId,
  }
}
