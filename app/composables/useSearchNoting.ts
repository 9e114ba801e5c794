import type { ActReport, ObservationReport, SearchReport } from '~~/core/diagnosis/report/search-report'
import { offAt } from '~~/work/books-ahead'
import { notedInOneKey } from '~~/work/noted-in-one-key'
import type { JobSearch } from '~~/work/search-history'

/** An observation with what can be noted at it. */
export type NotedAt = Pick<ObservationReport, 'id' | 'words' | 'outcomes'>

interface Noting {
  readonly search: ComputedRef<JobSearch>
  readonly report: Ref<SearchReport | null>
  readonly steps: ReturnType<typeof useSearchSteps>
  /** The act things are noted at. */
  readonly card: ComputedRef<ActReport | null>
  /** The state the search stands in. */
  readonly state: ComputedRef<number>
  /** Something other than an outcome is taken back: what is asked may be something else then. */
  readonly undone: () => void
}

/** What is noted in the state a search stands in: by a tap, otherwise by another one, and taken back with what it found. */
export function useSearchNoting({ search, report, steps, card, state, undone }: Noting) {
  const session = useSessionStore()
  /** What was noted in this state, and the entry it was noted with; what sheets say by themselves cannot be taken back here. */
  const noted = computed(
    () =>
      new Map(
        search.value.history.findings
          .filter((finding) => finding.state === state.value)
          .map(({ id, test, outcome }) => [test, { id, outcome }] as const),
      ),
  )
  const saidHere = computed(() => new Map([...noted.value].map(([test, { outcome }]) => [test, outcome])))
  const standing = computed(() => search.value.steps.flatMap(({ row, struck }) => (struck ? [] : [row])))
  const finds = (test: string, outcome: string): string | undefined =>
    report.value?.sayable.find(({ id }) => id === test)?.outcomes.find(({ id }) => id === outcome)?.finds?.id

  /** Struck out, with what was noted in the same key. */
  async function takeBack(entryId: string): Promise<void> {
    for (const { id, entry } of notedInOneKey(standing.value, entryId, finds))
      if ('words' in entry) await steps.strike(id, entry.words)
  }
  async function note(row: NotedAt, index: number): Promise<void> {
    const outcome = row.outcomes[index]
    const before = noted.value.get(row.id)
    if (!outcome || !session.mayWrite || before?.outcome === outcome.id) return
    if (before) await takeBack(before.id)
    const act = card.value
    await steps.noteOutcome({
      test: { id: row.id, words: row.words, why: act?.observations.some(({ id }) => id === row.id) ? act.why : '' },
      outcome,
      off: offAt(act, search.value.off),
    })
  }
  /** What was done last in this search and still counts: one press takes it back, as at the other stations. */
  const last = computed(() => standing.value.findLast(({ entry }) => entry.kind !== 'known'))
  // What was noted at the card is noted anew at the same card; a repair taken back asks for something else.
  const undo = useUndoLast(
    () => last.value,
    takeBack,
    ({ entry }) => {
      if (entry.kind !== 'outcome') undone()
    },
  )
  return { saidHere, note, last, undo }
}
