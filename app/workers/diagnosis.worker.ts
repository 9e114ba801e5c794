import { expose } from 'comlink'
import { Diagnosis, type BenchNow, type SearchContext, type SearchReport } from '~~/core/diagnosis/diagnosis'
import type { SearchHistory } from '~~/core/diagnosis/history'
import type { EngineDescription } from '~~/core/engine/description-schema'
import { diagnosisKnowledge } from '~~/core/knowledge/diagnosis-knowledge'

let known: { readonly key: string; readonly diagnosis: Diagnosis } | null = null

/** The judgement of one engine, away from the screen: made ready with progress, then asked after every finding. */
const judge = {
  async report(description: EngineDescription, context: SearchContext, history: SearchHistory, bench: BenchNow, onProgress: (share: number) => Promise<void> | void): Promise<SearchReport> {
    const key = JSON.stringify([description, context])
    if (known?.key !== key) known = { key, diagnosis: new Diagnosis(description, diagnosisKnowledge, context) }
    const { diagnosis } = known
    const states = [...new Set([0, ...history.findings.map((finding) => finding.state), ...history.events.map((event) => event.state)])]
    for (const [index, state] of states.entries()) {
      for (const share of diagnosis.prepare(history, state)) await onProgress((index + share) / states.length)
    }
    return diagnosis.report(history, bench)
  },
}
export type DiagnosisJudge = typeof judge

expose(judge)
