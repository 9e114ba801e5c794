import { proxy, wrap, type Remote } from 'comlink'
import type { BenchNow, SearchContext, SearchReport } from '~~/core/diagnosis/diagnosis'
import type { SearchHistory } from '~~/core/diagnosis/history'
import type { EngineDescription } from '~~/core/engine/description-schema'
import type { DiagnosisJudge } from '~/workers/diagnosis.worker'

export interface DiagnosisQuestion {
  readonly description: EngineDescription
  readonly context: SearchContext
  readonly history: SearchHistory
  readonly bench: BenchNow
}

/** Asks the worker whenever the question changes; an answer to an older question is dropped. */
export function useDiagnosis(question: () => DiagnosisQuestion | null) {
  const report = shallowRef<SearchReport | null>(null)
  const progress = ref<number | null>(null)
  const failure = ref('')
  let worker: Worker | null = null
  let judge: Remote<DiagnosisJudge> | null = null
  let asked = 0

  watch(() => JSON.stringify(question()), async () => {
    const now = question()
    if (!now || import.meta.server) return
    const mine = ++asked
    judge ??= start()
    progress.value = 0
    try {
      const plain = JSON.parse(JSON.stringify(now)) as DiagnosisQuestion
      const answer = await judge.report(plain.description, plain.context, plain.history, plain.bench, proxy((share: number) => {
        if (mine === asked) progress.value = share
      }))
      if (mine !== asked) return
      report.value = answer
      failure.value = ''
    } catch (error) {
      if (mine === asked) failure.value = error instanceof Error ? error.message : 'The judgement could not be worked out.'
    } finally {
      if (mine === asked) progress.value = null
    }
  }, { immediate: true })

  function start(): Remote<DiagnosisJudge> {
    worker = new Worker(new URL('../workers/diagnosis.worker.ts', import.meta.url), { type: 'module' })
    return wrap<DiagnosisJudge>(worker)
  }
  onBeforeUnmount(() => worker?.terminate())
  return { report, progress, failure }
}
