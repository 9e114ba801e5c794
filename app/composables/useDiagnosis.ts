import { proxy, wrap, type Remote } from 'comlink'
import type { SearchReport } from '~~/core/diagnosis/report/search-report'
import type { SearchQuestion } from '~~/work/search-question'
import type { DiagnosisJudge } from '~/workers/diagnosis.worker'

/** Asks the worker whenever the question changes; an answer to an older question is dropped. */
export function useDiagnosis(question: () => SearchQuestion | null) {
  const report = shallowRef<SearchReport | null>(null)
  const progress = ref<number | null>(null)
  const failure = ref('')
  let worker: Worker | null = null
  let judge: Remote<DiagnosisJudge> | null = null
  let asked = 0

  watch(
    () => JSON.stringify(question()),
    async () => {
      const now = question()
      if (!now || import.meta.server) return
      const mine = ++asked
      judge ??= start()
      progress.value = 0
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
    },
    { immediate: true },
  )

  function start(): Remote<DiagnosisJudge> {
    worker = new Worker(new URL('../workers/diagnosis.worker.ts', import.meta.url), { type: 'module' })
    return wrap<DiagnosisJudge>(worker)
  }
  onBeforeUnmount(() => worker?.terminate())
  return { report, progress, failure }
}
