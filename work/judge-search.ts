import { Diagnosis } from '../core/diagnosis/diagnosis'
import type { SearchReport } from '../core/diagnosis/report/search-report'
import { knowledgeOf } from './practised-knowledge'
import type { SearchQuestion } from './search-question'

/** Share of the first answer that is done once the engine itself is made ready. Judged. */
const MADE_READY = 0.3
/** … and once everything is believed, and what to do next is still to be weighed. Judged. */
const BELIEVED = 0.9

/**
 * Judges searches, one engine at a time: made ready with progress, then asked after every finding. The screen’s worker
 * and the server’s both are this.
 */
export class SearchJudge {
  private known: { readonly key: string; readonly diagnosis: Diagnosis } | null = null

  /**
   * @param question all it depends on
   * @param onProgress share of the answer that is worked out; it may be told while this does not return
   * @throws RangeError naming what the engine or the knowledge does not have
   */
  async report(
    question: SearchQuestion,
    onProgress: (share: number) => Promise<void> | void = () => {},
  ): Promise<SearchReport> {
    const { description, practice, context, history, bench } = question
    const key = JSON.stringify([description, practice, context])
    if (this.known?.key !== key)
      this.known = { key, diagnosis: new Diagnosis(description, knowledgeOf(practice, description), context) }
    const { diagnosis } = this.known
    await onProgress(MADE_READY)
    return diagnosis.report(history, bench, (share) => void onProgress(MADE_READY + (BELIEVED - MADE_READY) * share))
  }
}
