import { neverNoted, type RunningSince } from '../core/care/due-list'
import type { EngineEvent, SearchHistory, TestFinding } from '../core/diagnosis/history'
import type { Circumstance, Equipment } from '../core/knowledge/knowledge-schema'
import type { EarlierFinding, JobBook, SearchRow } from '../messages/book'
import type { GatheredFinding } from './gathered-findings'
import { partsOff } from './parts-off'
import { refitsOf } from './refits'

/** Later than anything. */
const ALWAYS = '9999'

/** A job's search as the diagnosis takes it. */
export interface JobSearch {
  readonly history: SearchHistory
  readonly circumstances: readonly Circumstance[]
  readonly missing: readonly Equipment[]
  /** How long it has run or lain since it was cared for. */
  readonly running: RunningSince
  /** Parts that are off now. */
  readonly off: readonly string[]
  /** Tests that could not be done in the state the engine is in. */
  readonly refused: readonly string[]
  /** Confirmed suspects that stay as they are: left or declined, now or in an earlier job. */
  readonly leave: readonly string[]
  /** What earlier jobs left, taken as still so: nobody has said otherwise in this one. */
  readonly earlier: readonly EarlierFinding[]
  /** What sheets of the job say by themselves, where nobody entered an outcome of the same test. */
  readonly gathered: readonly GatheredFinding[]
  /** Every step, oldest first, and whether it was struck out. */
  readonly steps: ReadonlyArray<{ readonly row: SearchRow; readonly struck: boolean }>
}

/**
 * Reads the steps of a search: what was struck out no longer counts, and a repair that was struck out began no new
 * state; states are counted from the one the job began in. Of the engine's earlier jobs only what they left unmended
 * counts: it is there from the start.
 *
 * @param about the words of the take-in
 * @param knownSuspects of the engine as it is described now: what an earlier job found may no longer have a place; all where not given
 * @param sheets what the job's sheets say by themselves; an outcome entered at the same test in the same state counts instead
 */
export function searchOf(
  book: Pick<JobBook, 'search' | 'strip' | 'engine' | 'job' | 'findings' | 'earlier'>,
  about: string,
  sheets: readonly GatheredFinding[] = [],
  knownSuspects: ReadonlySet<string> | null = null,
): JobSearch {
  const struck = new Set(book.search.flatMap((row) => (row.entry.kind === 'struck' ? [row.entry.entryId] : [])))
  const standing = book.search.filter((row) => !struck.has(row.id) && row.entry.kind !== 'struck')
  const refits = refitsOf(book.strip, book.search)
  const first = Math.min(
    book.engine.stateNumber,
    ...book.search.map((row) => row.engineState),
    ...sheets.map((found) => found.engineState),
  )
  const stateOf = stateCounter(book.search, struck, refits, first)
  const now = stateOf(book.engine.stateNumber, ALWAYS)
  const findings: TestFinding[] = []
  const events: EngineEvent[] = []
  let circumstances: readonly Circumstance[] = [
    ...(isComplaint(book.job.complaint) ? ['complained-of' as const] : []),
    ...(book.job.past ?? circumstancesIn(about)),
  ]
  let missing: readonly Equipment[] = []
  let running: RunningSince = neverNoted
  const refused: string[] = []
  for (const { id, engineState, entry, capturedAt } of standing) {
    const state = stateOf(engineState, capturedAt)
    if (entry.kind === 'outcome') {
      findings.push({ id, test: entry.test, outcome: entry.outcome, state })
    }
    if (entry.kind === 'could-not' && state === now) refused.push(entry.test)
    if (entry.kind === 'confirmed' || entry.kind === 'ruled-out' || entry.kind === 'repaired')
      events.push({ kind: entry.kind, suspect: entry.suspect, state })
    if (entry.kind === 'known') ({ circumstances, missing, running = running } = entry)
  }
  for (const { at, touched } of refits) {
    const before = standing.findLast((row) => row.capturedAt <= at)
    events.push({ kind: 'refitted', state: stateOf(before?.engineState ?? first, at) + 1, touched })
  }
  const earlier = leftUnmended(book.earlier, events, knownSuspects)
  for (const { suspect } of earlier) events.unshift({ kind: 'confirmed', suspect: suspect ?? '', state: 0 })
  const gathered = besideEntered(sheets, findings, stateOf)
  // What sheets say goes first: the next outcome then comes at the end, as who works ahead expects it to.
  const said = gathered.map(({ id, from, test, outcome, engineState, at }): TestFinding => ({
    id,
    test,
    outcome,
    state: stateOf(engineState, at),
    ...(from === 'told' ? { told: true } : {}),
  }))
  return {
    gathered,
    leave: [...earlier.map((row) => row.suspect ?? ''), ...leftAsTheyAre(book.findings, standing)],
    earlier,
    history: { findings: [...said, ...findings], events },
    circumstances,
    missing,
    running,
    off: partsOff(book),
    refused,
    steps: book.search.filter((row) => row.entry.kind !== 'struck').map((row) => ({ row, struck: struck.has(row.id) })),
  }
}

type Book = Parameters<typeof searchOf>[0]
type StateOf = (engineState: number, at: string) => number

/** What earlier jobs left, and nobody spoke of in this one. */
function leftUnmended(
  earlier: Book['earlier'],
  events: readonly EngineEvent[],
  knownSuspects: ReadonlySet<string> | null,
): Book['earlier'] {
  const spokenOf = new Set(events.map((event) => (event.kind === 'refitted' ? '' : event.suspect)))
  return earlier.filter(
    (row) => row.suspect !== null && !spokenOf.has(row.suspect) && (knownSuspects?.has(row.suspect) ?? true),
  )
}

/** What sheets say where nothing was entered at the same test in the same state; what was told always. */
function besideEntered(
  sheets: readonly GatheredFinding[],
  entered: readonly TestFinding[],
  stateOf: StateOf,
): GatheredFinding[] {
  return sheets.filter(
    ({ from, test, engineState, at }) =>
      from === 'told' || !entered.some((other) => other.test === test && other.state === stateOf(engineState, at)),
  )
}

/**
 * Counts the states a search speaks of from the one the job began in: a repair that was struck out changed nothing, so
 * that the states on both sides of it are one; what was closed again is another machine, though nothing was mended.
 */
function stateCounter(
  rows: readonly SearchRow[],
  struck: ReadonlySet<string>,
  refits: ReturnType<typeof refitsOf>,
  first: number,
): StateOf {
  const undone = new Set(
    rows.flatMap((row) =>
      row.entry.kind === 'repaired' && struck.has(row.id) && row.engineState > first ? [row.engineState] : [],
    ),
  )
  return (engineState, at) =>
    engineState -
    first -
    [...undone].filter((state) => state <= engineState).length +
    refits.filter((refit) => refit.at < at).length
}

/** Confirmed suspects that nobody will mend in this job. */
function leftAsTheyAre(findings: JobBook['findings'], standing: readonly SearchRow[]): string[] {
  const settled = new Set(findings.filter(({ state }) => state === 'left' || state === 'declined').map(({ id }) => id))
  return standing.flatMap(({ entry }) =>
    entry.kind === 'confirmed' && settled.has(entry.findingId) ? [entry.suspect] : [],
  )
}

const tellingWords: ReadonlyArray<readonly [RegExp, Circumstance]> = [
  [/\b(damp|cellar|basement|shed|boat ?house|flood)/i, 'damp-store'],
  [/\b(attic|loft)\b/i, 'attic-store'],
  [/\b(display case|cabinet|living room)\b/i, 'dry-store'],
  [/\b(carpet|rug)\b/i, 'carpet'],
  [/\bgarden\b/i, 'garden'],
  [/\b(exhibition|show)s?\b/i, 'exhibition'],
  [/\b(ten|twelve|fifteen|twenty|thirty|forty|\d{2}) years\b/i, 'idle-ten-years'],
  [/\b(a year|two years|three years|years unused|unused for)\b/i, 'idle-a-year'],
  [
    /\b(nephew|son|father|friend|another shop|previous owner|somebody|himself|herself) .{0,40}(took|taken|opened|oiled|worked|repaired|apart|soldered)|taken apart by|worked on by/i,
    'worked-on-by-others',
  ],
  [/\b(oiled|greased|lubricated) (it )?(freely|well|generously|every)|too much oil|full of oil/i, 'lubricated-freely'],
  [/\b(leaked battery|battery (was )?left)\b/i, 'battery-inside'],
  [/\b(house clearance|no history|nothing is known|flea market|unknown past)\b/i, 'unknown-past'],
]

/** What the words of the take-in say of an engine's past; shown, and put right by hand. */
export function circumstancesIn(about: string): Circumstance[] {
  return tellingWords.flatMap(([words, circumstance]) => (words.test(about) ? [circumstance] : []))
}

/** Brought in because it is due, or for the sake of order, and not because something is wrong. */
const noComplaint = /^(no complaints?|none|nothing( is)? wrong|(just |only )?due|(only |yearly |annual )?service)\b/i

/** Whether what was written down as the owner's complaint is one. */
export function isComplaint(words: string): boolean {
  return words.trim() !== '' && !noComplaint.test(words.trim())
}
