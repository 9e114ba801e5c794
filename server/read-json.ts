import type { H3Event } from 'h3'
import { parse } from 'secure-json-parse'
import { Problem } from './problems'
import { readLimitedBody } from './read-limited-body'

/** Enough for a name and a password, a setting, a word to a supply. */
export const SMALL_BODY_BYTES = 64 * 1024
/** Whole constructions and files of knowledge. */
export const FILE_BODY_BYTES = 1024 * 1024

const MOST_VALUES = 30_000
const DEEPEST = 64
const COMMA = ','.charCodeAt(0)

/**
 * A request's body as JSON: its size is looked at before it is read, its form before anything is done with it. What it
 * holds is well-formed text, finite numbers and plain objects, nothing that would surprise whoever uses it.
 *
 * @throws Problem 400, 413 or 415, each with a sentence
 */
export async function readJson<T = unknown>(event: H3Event, limitBytes: number): Promise<T> {
  const kind = getRequestHeader(event, 'content-type') ?? ''
  if (!/^application\/json\b/i.test(kind))
    throw new Problem(415, 'not-json', 'A message is sent as JSON (content-type: application/json).')
  const bytes = await readLimitedBody(event.node.req, limitBytes)
  if (!bytes) {
    // The rest of an oversized body is not wanted: the connection is closed after the answer.
    setResponseHeader(event, 'connection', 'close')
    throw new Problem(
      413,
      'too-large',
      `This message is larger than the ${Math.round(limitBytes / 1024)} kB that are taken here.`,
    )
  }
  if (commasIn(bytes) > MOST_VALUES) throw tooMuch()
  const message = parseText(bytes)
  mustBePlain(message)
  return message as T
}

function parseText(bytes: Buffer): unknown {
  if (bytes.length >= 3 && bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf)
    throw notUnderstood('The message begins with a byte-order mark: send it without.')
  let text: string
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    throw notUnderstood('The message is not UTF-8 text.')
  }
  try {
    return parse(text, { protoAction: 'error', constructorAction: 'error' })
  } catch {
    throw notUnderstood('The message is not JSON, or names what no message may name.')
  }
}

/** A first look that costs next to nothing: a message of so many values has nearly as many commas. */
function commasIn(bytes: Buffer): number {
  let commas = 0
  for (let at = bytes.indexOf(COMMA); at >= 0; at = bytes.indexOf(COMMA, at + 1)) commas++
  return commas
}

const tooMuch = (): Problem => notUnderstood('The message holds more, or deeper, than any entry has.')
const notUnderstood = (sentence: string): Problem => new Problem(400, 'not-understood', sentence)

/** Every text well-formed and printable, every number finite, not too deep and not too many: looked at without recursion. */
function mustBePlain(message: unknown): void {
  const open: Array<{ value: unknown; depth: number }> = [{ value: message, depth: 0 }]
  let values = 0
  for (let at = open.pop(); at; at = open.pop()) {
    const { value, depth } = at
    if (++values > MOST_VALUES || depth > DEEPEST) throw tooMuch()
    if (typeof value === 'string') mustBeText(value)
    else if (typeof value === 'number' && !Number.isFinite(value))
      throw notUnderstood('The message holds a number that is none.')
    else if (Array.isArray(value)) for (const entry of value) open.push({ value: entry, depth: depth + 1 })
    else if (value !== null && typeof value === 'object') {
      for (const [key, entry] of Object.entries(value)) {
        mustBeText(key)
        open.push({ value: entry, depth: depth + 1 })
      }
    }
  }
}

/** Line ends and tabs are typed; nothing else that cannot be seen is. */
const hasControlCharacters = (text: string): boolean => /\p{Cc}/u.test(text.replace(/[\n\r\t]/g, ''))

function mustBeText(text: string): void {
  if (!text.isWellFormed() || hasControlCharacters(text))
    throw notUnderstood('The message holds text with half a character or a control character in it: type it anew.')
}

/** The fields of a message that should be an object; none where it is something else. */
export function fieldsOf(message: unknown): Readonly<Record<string, unknown>> {
  return message !== null && typeof message === 'object' && !Array.isArray(message)
    ? (message as Record<string, unknown>)
    : {}
}
