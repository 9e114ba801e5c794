import { expose } from 'comlink'
import type { SearchReport } from '~~/core/diagnosis/diagnosis'
import { SearchJudge } from '~~/shared/judge-search'
import type { SearchQuestion } from '~~/shared/search-question'

const judge = new SearchJudge()

/** The judgement of one engine, away from the screen. */
const diagnosisJudge = {
  report: (question: SearchQuestion, onProgress: (share: number) => Promise<void> | void): Promise<SearchReport> => judge.report(question, onProgress),
}
export type DiagnosisJudge = typeof diagnosisJudge

expose(diagnosisJudge)
