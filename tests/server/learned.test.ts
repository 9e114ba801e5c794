import { eq } from 'drizzle-orm'
import { v7 as newId } from 'uuid'
import { describe, expect, it } from 'vitest'
import { engineType } from '../../server/db/schema'
import { readJob } from '../../server/services/read-job'
import { readLearnedBook } from '../../server/services/read-learned'
import { mayCommand } from '../../messages/commands'
import { send, takeInSomething, useTestBook } from '../support/test-book'

const shop = useTestBook()

const learn = (jobId: string, suspects: string[], more: { typeNote?: string; withdrawn?: boolean } = {}) =>
  send(shop.book, shop.maren, 'knowledge.learn', {
    id: newId(),
    jobId,
    fields: { suspects, typeNote: '', withdrawn: false, ...more },
  })

describe('what closed jobs teach', () => {
  it('counts for other jobs on the same type, not for the job itself, and once however often it is said', async () => {
    const first = await takeInSomething(shop.book, shop.maren)
    const second = await takeInSomething(shop.book, shop.maren)
    await learn(first.jobId, ['tyre-perished@tyres'])
    await learn(first.jobId, ['tyre-perished@tyres', 'gears-hair@mesh'])
    const own = (await readJob(shop.book.database, first.jobId)).learned
    expect(own.own?.suspects).toHaveLength(2)
    expect(own.type.jobs + own.construction.jobs).toBe(0)
    const { learned, type } = await readJob(shop.book.database, second.jobId)
    const sameType = type.id === (await readJob(shop.book.database, first.jobId)).type.id
    expect(sameType ? learned.type : learned.construction).toEqual({
      jobs: 1,
      found: { 'tyre-perished': 1, 'gears-hair': 1 },
    })
  })

  it('is taken back by the job and set back by the shop, and what comes after counts again', async () => {
    const first = await takeInSomething(shop.book, shop.maren)
    const second = await takeInSomething(shop.book, shop.maren)
    await learn(first.jobId, ['tyre-perished@tyres'])
    await learn(first.jobId, ['tyre-perished@tyres'], { withdrawn: true })
    const jobs = async () => {
      const { learned } = await readJob(shop.book.database, second.jobId)
      return learned.type.jobs + learned.construction.jobs
    }
    expect(await jobs()).toBe(0)
    await learn(first.jobId, ['tyre-perished@tyres'])
    expect(await jobs()).toBe(1)
    await send(shop.book, shop.maren, 'knowledge.forget', { id: newId(), fields: { construction: null } })
    expect(await jobs()).toBe(0)
    expect((await readLearnedBook(shop.book.database)).constructions).toEqual([])
    await learn(first.jobId, ['tyre-perished@tyres'])
    expect(await jobs()).toBe(1)
    await send(shop.book, shop.maren, 'knowledge.forget', { id: newId(), fields: { construction: 'three-rail-twin' } })
    expect(await jobs()).toBe(1)
    expect([
      mayCommand('owner', 'knowledge.forget'),
      mayCommand('hand', 'knowledge.forget'),
      mayCommand('hand', 'knowledge.learn'),
    ]).toEqual([true, false, true])
  })

  it('adds its note to the type, and says so when there is no room left', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    await learn(jobId, [], { typeNote: 'Slide the motor in with both shafts coupled.' })
    const { type } = await readJob(shop.book.database, jobId)
    expect(type.notes.endsWith('Slide the motor in with both shafts coupled.')).toBe(true)
    expect(type.version).toBe(2)
    await shop.book.database
      .update(engineType)
      .set({ notes: 'x'.repeat(7990) })
      .where(eq(engineType.id, type.id))
    await expect(learn(jobId, [], { typeNote: 'One word too many.' })).rejects.toThrow('are full')
  })

  it('says how often it was so only from searches that are over, without what was mended untested', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const believed = [
      { suspect: 'tyre-perished@tyres', words: 'perished tyres', chance: 0.72 },
      { suspect: 'gears-hair@mesh', words: 'hair in the gears', chance: 0.4 },
      { suspect: 'bearing-dry@motor', words: 'dry bearings', chance: 0.75 },
    ]
    const step = (entry: object) =>
      send(shop.book, shop.maren, 'search.add', { id: newId(), jobId, entry: entry as never })
    await step({
      kind: 'outcome',
      test: 'haul',
      outcome: 'slips',
      words: 'Haul: slips early',
      why: '',
      off: [],
      believed,
    })
    await step({
      kind: 'confirmed',
      suspect: 'tyre-perished@tyres',
      words: 'perished tyres',
      findingId: newId(),
      believed,
    })
    await step({ kind: 'repaired', suspect: 'bearing-dry@motor', words: 'oiled', findingId: null, believed })
    expect((await readLearnedBook(shop.book.database)).searches).toBe(0)
    const { job } = await readJob(shop.book.database, jobId)
    await send(
      shop.book,
      shop.maren,
      'job.hand-back',
      { id: jobId, fields: { leftUndone: '', lubricants: '', dueAgain: '', partsReturned: '', price: null } },
      { expectedVersion: job.version },
    )
    const { searches, reliability } = await readLearnedBook(shop.book.database)
    expect(searches).toBe(1)
    expect(reliability.map(({ from, count, right }) => [from, count, right])).toEqual([
      [0.3, 1, 0],
      [0.7, 1, 1],
    ])
  })
})
