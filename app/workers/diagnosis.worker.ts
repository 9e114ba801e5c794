import { expose } from 'comlink'
import type { SearchReport } from '~~/core/diagnosis/search-report'
import { SearchJudge } from '~~/work/judge-search'
import type { SearchQuestion } from '~~/work/search-question'

const judge = new SearchJudge()
let asked = 0

/** While somebody makes a test and nothing is asked, the rest of the circuits is solved; the next question comes first. */
async function workAhead(since: number): Promise<void> {
  const steps = judge.ahead()
  do await new Promise((resolve) => setTimeout(resolve))
  while (asked === since && !steps.next().done)
}

/** The judgement of one engine, away from the screen. */
const diagnosisJudge = {
  report: async (
    question: SearchQuestion,
    onProgress: (share: number) => Promise<void> | void,
  ): Promise<SearchReport> => {
    const since = ++asked
    const report = await judge.report(question, onProgress)
    void workAhead(since)
    return report
  },
}
export type DiagnosisJudge = typeof diagnosisJudge

expose(diagnosisJudge)
