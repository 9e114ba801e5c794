import type { CareRow } from '../messages/book'
import type { CareEntry } from '../messages/care-entries'
import { standingRows } from './standing-rows'

type Done<K extends CareEntry['kind']> = Extract<CareEntry, { kind: K }> & {
  readonly at: string
  readonly entryId: string
}

/** Where cleaning and oiling of a job stands. */
export interface CareState {
  /** By group what it was said to be dirty with; a group nobody spoke of is not in it. */
  readonly soils: ReadonlyMap<string, readonly string[]>
  /** By step the way that was taken instead, the latest. */
  readonly ways: ReadonlyMap<string, Extract<CareEntry, { kind: 'way' }>>
  readonly cleaned: ReadonlyMap<string, Done<'cleaned'>>
  readonly left: ReadonlyMap<string, string>
  /** By care point. */
  readonly oiled: ReadonlyMap<string, Done<'oiled'>>
  readonly soakedOff: ReadonlySet<string>
  /** Entries that stand, oldest first. */
  readonly standing: readonly CareRow[]
}

/** Folds the entries of a job, without those struck out. */
export function careState(rows: readonly CareRow[]): CareState {
  const standing = standingRows(rows)
  const soils = new Map<string, readonly string[]>()
  const ways = new Map<string, Extract<CareEntry, { kind: 'way' }>>()
  const cleaned = new Map<string, Done<'cleaned'>>()
  const left = new Map<string, string>()
  const oiled = new Map<string, Done<'oiled'>>()
  const soakedOff = new Set<string>()
  for (const { id: entryId, entry, capturedAt: at } of standing) {
    if (entry.kind === 'soil') soils.set(entry.group, entry.soils)
    if (entry.kind === 'way') ways.set(entry.step, entry)
    if (entry.kind === 'cleaned') cleaned.set(entry.step, { ...entry, at, entryId })
    if (entry.kind === 'left') left.set(entry.step, entry.words)
    if (entry.kind === 'oiled') oiled.set(entry.point, { ...entry, at, entryId })
    if (entry.kind === 'soaked-off') soakedOff.add(entry.point)
  }
  return { soils, ways, cleaned, left, oiled, soakedOff, standing }
}

/** When everything that was wetted is dry, ms since 1970; null where nothing dries. */
export function dryAt(state: CareState): number | null {
  const ends = [...state.cleaned.values()]
    .filter((entry) => entry.driesMinutes > 0)
    .map((entry) => Date.parse(entry.at) + entry.driesMinutes * 60_000)
  return ends.length > 0 ? Math.max(...ends) : null
}
