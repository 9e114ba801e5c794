import { proxy, wrap } from 'comlink'
import type { SearchReport } from '~~/core/diagnosis/report/search-report'
import { JudgesAhead, type Judge } from '~~/work/judges-ahead'
import type { SearchQuestion } from '~~/work/search-question'
import type { DiagnosisJudge } from '~/workers/diagnosis.worker'

/** What is written within this time is asked together. */
const SETTLES_MS = 60
/** So long the screen is left to itself before the next thing is thought ahead. */
const RESTS_MS = 120

/** So long after the screen was left the workers stay: who comes back from the next station finds the answer there. */
const STAY_MS = 300_000

interface Engaged {
  readonly judges: JudgesAhead
  readonly workers: Worker[]
}
let engaged: Engaged | null = null
/** Screens that ask now: the next one is there before the one before it has gone. */
let asking = 0
let leaving: ReturnType<typeof setTimeout> | undefined

/** The workers of the last search, or new ones. */
function engage(): Engaged {
  clearTimeout(leaving)
  asking += 1
  const workers: Worker[] = []
  const start = (): Judge => {
    const worker = new Worker(new URL('../workers/diagnosis.worker.ts', import.meta.url), { type: 'module' })
    workers.push(worker)
    const remote = wrap<DiagnosisJudge>(worker)
    return { report: (question, onProgress) => remote.report(question, proxy(onProgress)) }
  }
  const many = import.meta.client && navigator.hardwareConcurrency > 1 ? 2 : 1
  engaged ??= { judges: new JudgesAhead(start, many), workers }
  return engaged
}

function dismiss({ judges, workers }: Engaged): void {
  asking -= 1
  if (asking > 0) return
  judges.stop()
  leaving = setTimeout(() => {
    engaged = null
    for (const worker of workers) worker.terminate()
  }, STAY_MS)
}

/**
 * Asks a worker whenever the question changes; an answer to an older question is dropped. While hands are at work a
 * second worker answers what is likely asked next.
 *
 * @param question all the judgement depends on; null where nothing is asked
 * @param ahead what may be asked next, likeliest first, by the report just drawn
 */
export function useDiagnosis(
  question: () => SearchQuestion | null,
  ahead: (report: SearchReport) => ReadonlyArray<() => SearchQuestion>,
) {
  const report = shallowRef<SearchReport | null>(null)
  const progress = ref<number | null>(null)
  const failure = ref('')
  let asked = 0
  let settling: ReturnType<typeof setTimeout> | undefined
  const mine = engage()
  const { judges } = mine

  watch(
    () => JSON.stringify(question()),
    () => {
      const now = question()
      if (!now || import.meta.server) return
      const number = ++asked
      progress.value = 0
      // Several rows noted in one key are one question.
      clearTimeout(settling)
      settling = setTimeout(() => void ask(number), report.value && !judges.knows(now) ? SETTLES_MS : 0)
    },
    { immediate: true },
  )

  async function ask(number: number): Promise<void> {
    const now = question()
    if (!now || number !== asked) return
    try {
      const answer = await judges.ask(now, (share) => {
        if (number === asked) progress.value = share
      })
      if (number !== asked || !answer) return
      report.value = answer
      failure.value = ''
    } catch (error) {
      if (number === asked)
        failure.value = error instanceof Error ? error.message : 'The judgement could not be worked out.'
    } finally {
      if (number === asked) progress.value = null
    }
    // By what is on the screen then.
    await nextTick()
    if (number === asked && report.value && failure.value === '') await judges.thinkAhead(ahead(report.value), rest)
  }

  const rest = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, RESTS_MS))

  onBeforeUnmount(() => {
    asked += 1
    clearTimeout(settling)
    dismiss(mine)
  })
  return { report, progress, failure }
}
