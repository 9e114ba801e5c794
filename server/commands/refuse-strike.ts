import { cannotBeWritten, notInTheBook } from '../problems'

interface Entry {
  readonly id: string
  readonly entry: { readonly kind: string; readonly entryId?: string }
}

/**
 * Refuses to strike out what is not there, what was struck out already, and a striking out itself.
 *
 * @param before every entry of the job, those struck out too
 */
export function refuseStrike(before: readonly Entry[], entryId: string): void {
  const struck = before.find((row) => row.id === entryId)
  if (!struck) throw notInTheBook('step')
  if (struck.entry.kind === 'struck')
    throw cannotBeWritten('Striking out cannot itself be struck out: enter the step again.', 'entry.entryId')
  if (before.some((row) => row.entry.kind === 'struck' && row.entry.entryId === entryId))
    throw cannotBeWritten('This step was struck out already.', 'entry.entryId')
}
