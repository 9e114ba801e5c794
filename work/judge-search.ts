import { Diagnosis } from '../core/diagnosis/diagnosis'
import type { SearchReport } from '../core/diagnosis/search-report'
import { knowledgeOf } from './practised-knowledge'
import type { SearchQuestion } from './search-question'

/**
 * Judges searches, one engine at a time: made ready with progress, then asked after every finding. The screen’s worker
 * and the server’s both are this.
 */
export class SearchJudge {
  private known: { readonly key: string; readonly diagnosis: Diagnosis } | null = null
  private last: { readonly question: SearchQuestion; readonly report: SearchReport } | null = null

  /**
   * @param question all it depends on
   * @param onProgress share of the making ready that is done
   * @throws RangeError naming what the engine or the knowledge does not have
   */
  async report(
    question: SearchQuestion,
    onProgress: (share: number) => Promise<void> | void = () => {},
  ): Promise<SearchReport> {
    const { description, practice, context, history, bench } = question
    const key = JSON.stringify([description, practice, context])
    this.last = null
    if (this.known?.key !== key)
      this.known = { key, diagnosis: new Diagnosis(description, knowledgeOf(practice, description), context) }
    const { diagnosis } = this.known
    for (const share of diagnosis.prepare(history)) await onProgress(share)
    this.last = { question, report: diagnosis.report(history, bench) }
    return this.last.report
  }

  /** Works ahead on the engine asked for last, in steps, so that later questions are answered sooner: first what is likely to be told next, then the circuits not solved yet. */
  *ahead(): Generator<unknown, void> {
    const { known, last } = this
    if (!known || !last) return
    yield* known.diagnosis.foresee(last.question, last.report)
    yield* known.diagnosis.prepareAhead()
  }
}
