import { v7 as newId } from 'uuid'
import { describe, expect, it } from 'vitest'
import { describeConstruction } from '../../core/knowledge/constructions'
import { diagnosisKnowledge } from '../../core/knowledge/diagnosis-knowledge'
import { readJob } from '../../server/services/read-job'
import { continuitySheet } from '../../work/continuity-sheet'
import { gatheredFindings } from '../../work/gathered-findings'
import type { ContinuityFields } from '../../messages/continuity-entries'
import { searchOf } from '../../work/search-history'
import { problemsOf } from '../../messages/validate'
import { send, takeInSomething, useTestBook } from '../support/test-book'

const shop = useTestBook()

const read = (
  point: string,
  column: ContinuityFields['column'],
  reading: ContinuityFields['reading'],
): ContinuityFields => ({ point, column, reading, words: `${point}, ${column}` })
const closed = { kind: 'closed' } as const
const open = { kind: 'open' } as const

describe('continuity readings', () => {
  it('are only added to: the latest of a place counts, one struck out leaves none, all stay in the book', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const note = (fields: ContinuityFields) =>
      send(shop.book, shop.maren, 'continuity.add', { id: newId(), jobId, fields })
    await note(read('driver-1.left', 'rim', open))
    await note(read('driver-1.left', 'rim', closed))
    await note(read('driver-2.left', 'rim', closed))
    await note(read('driver-2.left', 'rim', { kind: 'struck' }))
    const job = await readJob(shop.book.database, jobId)
    expect(continuitySheet(job.continuity, job.engine.stateNumber)).toEqual({ 'driver-1.left': { rim: closed } })
    expect(job.continuity).toHaveLength(4)
    expect(job.journal.map((entry) => entry.summary)).toContain('driver-2.left, rim: struck out')
  })

  it('belong to the state the engine is in: after a repair the sheet is empty and the old one still reads as it was', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    await send(shop.book, shop.maren, 'continuity.add', {
      id: newId(),
      jobId,
      fields: read('driver-1.left', 'own', open),
    })
    await send(shop.book, shop.maren, 'search.add', {
      id: newId(),
      jobId,
      entry: {
        kind: 'repaired',
        suspect: 'lead-off@leads.lead.right',
        words: 'Solder the lead',
        findingId: null,
        believed: [],
      },
    })
    const job = await readJob(shop.book.database, jobId)
    expect(continuitySheet(job.continuity, job.engine.stateNumber)).toEqual({})
    expect(continuitySheet(job.continuity, job.engine.stateNumber - 1)).toEqual({ 'driver-1.left': { own: open } })
  })

  it('and test sheets are findings of the search by themselves, each on its state, unless somebody entered that test', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const description = describeConstruction('tank-open')
    for (const point of ['driver-1', 'driver-2', 'driver-3'].flatMap((axle) => [`${axle}.left`, `${axle}.right`]))
      await send(shop.book, shop.maren, 'continuity.add', {
        id: newId(),
        jobId,
        fields: read(point, 'own', point === 'driver-2.right' ? open : closed),
      })
    const gather = async () => {
      const job = await readJob(shop.book.database, jobId)
      return searchOf(job, '', gatheredFindings(job, description, diagnosisKnowledge))
    }
    const first = await gather()
    expect(first.history.findings).toEqual([
      expect.objectContaining({ test: 'wheel-continuity', outcome: 'some', state: 0 }),
    ])
    expect(first.gathered[0]?.words).toContain('5 of 6 carry')
    await send(shop.book, shop.maren, 'search.add', {
      id: newId(),
      jobId,
      entry: {
        kind: 'outcome',
        test: 'wheel-continuity',
        outcome: 'none',
        words: 'Wheel by wheel: none',
        why: '',
        off: [],
        believed: [],
      },
    })
    const entered = await gather()
    expect(entered.history.findings.map((finding) => finding.outcome)).toEqual(['none'])
    expect(entered.gathered).toEqual([])
  })

  it('that are none are refused at the door with the field named', () => {
    const payload = (fields: object) => ({ id: newId(), jobId: newId(), fields })
    expect(
      problemsOf('continuity.add', payload({ point: 'driver-1.left', column: 'roof', reading: closed, words: 'x' }))[0]
        ?.field,
    ).toContain('column')
    expect(
      problemsOf(
        'continuity.add',
        payload({ point: 'driver-1.left', column: 'rim', reading: { kind: 'ohms' }, words: 'x' }),
      ),
    ).not.toEqual([])
    expect(problemsOf('continuity.add', payload(read('driver-1.left', 'rim', closed)))).toEqual([])
  })
})
