import { Worker } from 'node:worker_threads'
import { notReckoned, type Reckoned } from '../../messages/reckoned'
import type { SearchQuestion } from '../../work/search-question'
import type { JudgeAnswer, JudgeRequest } from './search-judge.worker'

/** Of one question; the largest engine with a dozen states takes a few seconds. */
const LONGEST_MILLISECONDS = 120_000
const MOST_MEGABYTES = 1024

/** A thread that judges searches, begun when it is first asked and again after it has fallen over. */
export class JudgeThread {
  private worker: Worker | null = null
  private number = 0
  private closed = false

  constructor(private readonly file: string) {}

  /** One question at a time. Never refuses: what cannot be reckoned says why. */
  async ask(question: SearchQuestion): Promise<Reckoned> {
    if (this.closed) return notReckoned('The server is closing.')
    const worker = (this.worker ??= new Worker(this.file, {
      resourceLimits: { maxOldGenerationSizeMb: MOST_MEGABYTES },
    }))
    worker.unref()
    const number = ++this.number
    return new Promise<Reckoned>((resolve) => {
      const done = (reckoned: Reckoned, lost: boolean): void => {
        clearTimeout(tooLong)
        // By name: a worker’s own listeners are among all of them.
        worker.off('message', onMessage).off('error', onError).off('exit', onExit)
        if (lost) {
          this.worker = null
          // What it still says after this concerns nobody.
          worker.on('error', () => {})
          void worker.terminate()
        }
        resolve(reckoned)
      }
      const onMessage = (answer: JudgeAnswer): void => {
        if (answer.number === number) done(answer.reckoned, false)
      }
      const onError = (error: Error): void => done(notReckoned(error.message), true)
      const onExit = (): void => done(notReckoned('The thread ended.'), true)
      const tooLong = setTimeout(
        () => done(notReckoned('It took longer than two minutes.'), true),
        LONGEST_MILLISECONDS,
      )
      worker.on('message', onMessage).on('error', onError).on('exit', onExit)
      worker.postMessage({ number, question } satisfies JudgeRequest)
    })
  }

  async close(): Promise<void> {
    this.closed = true
    await this.worker?.terminate()
  }
}
