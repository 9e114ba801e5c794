import { finishRows } from '../core/care/finish-tasks'
import type { CareRow } from '../messages/book'
import { careState } from './care-state'

/**
 * What was done to finish and detail, for the sheet the owner gets: each task once, what was begun and not ended too,
 * and the word by which something was done all the same.
 *
 * Such as ['Wash the body', 'Wax the gloss: begun, 1 of 2 steps']
 */
export function finishedInWords(care: readonly CareRow[]): string[] {
  const { finish } = careState(care)
  return finishRows.flatMap(({ id, name, steps }) => {
    const kept = finish.get(id)
    if (!kept || kept.done === 0) return []
    const state = kept.done < steps.length ? `: begun, ${kept.done} of ${steps.length} steps` : ''
    return [`${name}${state}${kept.word ? ` (${kept.word})` : ''}`]
  })
}
