import { expose } from 'comlink'
import { SearchJudge } from '~~/work/judge-search'

/** The judgement of one engine, away from the screen. */
const judge = new SearchJudge()
const diagnosisJudge = { report: judge.report.bind(judge) }
export type DiagnosisJudge = typeof diagnosisJudge

expose(diagnosisJudge)
