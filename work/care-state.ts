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
  /** Finish and detail that is asked for, with the word that overruled what stands against it, and the steps done. */
  readonly finish: ReadonlyMap<string, { readonly word: string; readonly done: number }>
  /** Taken off the list, though the owner’s words ask for it. */
  readonly notFinished: ReadonlySet<string>
  readonly nearMint: boolean
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
  const finish = new Map<string, { word: string; done: number }>()
  const notFinished = new Set<string>()
  let nearMint = false
  for (const { id: entryId, entry, capturedAt: at } of standing) {
    if (entry.kind === 'soil') soils.set(entry.group, entry.soils)
    if (entry.kind === 'way') ways.set(entry.step, entry)
    if (entry.kind === 'cleaned') cleaned.set(entry.step, { ...entry, at, entryId })
    if (entry.kind === 'left') left.set(entry.step, entry.words)
    if (entry.kind === 'oiled') oiled.set(entry.point, { ...entry, at, entryId })
    if (entry.kind === 'soaked-off') soakedOff.add(entry.point)
    if (entry.kind === 'near-mint') nearMint = entry.so
    if (entry.kind === 'finish') {
      if (entry.wanted) finish.set(entry.task, { word: entry.word, done: finish.get(entry.task)?.done ?? 0 })
      else finish.delete(entry.task)
      if (entry.wanted) notFinished.delete(entry.task)
      else notFinished.add(entry.task)
    }
    if (entry.kind === 'finished') {
      const before = finish.get(entry.task) ?? { word: '', done: 0 }
      finish.set(entry.task, { ...before, done: Math.max(before.done, entry.step) })
    }
  }
  return { soils, ways, cleaned, left, oiled, soakedOff, finish, notFinished, nearMint, standing }
}

/** When everything that was wetted is dry, ms since 1970; null where nothing dries. */
export function dryAt(state: CareState): number | null {
  const ends = [...state.cleaned.values()]
    .filter((entry) => entry.driesMinutes > 0)
    .map((entry) => Date.parse(entry.at) + entry.driesMinutes * 60_000)
  return ends.length > 0 ? Math.max(...ends) : null
}
