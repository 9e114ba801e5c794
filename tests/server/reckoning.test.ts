import { join } from 'node:path'
import { eq } from 'drizzle-orm'
import { v7 as newId } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { Diagnosis } from '../../core/diagnosis/diagnosis'
import { noChanges } from '../../core/knowledge/knowledge-changes'
import { diagnosisKnowledge } from '../../core/knowledge/diagnosis-knowledge'
import { journal } from '../../server/db/schema'
import { JudgeThread } from '../../server/reckoning/judge-thread'
import { Reckoner } from '../../server/reckoning/reckoner'
import { benchToday } from '../../server/services/bench-today'
import { readJob } from '../../server/services/read-job'
import type { SearchRow } from '../../messages/book'
import { describeEngine } from '../../work/describe-engine'
import type { SearchEntry } from '../../messages/search-entries'
import { send, takeInSomething, useTestBook } from '../support/test-book'

const shop = useTestBook()
const WORKER = join(process.cwd(), 'messages', 'generated', 'search-judge.worker.mjs')
const saw = (test: string, outcome: string): SearchEntry => ({
  kind: 'outcome',
  test,
  outcome,
  words: `${test}: ${outcome}`,
  why: '',
  off: [],
  believed: [],
})
const add = (jobId: string, entry: SearchEntry, id = newId()) =>
  send(shop.book, shop.maren, 'search.add', { id, jobId, entry })
const stepsOf = async (jobId: string): Promise<readonly SearchRow[]> =>
  (await readJob(shop.book.database, jobId)).search

describe('the reckoning of a search on the server', () => {
  let thread: JudgeThread
  beforeAll(() => {
    thread = new JudgeThread(WORKER)
  })
  afterAll(() => thread.close())
  const reckoned = async (jobId: string): Promise<readonly SearchRow[]> => {
    const reckoner = new Reckoner(shop.book.database, thread)
    reckoner.wake(jobId)
    await reckoner.idle()
    return stepsOf(jobId)
  }

  it('comes to what the core comes to for the same findings, step by step, and is kept beside them and in the journal', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const first = newId()
    await add(jobId, saw('track-run', 'stands'), first)
    await add(jobId, saw('track-current', 'nothing'))
    const steps = await reckoned(jobId)

    const book = await readJob(shop.book.database, jobId)
    const { description } = describeEngine({
      type: book.type,
      adaptations: book.engine.adaptations,
      components: book.components,
      template: null,
    })
    const core = new Diagnosis(description, diagnosisKnowledge)
    const findings = [
      { id: 'a', test: 'track-run', outcome: 'stands', state: 0 },
      { id: 'b', test: 'track-current', outcome: 'nothing', state: 0 },
    ]
    for (const [index, step] of steps.entries()) {
      const report = core.report({ findings: findings.slice(0, index + 1), events: [] })
      expect(step.reckoned?.believed.map((entry) => entry.suspect)).toEqual(
        report.suspects.slice(0, 5).map((entry) => entry.id),
      )
      for (const [place, { chance }] of (step.reckoned?.believed ?? []).entries())
        expect(chance).toBeCloseTo(report.suspects[place]?.chance ?? 0, 2)
      expect(step.reckoned?.advice.kind).toBe(report.advice.kind)
    }
    const lines = await shop.book.database.select().from(journal).where(eq(journal.subjectId, first))
    expect(
      (await benchToday(shop.book.database, new Date())).latest
        .map((line) => line.summary)
        .filter((summary) => summary.startsWith('Reckoned')),
    ).toEqual([])
    expect(lines.map((line) => line.summary)).toEqual([
      'track-run: stands',
      expect.stringMatching(/^Reckoned: .+ \d+ %, .+, nothing else \d+ %\. Next: .+\.$/),
    ])
  })

  it('waits in the book while there is nobody to do it, and is taken up at the next start', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    await add(jobId, saw('track-run', 'stands'))
    expect((await stepsOf(jobId))[0]?.reckoned).toBeNull()
    const next = new Reckoner(shop.book.database, thread)
    await next.wakeAll()
    await next.idle()
    expect((await stepsOf(jobId))[0]?.reckoned?.failure).toBe('')
  })

  it('is done once, whoever else is at it', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    await add(jobId, saw('track-run', 'stands'))
    const [one] = await reckoned(jobId)
    const [again] = await reckoned(jobId)
    expect(again?.reckoned).toEqual(one?.reckoned)
  })

  it('says so where a finding names a test the engine does not have, and goes on with the next job', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    await add(jobId, saw('crystal-ball', 'dark'))
    expect((await reckoned(jobId))[0]?.reckoned?.failure).toContain('There is no test “crystal-ball”')
    const other = await takeInSomething(shop.book, shop.maren, 'Another')
    await add(other.jobId, saw('track-run', 'runs'))
    expect((await reckoned(other.jobId))[0]?.reckoned?.failure).toBe('')
  })

  it('survives a thread that falls over: the step says why, the next question gets a new thread', async () => {
    const broken = new JudgeThread(join(process.cwd(), 'no-such-thread.mjs'))
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    await add(jobId, saw('track-run', 'stands'))
    const reckoner = new Reckoner(shop.book.database, broken)
    reckoner.wake(jobId)
    await reckoner.idle()
    expect((await stepsOf(jobId))[0]?.reckoned?.failure).not.toBe('')
    await broken.close()
  })

  it('follows the type’s own copy of the knowledge and the shop’s schools', async () => {
    const { jobId, typeId } = await takeInSomething(shop.book, shop.maren)
    await add(jobId, saw('rim-check', 'open'))
    const before = (await reckoned(jobId))[0]?.reckoned
    const film = diagnosisKnowledge.faults.find(
      (fault) => fault.id === 'treads-film',
    ) as (typeof diagnosisKnowledge.faults)[number]
    await send(shop.book, shop.maren, 'type-knowledge.save', {
      id: typeId,
      fields: { changes: { ...noChanges, faults: [{ ...film, prior: 0.001 }] } },
    })
    await add(jobId, saw('rim-check', 'open'))
    const after = (await reckoned(jobId))[1]?.reckoned
    const chanceOf = (found: typeof before): number =>
      found?.believed.find((entry) => entry.suspect.startsWith('treads-film'))?.chance ?? 0
    expect(chanceOf(before)).toBeGreaterThan(0.3)
    expect(chanceOf(after)).toBeLessThan(0.1)
  })
})
