import { mayCommand } from '../../messages/commands'
import type { Actor } from '../commands/write'
import { Problem } from '../problems'

/** @throws Problem 403 for an account that may only read */
export function mustMayMeasure(actor: Actor): void {
  if (!mayCommand(actor.role, 'reading.add'))
    throw new Problem(403, 'role', 'Your account may read the book but not measure.')
}
