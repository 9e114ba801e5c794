import { proxy, wrap, type Remote } from 'comlink'
import type { SearchReport } from '~~/core/diagnosis/report/search-report'
import type { SearchQuestion } from '~~/work/search-question'
import type { DiagnosisJudge } from '~/workers/diagnosis.worker'

/** What is written within this time is asked together. */
const SETTLES_MS = 60

/** Asks the worker whenever the question changes; an answer to an older question is dropped. */
export function useDiagnosis(question: () => SearchQuestion | null) {
  const report = shallowRef<SearchReport | null>(null)
  const progress = ref<number | null>(null)
  const failure = ref('')
  let worker: Worker | null = null
  let judge: Remote<DiagnosisJudge> | null = null
  let asked = 0
  let settling: ReturnType<typeof setTimeout> | undefined

  watch(
    () => JSON.stringify(question()),
    () => {
      if (!question() || import.meta.server) return
      const mine = ++asked
      progress.value = 0
      // Several rows noted in one key are one question.
      clearTimeout(settling)
      settling = setTimeout(() => void ask(mine), report.value ? SETTLES_MS : 0)
    },
    { immediate: true },
  )

  async function ask(mine: number): Promise<void> {
    const now = question()
    if (!now || mine !== asked) return
    judge ??= start()
    try {
      const plain = JSON.parse(JSON.stringify(now)) as SearchQuestion
      const answer = await judge.report(
        plain,
        proxy((share: number) => {
          if (mine === asked) progress.value = share
        }),
      )
      if (mine !== asked) return
      report.value = answer
      failure.value = ''
    } catch (error) {
      if (mine === asked)
        failure.value = error instanceof Error ? error.message : 'The judgement could not be worked out.'
    } finally {
      if (mine === asked) progress.value = null
    }
  }

  function start(): Remote<DiagnosisJudge> {
    worker = new Worker(new URL('../workers/diagnosis.worker.ts', import.meta.url), { type: 'module' })
    return wrap<DiagnosisJudge>(worker)
  }
  onBeforeUnmount(() => {
    clearTimeout(settling)
    worker?.terminate()
  })
  return { report, progress, failure }
}
