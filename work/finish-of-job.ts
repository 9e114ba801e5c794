import { finishTasks, type FinishTask } from '../core/care/finish-tasks'
import type { EngineDescription } from '../core/engine/description-schema'
import type { JobBook } from '../messages/book'
import { careState } from './care-state'

/** Finish or detail on one job. */
export interface JobFinish extends FinishTask {
  /** It is on the list: asked for by the owner’s words or by hand. */
  readonly onList: boolean
  /** The word that overruled what stands against it. */
  readonly word: string
  /** So many of its steps are done. */
  readonly done: number
}

/** What is done to the outside of a job’s engine, where the owner wants it. */
export function finishOfJob(
  book: Pick<JobBook, 'job' | 'care' | 'practice'>,
  description: EngineDescription,
): { readonly nearMint: boolean; readonly tasks: readonly JobFinish[] } {
  const { finish, notFinished, nearMint } = careState(book.care)
  const { wanted, sentimental, consent } = book.job
  const tasks = finishTasks(description, {
    wanted,
    nearMint,
    sentimental,
    consent,
    chosen: book.practice.schools,
  }).map((task): JobFinish => {
    const kept = finish.get(task.id)
    return {
      ...task,
      onList: kept !== undefined || (task.wished && !notFinished.has(task.id)),
      word: kept?.word ?? '',
      done: kept?.done ?? 0,
    }
  })
  return { nearMint, tasks }
}
