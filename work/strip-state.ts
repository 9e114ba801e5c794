import type { SearchRow, StripRow } from '../messages/book'
import type { Deviation, Fate, TrayCell } from '../messages/strip-entries'
import { standingRows } from './standing-rows'

/** A thing that is off, and where it lies. */
export interface LyingPart {
  readonly part: string
  readonly words: string
  readonly cell: TrayCell | null
  readonly way: string
  readonly count: number
  /** The entry that says so. */
  readonly entryId: string
}

/** Where taking apart and putting together stands. */
export interface StripState {
  readonly goals: readonly string[]
  readonly leaveOn: readonly string[]
  readonly overruled: readonly string[]
  /** Parts in the order somebody wants them off. */
  readonly order: readonly string[]
  readonly trays: readonly string[]
  /** Parts off the engine, in the order in which they came off. */
  readonly off: ReadonlyMap<string, LyingPart>
  /** Everything that came off since the engine was last whole, in that order. */
  readonly opened: readonly string[]
  /** What is off and lies somewhere: neither absent, lost nor left off. */
  readonly lying: readonly LyingPart[]
  readonly notAsPlanned: ReadonlyArray<{
    readonly part: string
    readonly words: string
    readonly what: Deviation
    readonly remark: string
    readonly entryId: string
  }>
  /** What became of those that were off once and are not lying any more, the latest word. */
  readonly fates: ReadonlyMap<string, Fate>
  /** Steps of the way back that are done: oilings, checks. */
  readonly done: ReadonlyMap<string, string | null>
  /** Temporary things that are still there. */
  readonly provisional: ReadonlyMap<string, string>
  /** Handed on although something was open; null where nobody has, or more has been left since. */
  readonly signedOff: { readonly words: string; readonly entryId: string } | null
  /** Entries that stand, oldest first. */
  readonly standing: readonly StripRow[]
}

/**
 * Reads the entries of taking apart and putting together: what was struck out does not count. What a search took off
 * for a test is off as well, and what was said there to be off or on counts from then. Pure.
 *
 * @param search the steps of the job's search
 */
export function stripState(rows: readonly StripRow[], search: readonly SearchRow[] = []): StripState {
  const standing = standingRows(rows)
  let goals: readonly string[] = []
  let leaveOn: readonly string[] = []
  let overruled: readonly string[] = []
  let order: readonly string[] = []
  let trays: readonly string[] = []
  const off = new Map<string, LyingPart>()
  const gone = new Set<string>()
  let opened: string[] = []
  const comesOff = (thing: LyingPart): void => {
    if (off.size === 0) {
      opened = []
      done.clear()
    }
    if (!off.has(thing.part)) opened = [...opened.filter((part) => part !== thing.part), thing.part]
    off.set(thing.part, thing)
  }
  const notAsPlanned: Array<StripState['notAsPlanned'][number]> = []
  const fates = new Map<string, Fate>()
  const done = new Map<string, string | null>()
  const provisional = new Map<string, string>()
  let signed: { words: string; open: readonly string[]; entryId: string } | null = null
  for (const happened of inTime(standing, search)) {
    if (happened.kind === 'search') {
      const said = new Set(happened.off)
      if (happened.whole) for (const part of [...off.keys()]) if (!said.has(part)) off.delete(part)
      for (const part of said)
        if (!off.has(part)) comesOff({ part, words: part, cell: null, way: '', count: 1, entryId: happened.id })
      continue
    }
    const { id: entryId, entry } = happened.row
    if (entry.kind === 'goals') ({ goals, leaveOn, overruled, order = [] } = entry)
    if (entry.kind === 'trays') trays = entry.trays
    if (entry.kind === 'off') {
      const { part, words, cell, way, count } = entry
      comesOff({ part, words, cell, way, count, entryId })
      gone.delete(part)
      fates.delete(part)
      // What is taken off again is oiled and tried again on the way back.
      for (const [step, of] of done) if (of === part) done.delete(step)
    }
    if (entry.kind === 'not-as-planned') {
      const { part, words, what, remark } = entry
      notAsPlanned.push({ part, words, what, remark, entryId })
      if (what === 'absent') {
        comesOff({ part, words, cell: null, way: '', count: 1, entryId })
        gone.add(part)
      }
      if (what === 'came-off' && !off.has(part)) comesOff({ part, words, cell: null, way: '', count: 1, entryId })
    }
    if (entry.kind === 'moved') {
      const lying = off.get(entry.part)
      if (lying) off.set(entry.part, { ...lying, cell: entry.cell })
    }
    if (entry.kind === 'back') {
      fates.set(entry.part, entry.fate)
      if (entry.fate === 'placed' || entry.fate === 'replaced') off.delete(entry.part)
      else gone.add(entry.part)
    }
    if (entry.kind === 'done') done.set(entry.step, entry.part)
    if (entry.kind === 'signed-off') signed = { words: entry.words, open: entry.open, entryId }
    if (entry.kind === 'provisional') {
      if (entry.gone) provisional.delete(entry.thing)
      else provisional.set(entry.thing, entry.words)
    }
  }
  const lying = [...off.values()].filter((thing) => !gone.has(thing.part))
  const covered = signed && openThings({ lying, provisional }).every((words) => signed?.open.includes(words))
  const signedOff = covered && signed ? { words: signed.words, entryId: signed.entryId } : null
  return {
    goals,
    leaveOn,
    overruled,
    order,
    trays,
    off,
    opened,
    lying,
    notAsPlanned,
    fates,
    done,
    provisional,
    signedOff,
    standing,
  }
}

/** What must be none before Prove, in words: things in the tray, and what is provisional. */
export function openThings({ lying, provisional }: Pick<StripState, 'lying' | 'provisional'>): string[] {
  return [...lying.map((thing) => thing.words), ...provisional.values()]
}

type Happened =
  | { readonly kind: 'strip'; readonly row: StripRow }
  | { readonly kind: 'search'; readonly id: string; readonly off: readonly string[]; readonly whole: boolean }

/** Both kinds of entry, as they were made. */
function inTime(strip: readonly StripRow[], search: readonly SearchRow[]): Happened[] {
  const searched = standingRows(search).flatMap((row): Array<readonly [string, Happened]> => {
    const { id, entry, capturedAt } = row
    if (entry.kind === 'outcome') return [[capturedAt, { kind: 'search', id, off: entry.off, whole: false }]]
    return entry.kind === 'known' ? [[capturedAt, { kind: 'search', id, off: entry.off, whole: true }]] : []
  })
  const stripped = strip.map((row): readonly [string, Happened] => [row.capturedAt, { kind: 'strip', row }])
  return [...searched, ...stripped].sort(([one], [other]) => one.localeCompare(other)).map(([, happened]) => happened)
}
