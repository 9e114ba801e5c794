import { expect, it } from 'vitest'
import { currentState } from '../../core/diagnosis/history'
import type { ActReport, SearchReport } from '../../core/diagnosis/report/search-report'
import { readJob } from '../../server/services/read-job'
import type { JobBook } from '../../messages/book'
import { booksAhead, offAt, type SearchStand } from '../../work/books-ahead'
import { describeEngine } from '../../work/describe-engine'
import { SearchJudge } from '../../work/judge-search'
import { JudgesAhead } from '../../work/judges-ahead'
import { rowsOfAct } from '../../work/rows-of-act'
import { askedSearch, type SearchQuestion } from '../../work/search-question'
import { believedNow, mendWrite, outcomeWrites, type SearchWrite } from '../../work/search-writes'
import { send, takeInSomething, useTestBook } from '../support/test-book'

const shop = useTestBook()

function questionOf(book: JobBook): SearchQuestion {
  const { type, engine, components } = book
  const { description } = describeEngine({ type, adaptations: engine.adaptations, components, template: null })
  return askedSearch(book, description).question
}

function standOf({ history, bench }: SearchQuestion, { advice, next, suspects }: SearchReport): SearchStand {
  const here = history.findings.filter(({ state }) => state === currentState(history))
  return {
    card: advice.kind === 'act' ? (next.find(({ id }) => id === advice.act) ?? null) : null,
    repairs:
      advice.kind === 'repair'
        ? [advice.suspect, ...advice.also].flatMap((id) => suspects.find((suspect) => suspect.id === id) ?? [])
        : [],
    noted: new Map(here.map(({ test, outcome }) => [test, outcome])),
    off: bench.off ?? [],
  }
}

type Key = 'something odd in the marked row' | 'the rest as it should' | 'everything mended'

/** What a key writes, one write after the other, each made by the book as it is then. */
function writesOf(key: Key, report: SearchReport, { card, repairs, noted, off }: SearchStand) {
  const believed = believedNow(report)
  if (key === 'everything mended')
    return repairs.map((suspect) => (book: JobBook) => mendWrite(book, suspect, believed))
  const { left } = rowsOfAct(card as ActReport, noted)
  const rows = key === 'the rest as it should' ? left : left.slice(0, 1)
  return rows.flatMap((row) => {
    const outcome = row.outcomes[key === 'the rest as it should' ? 0 : 1] as (typeof row.outcomes)[number]
    return outcomeWrites('', { test: { ...row, why: '' }, outcome, off: offAt(card, off) }, believed).map(
      (write) =>
        ({ job }: JobBook) =>
          ({ ...write, payload: { ...write.payload, jobId: job.id } }) as SearchWrite,
    )
  })
}

it('what is thought ahead is what is asked once the key was pressed and written, to the last finding', async () => {
  const { jobId } = await takeInSomething(shop.book, shop.maren)
  const read = () => readJob(shop.book.database, jobId)
  const write = async ({ name, payload, from }: SearchWrite): Promise<void> => {
    await send(shop.book, shop.maren, name, payload, from ? { expectedVersion: from.version } : {})
  }
  const judges = new JudgesAhead(() => new SearchJudge(), 2)
  const judged = async (): Promise<SearchReport> => (await judges.ask(questionOf(await read()))) as SearchReport

  async function press(key: Key): Promise<void> {
    const report = await judged()
    const book = await read()
    const stand = standOf(questionOf(book), report)
    await judges.thinkAhead(
      booksAhead(book, report, stand).map((after) => () => questionOf(after())),
      () => Promise.resolve(),
    )
    const writes = writesOf(key, report, stand)
    expect(writes).not.toEqual([])
    for (const made of writes) await write(made(await read()))
    const question = questionOf(await read())
    expect(judges.knows(question), key).toBe(true)
    expect(await judges.ask(question)).toEqual(await new SearchJudge().report(question))
  }

  await press('something odd in the marked row')
  await press('the rest as it should')
  // Something is seen meanwhile that was not asked for: nobody thought of that.
  const { sayable } = await judged()
  const found = sayable.flatMap((row) => row.outcomes.flatMap((outcome) => (outcome.finds ? [{ row, outcome }] : [])))
  const { row, outcome } = found[0] as (typeof found)[number]
  for (const made of outcomeWrites(jobId, { test: { ...row, why: '' }, outcome, off: [] }, [])) await write(made)
  expect(judges.knows(questionOf(await read()))).toBe(false)
  await press('everything mended')
})
