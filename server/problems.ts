import type { ProblemDocument } from '../messages/problem-document'

/** An error with a sentence for the person at the bench and a status for the wire. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly sentence: string,
    readonly extra: Pick<ProblemDocument, 'fields' | 'current' | 'retryAfterSeconds'> = {},
  ) {
    super(sentence)
    this.name = 'Problem'
  }

  toDocument(): ProblemDocument {
    return {
      type: `urn:echoppe:problem:${this.code}`,
      title: titles[this.status] ?? 'Refused',
      status: this.status,
      detail: this.sentence,
      ...this.extra,
    }
  }
}

const titles: Record<number, string> = {
  400: 'Not understood',
  401: 'Not signed in',
  403: 'Not allowed',
  404: 'Not in the book',
  409: 'Changed meanwhile',
  413: 'Too large',
  421: 'Another house',
  415: 'Wrong kind of file',
  422: 'Cannot be written',
  429: 'Too many tries',
  507: 'The disk is full',
  503: 'The book is closed for a moment',
}

export const notInTheBook = (what: string): Problem => new Problem(404, 'not-found', `This ${what} is not in the book.`)

/** A write made from an older version of the row; carries the row as it stands. */
export const staleWrite = (what: string, current: unknown): Problem =>
  new Problem(
    409,
    'stale',
    `Somebody changed this ${what} while you were writing. Both versions are shown: choose what stays.`,
    { current },
  )

/** The disk has no room; the browser keeps what was typed and sends it when there is. */
export const diskFull = (): Problem =>
  new Problem(
    507,
    'disk-full',
    'The disk of the shop is as good as full: nothing more can be written. Free some space there; what you typed is kept and sent then.',
    { retryAfterSeconds: 30 },
  )

export const cannotBeWritten = (sentence: string, field?: string): Problem =>
  new Problem(422, 'invalid', sentence, field ? { fields: [{ field, message: sentence }] } : {})

const UNREACHABLE = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'ETIMEDOUT',
  'EPIPE',
  'PROTOCOL_CONNECTION_LOST',
  'ER_SERVER_SHUTDOWN',
  'ENOENT',
  'ER_CON_COUNT_ERROR',
])

/** The driver's error code behind an error, through as many wrappers as there are. */
export function databaseErrorCode(error: unknown): string | undefined {
  return causesOf(error)
    .map((cause) => (cause as { code?: unknown }).code)
    .find((code) => typeof code === 'string')
}

/** Whether the connection itself broke: the driver then calls the error fatal, or says so in words only. */
function connectionBroke(error: unknown): boolean {
  const code = databaseErrorCode(error)
  return (
    (code !== undefined && UNREACHABLE.has(code)) ||
    causesOf(error).some(
      (cause) =>
        (cause as { fatal?: unknown }).fatal === true ||
        /connection lost|pool is closed|closed state/i.test(cause.message),
    )
  )
}

function causesOf(error: unknown): Error[] {
  const causes: Error[] = []
  for (let at = error; at instanceof Error; at = at.cause) causes.push(at)
  return causes
}

/** Any error as a problem: the database being away is said as such, anything unknown stays unexplained. */
export function problemOf(error: unknown): Problem | null {
  if (error instanceof Problem) return error
  const code = databaseErrorCode(error)
  if (connectionBroke(error)) {
    return new Problem(
      503,
      'book-closed',
      'The book cannot be reached at the moment. What you typed is kept and sent again by itself.',
      { retryAfterSeconds: 2 },
    )
  }
  if (code === 'ER_DATA_TOO_LONG' || code === 'ER_WARN_DATA_OUT_OF_RANGE')
    return cannotBeWritten('A value of this entry is longer or larger than the book holds.')
  if (code === 'ER_NO_REFERENCED_ROW_2')
    return cannotBeWritten('This points at something that is not in the book (yet).')
  if (code === 'ER_DISK_FULL' || code === 'ER_RECORD_FILE_FULL') return diskFull()
  return null
}
