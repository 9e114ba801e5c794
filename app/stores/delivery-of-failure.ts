import type { ProblemDocument } from '~~/messages/problem-document'
import type { Delivery } from './outbox-queue'

/** Answers that say: not now. A server, a database or a disk that is away comes back; an entry that is wrong does not. */
const NOT_NOW: ReadonlySet<number> = new Set([408, 425, 429, 502, 503, 504, 507])
const NOT_TAKEN: ProblemDocument = {
  type: 'about:blank',
  title: 'Refused',
  status: 400,
  detail: 'The server would not take this, and gave no reason that can be read. Try again, or write it anew.',
}

export interface FailedRequest {
  /** Status of the answer; undefined when there was none. */
  readonly status: number | undefined
  /** What the server said of it, where it said something. */
  readonly problem: ProblemDocument | null
}

/**
 * What becomes of an entry whose delivery failed: sent again later, however often; tried again a few times, where the
 * server stumbled over it; or set aside with the reason, so that what waits behind it goes on.
 */
export function deliveryOfFailure({ status, problem }: FailedRequest, kind: 'command' | 'photograph'): Delivery {
  if (status === undefined) return { kind: 'later' }
  if (status === 401) return { kind: 'signed-out' }
  // A photograph waits for room on a disk for long; notes need little and go on without it.
  if (status === 507 && kind === 'photograph')
    return { kind: 'set-aside', state: 'refused', problem: problem ?? NOT_TAKEN }
  if (NOT_NOW.has(status)) return { kind: 'later' }
  if (status >= 500) return { kind: 'stumbled', problem: problem ?? { ...NOT_TAKEN, status } }
  return {
    kind: 'set-aside',
    state: status === 409 ? 'stale' : 'refused',
    problem: problem ?? { ...NOT_TAKEN, status },
  }
}
