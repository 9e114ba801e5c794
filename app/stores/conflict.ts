import type { QueuedCommand } from './outbox-storage'

export type Choice = 'mine' | 'theirs'

/** One field in which the two versions differ. */
export interface ConflictLine {
  readonly field: string
  readonly name: string
  readonly mine: string
  readonly theirs: string
  /** What is chosen unless somebody says otherwise: the side that changed the field since the edit began. */
  readonly suggested: Choice
}

/** Fields in which a refused edit differs from the row as it stands now. */
export function conflictLines(entry: QueuedCommand): ConflictLine[] {
  const mine = (entry.payload.fields ?? {}) as Record<string, unknown>
  const theirs = (entry.problem?.current ?? {}) as Record<string, unknown>
  return Object.keys(mine).flatMap((field) => {
    const now = unwrapped(theirs, field)
    if (same(mine[field], now)) return []
    const changedByMe = !entry.base || !same(mine[field], entry.base[field])
    return [
      {
        field,
        name: nameOf(field),
        mine: inWords(mine[field]),
        theirs: inWords(now),
        suggested: changedByMe ? ('mine' as const) : ('theirs' as const),
      },
    ]
  })
}

/** The fields to send: mine, with theirs where chosen. */
export function fieldsChosen(
  entry: QueuedCommand,
  lines: readonly ConflictLine[],
  choices: Readonly<Record<string, Choice>>,
): Record<string, unknown> {
  const fields = { ...(entry.payload.fields as Record<string, unknown>) }
  const theirs = (entry.problem?.current ?? {}) as Record<string, unknown>
  for (const line of lines) if (choices[line.field] === 'theirs') fields[line.field] = unwrapped(theirs, line.field)
  return fields
}

/** A setting keeps its fields one level down, and so does a hand-back sheet in its job. */
function unwrapped(row: Record<string, unknown>, field: string): unknown {
  if (field in row) return row[field]
  for (const inner of ['value', 'handBack']) {
    const nested = row[inner]
    if (nested && typeof nested === 'object' && field in nested) return (nested as Record<string, unknown>)[field]
  }
  return undefined
}

function same(first: unknown, second: unknown): boolean {
  return JSON.stringify(first ?? null) === JSON.stringify(second ?? null)
}

function nameOf(field: string): string {
  const words = field.replace(/([A-Z])/g, ' $1').toLowerCase()
  return words.charAt(0).toUpperCase() + words.slice(1)
}

function inWords(value: unknown): string {
  if (value === null || value === undefined) return ''
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (Array.isArray(value))
    return value
      .map((item) =>
        item && typeof item === 'object'
          ? String((item as { what?: string; name?: string }).what ?? (item as { name?: string }).name ?? '')
          : String(item),
      )
      .join('\n')
  return String(value)
}
