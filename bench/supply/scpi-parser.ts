/** One program message unit: a header with its parameters, or a query. */
export interface ScpiUnit {
  /** Keywords in capitals, without the leading colon: ["SOUR", "VOLT"]; common commands as ["*IDN"]. */
  readonly path: readonly string[]
  readonly query: boolean
  readonly parameters: readonly string[]
}

/** An error in the numbering of SCPI-1999, volume 2, chapter 21. */
export class ScpiError extends Error {
  constructor(
    readonly code: number,
    text: string,
  ) {
    super(text)
  }
}

const HEADER = /^(:?[A-Za-z][A-Za-z0-9_]*(?::[A-Za-z][A-Za-z0-9_]*)*|\*[A-Za-z]+)(\?)?/

/**
 * Splits a program message into its units: compound messages with `;`, where a header without a leading colon goes on
 * from the branch of the one before (SCPI-1999 6.2.4; IEEE 488.2 common commands leave that branch as it is).
 *
 * @throws ScpiError −102 for what is no header, −103 for a wrong separator, −108 for an empty parameter
 */
export function parseMessage(message: string): ScpiUnit[] {
  const units: ScpiUnit[] = []
  let branch: readonly string[] = []
  for (const piece of splitOutsideQuotes(message, ';')) {
    const text = piece.trim()
    if (text === '') {
      if (message.trim() === '') continue
      throw new ScpiError(-102, 'Syntax error')
    }
    const match = HEADER.exec(text)
    if (!match) throw new ScpiError(-102, 'Syntax error')
    const header = match[1] as string
    const rest = text.slice(match[0].length)
    if (rest !== '' && !/^\s/.test(rest)) throw new ScpiError(-103, 'Invalid separator')
    const parameters = rest.trim() === '' ? [] : splitOutsideQuotes(rest, ',').map((parameter) => parameter.trim())
    if (parameters.includes('')) throw new ScpiError(-109, 'Missing parameter')
    const query = match[2] === '?'
    if (header.startsWith('*')) {
      units.push({ path: [header.toUpperCase()], query, parameters })
      continue
    }
    const words = header.replace(/^:/, '').toUpperCase().split(':')
    const path = header.startsWith(':') ? words : [...branch, ...words]
    branch = path.slice(0, -1)
    units.push({ path, query, parameters })
  }
  return units
}

function splitOutsideQuotes(text: string, separator: string): string[] {
  const pieces: string[] = []
  let quote = ''
  let piece = ''
  for (const letter of text) {
    if (quote) {
      if (letter === quote) quote = ''
    } else if (letter === '"' || letter === "'") quote = letter
    else if (letter === separator) {
      pieces.push(piece)
      piece = ''
      continue
    }
    piece += letter
  }
  return [...pieces, piece]
}

/**
 * Whether a header means a command written as in the standard: capitals are the short form, brackets may be left out.
 *
 * @param pattern for example `MEASure[:SCALar]:VOLTage[:DC]`
 */
export function matchesHeader(pattern: string, path: readonly string[]): boolean {
  const keywords = [...pattern.matchAll(/(\[)?:?(\*?[A-Za-z0-9_]+)(\])?/g)].map((match) => ({
    long: (match[2] as string).toUpperCase(),
    short: (match[2] as string).replace(/[a-z]+/g, ''),
    optional: match[1] === '[',
  }))
  const match = (keyword: number, word: number): boolean => {
    const expected = keywords[keyword]
    if (!expected) return word === path.length
    const given = path[word]
    if (given !== undefined && (given === expected.long || given === expected.short) && match(keyword + 1, word + 1))
      return true
    return expected.optional && match(keyword + 1, word)
  }
  return match(0, 0)
}

const multipliers: Readonly<Record<string, number>> = { MA: 1e6, K: 1e3, '': 1, M: 1e-3, U: 1e-6, N: 1e-9 }

/**
 * A decimal number with an optional suffix: `12`, `1.2E1`, `500 MV`, `350mA`.
 *
 * @param unit of the parameter, in capitals; `M` before it is milli, `MA` mega (IEEE 488.2 7.7.3)
 * @throws ScpiError −104 for what is no number, −131 for a suffix of another unit
 */
export function parseNumber(text: string, unit: 'V' | 'A' | 'S' | ''): number {
  const match = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:\s*[eE]\s*[+-]?\d+)?)\s*([A-Za-z]*)$/.exec(text.trim())
  if (!match) throw new ScpiError(-104, 'Data type error')
  const suffix = (match[2] as string).toUpperCase()
  const value = Number((match[1] as string).replace(/\s/g, ''))
  if (suffix === '') return value
  const multiplier =
    suffix.endsWith(unit) && unit !== '' ? multipliers[suffix.slice(0, suffix.length - unit.length)] : undefined
  if (multiplier === undefined) throw new ScpiError(-131, 'Invalid suffix')
  return value * multiplier
}

/** ON, OFF or a number rounded to a whole one (SCPI-1999 7.3). */
export function parseBoolean(text: string): boolean {
  const word = text.trim().toUpperCase()
  if (word === 'ON') return true
  if (word === 'OFF') return false
  return Math.round(parseNumber(word, '')) !== 0
}
