import { and, asc, eq, isNull } from 'drizzle-orm'
import { describeEngine } from '../../work/describe-engine'
import { notReckoned, type Reckoned } from '../../messages/reckoned'
import { askedSearch, bookAtStep } from '../../work/search-question'
import type { Database } from '../db/book'
import { constructionTemplate, engineType, job, person, searchEntry, searchReckoning } from '../db/schema'
import { readJob } from '../services/read-job'
import type { JudgeThread } from './judge-thread'
import { keepReckoning } from './keep-reckoning'

/** Steps waiting from before the start that are taken up again. */
const MOST_WAITING_JOBS = 200

/**
 * Reckons every step of a search once more on the server, after it was written down, and keeps what came of it beside
 * the step and in the journal. A step waits in the book until that is done, so nothing is lost with the process.
 */
export class Reckoner {
  private readonly waiting = new Set<string>()
  private running: Promise<void> | null = null
  private closed = false

  constructor(
    private readonly database: Database,
    private readonly thread: Pick<JudgeThread, 'ask' | 'close'>,
    private readonly say: (line: string) => void = () => {},
  ) {}

  /** Steps of this job may be waiting. */
  wake(jobId: string): void {
    if (this.closed) return
    this.waiting.add(jobId)
    this.running ??= this.run().finally(() => {
      this.running = null
      const [next] = this.waiting
      if (next !== undefined) this.wake(next)
    })
  }

  /** Takes up what waited when the last process ended. */
  async wakeAll(): Promise<void> {
    const rows = await this.database
      .selectDistinct({ jobId: searchReckoning.jobId })
      .from(searchReckoning)
      .where(isNull(searchReckoning.reckoned))
      .limit(MOST_WAITING_JOBS)
    for (const { jobId } of rows) this.wake(jobId)
  }

  /** Resolves when nothing waits any more. */
  async idle(): Promise<void> {
    while (this.running) await this.running
  }

  async close(): Promise<void> {
    this.closed = true
    this.waiting.clear()
    await this.thread.close()
    await this.running
  }

  private async run(): Promise<void> {
    for (const jobId of this.waiting) {
      this.waiting.delete(jobId)
      try {
        await this.reckonJob(jobId)
      } catch (error) {
        // The steps go on waiting; they are taken up with the job's next step or the next start.
        this.say(
          `The search of job ${jobId} could not be reckoned now: ${error instanceof Error ? error.message : String(error)}`,
        )
      }
    }
  }

  private async reckonJob(jobId: string): Promise<void> {
    const steps = await this.database
      .select({ id: searchReckoning.id, author: { id: person.id, name: person.name, role: person.role } })
      .from(searchReckoning)
      .innerJoin(searchEntry, eq(searchReckoning.id, searchEntry.id))
      .innerJoin(person, eq(searchEntry.authorId, person.id))
      .where(and(eq(searchReckoning.jobId, jobId), isNull(searchReckoning.reckoned)))
      .orderBy(asc(searchEntry.receivedAt), asc(searchEntry.id))
    for (const step of steps) {
      const reckoned = await this.reckon(jobId, step.id)
      // The process is ending: the step goes on waiting.
      if (this.closed) return
      await keepReckoning(this.database, step.author, jobId, step.id, reckoned)
    }
  }

  private async reckon(jobId: string, entryId: string): Promise<Reckoned> {
    const book = bookAtStep(await readJob(this.database, jobId), entryId)
    if (!book) return notReckoned('The step is not in the book.')
    const [head] = await this.database
      .select({ template: constructionTemplate.description })
      .from(job)
      .innerJoin(engineType, eq(engineType.id, book.type.id))
      .leftJoin(constructionTemplate, eq(engineType.templateId, constructionTemplate.id))
      .where(eq(job.id, jobId))
    try {
      const { description } = describeEngine({
        type: book.type,
        adaptations: book.engine.adaptations,
        components: book.components,
        template: head?.template ?? null,
        units: book.engine.units,
      })
      return await this.thread.ask(askedSearch(book, description).question)
    } catch (error) {
      return notReckoned(error instanceof Error ? error.message : String(error))
    }
  }
}
