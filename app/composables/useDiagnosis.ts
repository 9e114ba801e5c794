import { proxy, wrap } from 'comlink'
import type { SearchReport } from '~~/core/diagnosis/report/search-report'
import { JudgesAhead, type Judge } from '~~/work/judges-ahead'
import type { SearchQuestion } from '~~/work/search-question'
import type { DiagnosisJudge } from '~/workers/diagnosis.worker'

/** What is written within this time is asked together. */
const SETTLES_MS = 60
/** So long the screen is left to itself before the next thing is thought ahead. */
const RESTS_MS = 120

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
  const workers: Worker[] = []
  let asked = 0
  let settling: ReturnType<typeof setTimeout> | undefined
  const judges = new JudgesAhead(start, import.meta.client && navigator.hardwareConcurrency > 1 ? 2 : 1)

  watch(
    () => JSON.stringify(question()),
    () => {
      const now = question()
      if (!now || import.meta.server) return
      const mine = ++asked
      progress.value = 0
      // Several rows noted in one key are one question.
      clearTimeout(settling)
      settling = setTimeout(() => void ask(mine), report.value && !judges.knows(now) ? SETTLES_MS : 0)
    },
    { immediate: true },
  )

  async function ask(mine: number): Promise<void> {
    const now = question()
    if (!now || mine !== asked) return
    try {
      const answer = await judges.ask(now, (share) => {
        if (mine === asked) progress.value = share
      })
      if (mine !== asked || !answer) return
      report.value = answer
      failure.value = ''
    } catch (error) {
      if (mine === asked)
        failure.value = error instanceof Error ? error.message : 'The judgement could not be worked out.'
    } finally {
      if (mine === asked) progress.value = null
    }
    // By what is on the screen then.
    await nextTick()
    if (mine === asked && report.value && failure.value === '') await judges.thinkAhead(ahead(report.value), rest)
  }

  const rest = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, RESTS_MS))

  function start(): Judge {
    const worker = new Worker(new URL('../workers/diagnosis.worker.ts', import.meta.url), { type: 'module' })
    workers.push(worker)
    const remote = wrap<DiagnosisJudge>(worker)
    return { report: (asking, onProgress) => remote.report(asking, proxy(onProgress)) }
  }
  onBeforeUnmount(() => {
    asked += 1
    judges.stop()
    clearTimeout(settling)
    for (const worker of workers) worker.terminate()
  })
  return { report, progress, failure }
}
