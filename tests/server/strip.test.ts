import { v7 as newId } from 'uuid'
import { describe, expect, it } from 'vitest'
import type { StripEntry } from '../../messages/strip-entries'
import { readJob } from '../../server/services/read-job'
import { stripState } from '../../work/strip-state'
import { someJob } from '../support/some-entries'
import { send, takeInSomething, useTestBook } from '../support/test-book'

const shop = useTestBook()
const off = (part: string, cell: Extract<StripEntry, { kind: 'off' }>['cell'] = null): StripEntry => ({
  kind: 'off',
  part,
  words: part,
  cell,
  way: '',
  count: 1,
  minutes: null,
})
const back = (part: string): StripEntry => ({ kind: 'back', part, words: part, fate: 'placed', remark: '' })
const add = (jobId: string, entry: StripEntry, id = newId()) =>
  send(shop.book, shop.maren, 'strip.add', { id, jobId, entry })

describe('taking apart and putting together', () => {
  it('keeps every step with its cell, and reads back what is off', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const tray = newId()
    await add(jobId, off('body', { tray, row: 1, column: 2 }))
    await add(jobId, off('weight'))
    await add(jobId, back('weight'))
    const { strip, search, journal } = await readJob(shop.book.database, jobId)
    expect([...stripState(strip, search).off.values()]).toMatchObject([
      { part: 'body', cell: { tray, row: 1, column: 2 } },
    ])
    expect(journal[0]?.summary).toBe('Back in its place: weight')
  })

  it('refuses what cannot be so: off twice, back while on, two things in one cell, a fitted thing fitted again', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const cell = { tray: newId(), row: 1, column: 1 }
    await add(jobId, off('body', cell))
    await expect(add(jobId, off('body'))).rejects.toThrow('body is off already')
    await expect(add(jobId, off('weight', cell))).rejects.toThrow('In that cell lies body already')
    await expect(add(jobId, back('weight'))).rejects.toThrow('weight is not off: it cannot go back')
    await add(jobId, back('body'))
    await expect(add(jobId, back('body'))).rejects.toThrow('body is not off')
  })

  it('lets two people strip one engine: the same part taken off by both is off once, the later is told', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const both = await Promise.allSettled([add(jobId, off('body')), add(jobId, off('body'))])
    expect(both.map((result) => result.status).sort()).toEqual(['fulfilled', 'rejected'])
  })

  it('strikes a step once, out of order too, and says what stands then', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const id = newId()
    await add(jobId, off('body'), id)
    await add(jobId, off('weight'))
    await add(jobId, { kind: 'struck', entryId: id, words: 'body' })
    await expect(add(jobId, { kind: 'struck', entryId: id, words: 'body' })).rejects.toThrow('struck out already')
    const { strip } = await readJob(shop.book.database, jobId)
    expect([...stripState(strip).off.keys()]).toEqual(['weight'])
  })

  it('gives two engines no tray together while something lies in it', async () => {
    const [one, other] = [
      await takeInSomething(shop.book, shop.maren),
      await takeInSomething(shop.book, shop.maren, 'Slow'),
    ]
    const tray = newId()
    await add(one.jobId, off('body', { tray, row: 1, column: 1 }))
    await expect(add(other.jobId, { kind: 'trays', trays: [tray] })).rejects.toThrow('two engines share none')
    await add(one.jobId, back('body'))
    await add(other.jobId, { kind: 'trays', trays: [tray] })
  })
})

describe('what the last one of a type taught', () => {
  it('is the median of what each part took in its other jobs, how many stand behind it, and nothing struck out', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const { engine } = await readJob(shop.book.database, jobId)
    const again = async (): Promise<string> => {
      const id = newId()
      const owner = { existing: engine.ownerId }
      await send(shop.book, shop.maren, 'job.take-in', {
        jobId: id,
        owner,
        type: null,
        engine: { existing: engine.id },
        job: someJob,
      })
      return id
    }
    for (const minutes of [2, 9, 4]) {
      const job = await again()
      await add(job, { ...off('body'), minutes } as StripEntry)
      const slip = newId()
      await add(job, { ...off('weight'), minutes: 50 } as StripEntry, slip)
      await add(job, { kind: 'struck', entryId: slip, words: 'weight' })
    }
    expect((await readJob(shop.book.database, jobId)).stepMinutes).toEqual([{ part: 'body', minutes: 4, count: 3 }])
  })
})
