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
  const told = new StripReader()
  for (const happened of inTime(standing, search)) {
    if (happened.kind === 'search') told.searched(happened)
    else told.entered(happened.row)
  }
  const { plan, off, opened, gone, notAsPlanned, fates, done, provisional, signed } = told
  const lying = [...off.values()].filter((thing) => !gone.has(thing.part))
  const covered = signed && openThings({ lying, provisional }).every((words) => signed.open.includes(words))
  const signedOff = covered ? { words: signed.words, entryId: signed.entryId } : null
  return { ...plan, off, opened, lying, notAsPlanned, fates, done, provisional, signedOff, standing }
}

/** Takes in what happened to the parts, one thing after the other. */
class StripReader {
  plan: Pick<StripState, 'goals' | 'leaveOn' | 'overruled' | 'order' | 'trays'> = {
    goals: [],
    leaveOn: [],
    overruled: [],
    order: [],
    trays: [],
  }
  opened: string[] = []
  signed: { readonly words: string; readonly open: readonly string[]; readonly entryId: string } | null = null
  readonly off = new Map<string, LyingPart>()
  readonly gone = new Set<string>()
  readonly notAsPlanned: Array<StripState['notAsPlanned'][number]> = []
  readonly fates = new Map<string, Fate>()
  readonly done = new Map<string, string | null>()
  readonly provisional = new Map<string, string>()

  /** A search took parts off for a test, or said what is off. */
  searched({ id, off, whole }: Extract<Happened, { kind: 'search' }>): void {
    const said = new Set(off)
    if (whole) for (const part of [...this.off.keys()]) if (!said.has(part)) this.off.delete(part)
    for (const part of said) if (!this.off.has(part)) this.comesOff(unplanned(part, part, id))
  }

  entered({ id: entryId, entry }: StripRow): void {
    switch (entry.kind) {
      case 'goals': {
        const { goals, leaveOn, overruled, order = [] } = entry
        this.plan = { ...this.plan, goals, leaveOn, overruled, order }
        break
      }
      case 'trays':
        this.plan = { ...this.plan, trays: entry.trays }
        break
      case 'off': {
        const { part, words, cell, way, count } = entry
        this.comesOff({ part, words, cell, way, count, entryId })
        this.gone.delete(part)
        this.fates.delete(part)
        // What is taken off again is oiled and tried again on the way back.
        for (const [step, of] of this.done) if (of === part) this.done.delete(step)
        break
      }
      case 'not-as-planned':
        this.surprised(entry, entryId)
        break
      case 'moved': {
        const lying = this.off.get(entry.part)
        if (lying) this.off.set(entry.part, { ...lying, cell: entry.cell })
        break
      }
      case 'back':
        this.fates.set(entry.part, entry.fate)
        if (entry.fate === 'placed' || entry.fate === 'replaced') this.off.delete(entry.part)
        else this.gone.add(entry.part)
        break
      case 'done':
        this.done.set(entry.step, entry.part)
        break
      case 'signed-off':
        this.signed = { words: entry.words, open: entry.open, entryId }
        break
      case 'provisional':
        if (entry.gone) this.provisional.delete(entry.thing)
        else this.provisional.set(entry.thing, entry.words)
    }
  }

  private surprised(
    { part, words, what, remark }: Extract<StripRow['entry'], { kind: 'not-as-planned' }>,
    entryId: string,
  ): void {
    this.notAsPlanned.push({ part, words, what, remark, entryId })
    if (what === 'absent') {
      this.comesOff(unplanned(part, words, entryId))
      this.gone.add(part)
    }
    if (what === 'came-off' && !this.off.has(part)) this.comesOff(unplanned(part, words, entryId))
  }

  private comesOff(thing: LyingPart): void {
    if (this.off.size === 0) {
      this.opened = []
      this.done.clear()
    }
    if (!this.off.has(thing.part)) this.opened = [...this.opened.filter((part) => part !== thing.part), thing.part]
    this.off.set(thing.part, thing)
  }
}

/** What nobody laid into a cell. */
function unplanned(part: string, words: string, entryId: string): LyingPart {
  return { part, words, cell: null, way: '', count: 1, entryId }
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
