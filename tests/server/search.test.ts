import { eq } from 'drizzle-orm'
import { v7 as newId } from 'uuid'
import { describe, expect, it } from 'vitest'
import { Diagnosis } from '../../core/diagnosis/diagnosis'
import { describeConstruction } from '../../core/knowledge/constructions'
import { diagnosisKnowledge } from '../../core/knowledge/diagnosis-knowledge'
import { journal } from '../../server/db/schema'
import { readJob } from '../../server/services/read-job'
import type { SearchEntry } from '../../messages/search-entries'
import { searchOf } from '../../work/search-history'
import { problemsOf } from '../../messages/validate'
import { confirmWrite, mendWrite, strikeWrite, type SearchWrite } from '../../work/search-writes'
import { someJob } from '../support/some-entries'
import { send, takeInSomething, useTestBook } from '../support/test-book'

const shop = useTestBook()

const believed = [{ suspect: 'lead-off@leads.lead.right', words: 'the lead from the right strip is off', chance: 0.41 }]
const saw = (outcome: string): SearchEntry => ({
  kind: 'outcome',
  test: 'track-run',
  outcome,
  words: `Run it on the track: ${outcome}`,
  why: 'It halves the chain.',
  off: [],
  believed,
})

describe('the steps of a search', () => {
  it('belong to the engine’s state, and a repair begins the next', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    await send(shop.book, shop.maren, 'search.add', { id: newId(), jobId, entry: saw('stands') })
    await send(shop.book, shop.maren, 'search.add', {
      id: newId(),
      jobId,
      entry: {
        kind: 'repaired',
        suspect: 'lead-off@leads.lead.right',
        words: 'Solder the lead',
        findingId: null,
        believed,
      },
    })
    await send(shop.book, shop.maren, 'search.add', { id: newId(), jobId, entry: saw('runs') })
    const read = await readJob(shop.book.database, jobId)
    expect(searchOf(read, '').history).toEqual({
      findings: [
        expect.objectContaining({ test: 'track-run', outcome: 'stands', state: 0 }),
        expect.objectContaining({ outcome: 'runs', state: 1 }),
      ],
      events: [{ kind: 'repaired', suspect: 'lead-off@leads.lead.right', state: 1 }],
    })
  })

  it('mended by way of the ledger count the state once', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const findingId = newId()
    const fields = { what: 'Lead off', place: '', state: 'confirmed', origin: 'inside', remedy: '' } as const
    await send(shop.book, shop.maren, 'finding.save', { id: findingId, jobId, fields })
    await send(shop.book, shop.maren, 'search.add', {
      id: newId(),
      jobId,
      entry: { kind: 'confirmed', suspect: 'lead-off@leads.lead.right', words: 'the lead is off', findingId, believed },
    })
    await send(
      shop.book,
      shop.maren,
      'finding.save',
      { id: findingId, jobId, fields: { ...fields, state: 'mended' } },
      { expectedVersion: 1 },
    )
    await send(shop.book, shop.maren, 'search.add', {
      id: newId(),
      jobId,
      entry: { kind: 'repaired', suspect: 'lead-off@leads.lead.right', words: 'Solder the lead', findingId, believed },
    })
    const { history } = searchOf(await readJob(shop.book.database, jobId), '')
    expect(history.events.map((event) => [event.kind, event.state])).toEqual([
      ['confirmed', 0],
      ['repaired', 1],
    ])
  })

  it('stand or fall with their finding: seen and mended are one write each, and a stale one leaves nothing', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const findingId = newId()
    const fields = { what: 'Lead off', place: '', state: 'confirmed', origin: 'inside', remedy: '' } as const
    const suspect = 'lead-off@leads.lead.right'
    const said = (kind: 'confirmed' | 'repaired') => ({
      id: newId(),
      entry: { kind, suspect, words: 'the lead is off', findingId, believed },
    })
    const seen = { id: findingId, jobId, fields, search: said('confirmed') }
    const commandId = newId()
    for (let times = 0; times < 2; times++) await send(shop.book, shop.maren, 'finding.save', seen, { commandId })
    const mended = { id: findingId, jobId, fields: { ...fields, state: 'mended' as const }, search: said('repaired') }
    await expect(send(shop.book, shop.maren, 'finding.save', mended, { expectedVersion: 7 })).rejects.toMatchObject({
      status: 409,
    })
    const events = async () => {
      const read = await readJob(shop.book.database, jobId)
      return [
        read.findings.map(({ state }) => state),
        searchOf(read, '').history.events.map((event) => [event.kind, event.state]),
      ]
    }
    expect(await events()).toEqual([['confirmed'], [['confirmed', 0]]])
    await send(shop.book, shop.maren, 'finding.save', mended, { expectedVersion: 1 })
    expect(await events()).toEqual([
      ['mended'],
      [
        ['confirmed', 0],
        ['repaired', 1],
      ],
    ])
  })

  it('keep the reasoning in the journal: what was believed when', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const id = newId()
    await send(shop.book, shop.maren, 'search.add', { id, jobId, entry: saw('stands') })
    const [entry] = await shop.book.database.select().from(journal).where(eq(journal.subjectId, id))
    expect(entry?.summary).toBe('Run it on the track: stands (until then: the lead from the right strip is off, 41 %)')
    expect(entry?.after).toMatchObject({ why: 'It halves the chain.' })
  })

  it('are struck out by a later one, once, and no longer count', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const id = newId()
    await send(shop.book, shop.maren, 'search.add', { id, jobId, entry: saw('stands') })
    const strike = {
      id: newId(),
      jobId,
      entry: { kind: 'struck', entryId: id, words: 'Run it on the track: stands' },
    } as const
    await send(shop.book, shop.maren, 'search.add', strike)
    const search = searchOf(await readJob(shop.book.database, jobId), '')
    expect(search.history.findings).toEqual([])
    expect(search.steps).toMatchObject([{ struck: true }])
    await expect(send(shop.book, shop.maren, 'search.add', { ...strike, id: newId() })).rejects.toThrow(
      'struck out already',
    )
    await expect(
      send(shop.book, shop.maren, 'search.add', {
        ...strike,
        id: newId(),
        entry: { ...strike.entry, entryId: newId() },
      }),
    ).rejects.toThrow()
  })

  it('a repair that is struck out never was: what could not be done before it still cannot, and what is found after it is of the same state', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const add = async (entry: SearchEntry): Promise<string> => {
      const id = newId()
      await send(shop.book, shop.maren, 'search.add', { id, jobId, entry })
      return id
    }
    await add({ kind: 'could-not', test: 'track-current', words: 'Current on the track' })
    await add(saw('stands'))
    const repaired = await add({
      kind: 'repaired',
      suspect: 'lead-off@leads.lead.right',
      words: 'Solder the lead',
      findingId: null,
      believed,
    })
    await add(saw('falters'))
    const before = searchOf(await readJob(shop.book.database, jobId), '')
    expect(before.refused).toEqual([])
    expect(before.history.findings.map(({ outcome, state }) => [outcome, state])).toEqual([
      ['stands', 0],
      ['falters', 1],
    ])
    await add({ kind: 'struck', entryId: repaired, words: 'Solder the lead' })
    const after = searchOf(await readJob(shop.book.database, jobId), '')
    expect(after.refused).toEqual(['track-current'])
    expect(after.history.events).toEqual([])
    expect(after.history.findings.map(({ outcome, state }) => [outcome, state])).toEqual([
      ['stands', 0],
      ['falters', 0],
    ])
  })

  it('refuse a chance of 1.2 and an unknown circumstance at the door', () => {
    const entry = { ...saw('stands'), believed: [{ suspect: 'x', words: 'x', chance: 1.2 }] }
    expect(problemsOf('search.add', { id: newId(), jobId: newId(), entry })).not.toEqual([])
    expect(
      problemsOf('search.add', {
        id: newId(),
        jobId: newId(),
        entry: { kind: 'known', circumstances: ['haunted'], off: [], missing: [] },
      }),
    ).not.toEqual([])
  })

  it('take what is known of its past from the words of the take-in, until somebody says better', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const read = await readJob(shop.book.database, jobId)
    expect(searchOf(read, 'Ten years in a damp cellar, on its track.').circumstances).toEqual([
      'complained-of',
      'damp-store',
      'idle-ten-years',
    ])
    expect(
      searchOf({ ...read, job: { ...read.job, complaint: 'Just due: two weekends of shows.' } }, '').circumstances,
    ).toEqual([])
    await send(shop.book, shop.maren, 'search.add', {
      id: newId(),
      jobId,
      entry: { kind: 'known', circumstances: ['carpet'], off: ['body'], missing: ['caliper'] },
    })
    expect(searchOf(await readJob(shop.book.database, jobId), 'Ten years in a damp cellar')).toMatchObject({
      circumstances: ['carpet'],
      off: ['body'],
      missing: ['caliper'],
    })
  })
})

async function takeInAgain({ engineId, ownerId }: { engineId: string; ownerId: string }): Promise<string> {
  const jobId = newId()
  await send(shop.book, shop.maren, 'job.take-in', {
    jobId,
    owner: { existing: ownerId },
    type: null,
    engine: { existing: engineId },
    job: someJob,
  })
  return jobId
}

describe('what an earlier job left', () => {
  const lead = 'lead-off@leads.lead.right'
  const found = async (jobId: string, state: 'declined' | 'mended'): Promise<void> => {
    const findingId = newId()
    const fields = { what: 'Lead off', place: '', origin: 'inside', remedy: '' } as const
    await send(shop.book, shop.maren, 'finding.save', {
      id: findingId,
      jobId,
      fields: { ...fields, state: 'confirmed' },
    })
    await send(shop.book, shop.maren, 'search.add', {
      id: newId(),
      jobId,
      entry: { kind: 'confirmed', suspect: lead, words: 'the lead is off', findingId, believed },
    })
    await send(
      shop.book,
      shop.maren,
      'finding.save',
      { id: findingId, jobId, fields: { ...fields, state } },
      { expectedVersion: 1 },
    )
    const { job } = await readJob(shop.book.database, jobId)
    await send(
      shop.book,
      shop.maren,
      'job.hand-back',
      { id: jobId, fields: { leftUndone: '', lubricants: '', dueAgain: '', partsReturned: '', price: null } },
      { expectedVersion: job.version },
    )
  }

  it('is taken as still so in the next, not to be mended unasked, until it is ruled out there or was mended in between', async () => {
    const first = await takeInSomething(shop.book, shop.maren)
    await found(first.jobId, 'declined')
    const second = await takeInAgain(first)
    const read = await readJob(shop.book.database, second)
    expect(read.earlier).toMatchObject([{ jobId: first.jobId, state: 'declined', suspect: lead }])
    expect(searchOf(read, '')).toMatchObject({
      history: { events: [{ kind: 'confirmed', suspect: lead, state: 0 }] },
      leave: [lead],
    })
    // The engine is described another way now: what has no place in it does not count.
    expect(searchOf(read, '', [], new Set(['another@place'])).history.events).toEqual([])
    const ruledOut = {
      id: newId(),
      jobId: second,
      entry: { kind: 'ruled-out', suspect: lead, words: 'the lead is off', believed },
    } as const
    await send(shop.book, shop.maren, 'search.add', ruledOut)
    expect(searchOf(await readJob(shop.book.database, second), '')).toMatchObject({
      history: { events: [{ kind: 'ruled-out' }] },
      leave: [],
    })
    await found(second, 'mended')
    const third = await takeInAgain(first)
    expect((await readJob(shop.book.database, third)).earlier).toEqual([])
  })

  it('declined in this very job it stays known and is not advised', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const findingId = newId()
    const fields = { what: 'Lead off', place: '', origin: 'inside', remedy: '' } as const
    await send(shop.book, shop.maren, 'finding.save', {
      id: findingId,
      jobId,
      fields: { ...fields, state: 'declined' },
    })
    await send(shop.book, shop.maren, 'search.add', {
      id: newId(),
      jobId,
      entry: { kind: 'confirmed', suspect: lead, words: 'the lead is off', findingId, believed },
    })
    const search = searchOf(await readJob(shop.book.database, jobId), '')
    const diagnosis = new Diagnosis(describeConstruction('centre-motor'), diagnosisKnowledge)
    const suspect = diagnosis.engine.suspects[0]?.id ?? ''
    const history = { findings: [], events: [{ kind: 'confirmed' as const, suspect, state: 0 }] }
    expect(search.leave).toEqual([lead])
    expect(diagnosis.report(history).advice).toMatchObject({ kind: 'repair', suspect })
    const left = diagnosis.report(history, { leave: [suspect] })
    expect(left.advice.kind).toBe('act')
    expect(left.suspects[0]).toMatchObject({ id: suspect, confirmed: true })
  })
})

describe('a step struck out', () => {
  it('takes what it said of the finding with it: mended by it is to be mended again, in a state of its own', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const read = () => readJob(shop.book.database, jobId)
    const write = ({ name, payload, from }: SearchWrite) =>
      send(shop.book, shop.maren, name, payload, from ? { expectedVersion: from.version } : {})
    const suspect = {
      id: 'lead-off@leads.lead.right',
      words: 'the lead is off',
      area: 'leads',
      remedy: { words: 'Solder it' },
    } as const
    const lastOf = async (kind: SearchEntry['kind']) =>
      (await read()).search.findLast(({ entry }) => entry.kind === kind)?.id ?? ''
    const now = async () => {
      const book = await read()
      return [
        book.findings.map(({ state }) => state),
        searchOf(book, '').history.events.map(({ kind, state }) => [kind, state]),
      ]
    }
    await write(confirmWrite(jobId, suspect, []))
    await write(mendWrite(await read(), suspect, []))
    await write(strikeWrite(await read(), await lastOf('repaired'), 'Solder it'))
    expect(await now()).toEqual([['confirmed'], [['confirmed', 0]]])
    await write(mendWrite(await read(), suspect, []))
    expect(await now()).toEqual([
      ['mended'],
      [
        ['confirmed', 0],
        ['repaired', 1],
      ],
    ])
    await write(strikeWrite(await read(), await lastOf('repaired'), 'Solder it'))
    await write(strikeWrite(await read(), await lastOf('confirmed'), 'the lead is off'))
    expect(await now()).toEqual([['ruled-out'], []])
  })

  it('leaves a finding as it was noted by hand, where only its name is taken back', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const findingId = newId()
    const fields = { what: 'A lead', place: '', state: 'confirmed', origin: 'inside', remedy: '' } as const
    const at = (seconds: number) => ({ capturedAt: new Date(Date.now() - 60_000 + seconds * 1000).toISOString() })
    await send(shop.book, shop.maren, 'finding.save', { id: findingId, jobId, fields }, at(0))
    const [id, suspect] = [newId(), 'lead-off@leads.lead.right']
    const entry = { kind: 'confirmed', suspect, words: 'the lead is off', findingId, believed } as const
    await send(shop.book, shop.maren, 'search.add', { id, jobId, entry }, at(9))
    const { name, payload } = strikeWrite(await readJob(shop.book.database, jobId), id, 'the lead is off')
    await send(shop.book, shop.maren, name, payload)
    const read = await readJob(shop.book.database, jobId)
    expect(read.findings.map(({ state }) => state)).toEqual(['confirmed'])
    expect(searchOf(read, '').history.events).toEqual([])
  })
})
