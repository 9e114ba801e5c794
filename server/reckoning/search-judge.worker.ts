import { parentPort } from 'node:worker_threads'
import { SearchJudge } from '../../work/judge-search'
import { notReckoned, reckonedOf, type Reckoned } from '../../messages/reckoned'
import type { SearchQuestion } from '../../work/search-question'

/** What the server's own thread is asked, and what it answers. */
export interface JudgeRequest {
  readonly number: number
  readonly question: SearchQuestion
}
export interface JudgeAnswer {
  readonly number: number
  readonly reckoned: Reckoned
}

const judge = new SearchJudge()

parentPort?.on('message', ({ number, question }: JudgeRequest) => {
  const started = performance.now()
  void judge
    .report(question)
    .then(
      (report) => reckonedOf(report, performance.now() - started),
      (error: unknown) => notReckoned(error instanceof Error ? error.message : String(error)),
    )
    .then((reckoned) => parentPort?.postMessage({ number, reckoned } satisfies JudgeAnswer))
})
