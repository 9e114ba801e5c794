import { eq } from 'drizzle-orm'
import { v7 as newId } from 'uuid'
import { describe, expect, it } from 'vitest'
import { journal } from '../../server/db/schema'
import { readJob } from '../../server/services/read-job'
import type { SearchEntry } from '../../shared/messages/search-entries'
import { searchOf } from '../../shared/search-history'
import { problemsOf } from '../../shared/validate'
import { send, takeInSomething, useTestBook } from '../support/test-book'

const shop = useTestBook()

const believed = [{ suspect: 'lead-off@leads.lead.right', words: 'the lead from the right strip is off', chance: 0.41 }]
const saw = (outcome: string): SearchEntry => ({ kind: 'outcome', test: 'track-run', outcome, words: `Run it on the track: ${outcome}`, why: 'It halves the chain.', off: [], believed })

describe('the steps of a search', () => {
  it('belong to the engine’s state, and a repair begins the next', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    await send(shop.book, shop.maren, 'search.add', { id: newId(), jobId, entry: saw('stands') })
    await send(shop.book, shop.maren, 'search.add', { id: newId(), jobId, entry: { kind: 'repaired', suspect: 'lead-off@leads.lead.right', words: 'Solder the lead', findingId: null, believed } })
    await send(shop.book, shop.maren, 'search.add', { id: newId(), jobId, entry: saw('runs') })
    const read = await readJob(shop.book.database, jobId)
    expect(searchOf(read, '').history).toEqual({
      findings: [expect.objectContaining({ test: 'track-run', outcome: 'stands', state: 0 }), expect.objectContaining({ outcome: 'runs', state: 1 })],
      events: [{ kind: 'repaired', suspect: 'lead-off@leads.lead.right', state: 1 }],
    })
  })

  it('mended by way of the ledger count the state once', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const findingId = newId()
    const fields = { what: 'Lead off', place: '', state: 'confirmed', origin: 'inside', remedy: '' } as const
    await send(shop.book, shop.maren, 'finding.save', { id: findingId, jobId, fields })
    await send(shop.book, shop.maren, 'search.add', { id: newId(), jobId, entry: { kind: 'confirmed', suspect: 'lead-off@leads.lead.right', words: 'the lead is off', findingId, believed } })
    await send(shop.book, shop.maren, 'finding.save', { id: findingId, jobId, fields: { ...fields, state: 'mended' } }, { expectedVersion: 1 })
    await send(shop.book, shop.maren, 'search.add', { id: newId(), jobId, entry: { kind: 'repaired', suspect: 'lead-off@leads.lead.right', words: 'Solder the lead', findingId, believed } })
    const { history } = searchOf(await readJob(shop.book.database, jobId), '')
    expect(history.events.map((event) => [event.kind, event.state])).toEqual([['confirmed', 0], ['repaired', 1]])
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
    const strike = { id: newId(), jobId, entry: { kind: 'struck', entryId: id, words: 'Run it on the track: stands' } } as const
    await send(shop.book, shop.maren, 'search.add', strike)
    const search = searchOf(await readJob(shop.book.database, jobId), '')
    expect(search.history.findings).toEqual([])
    expect(search.steps).toMatchObject([{ struck: true }])
    await expect(send(shop.book, shop.maren, 'search.add', { ...strike, id: newId() })).rejects.toThrow('struck out already')
    await expect(send(shop.book, shop.maren, 'search.add', { ...strike, id: newId(), entry: { ...strike.entry, entryId: newId() } })).rejects.toThrow()
  })

  it('refuse a chance of 1.2 and an unknown circumstance at the door', () => {
    const entry = { ...saw('stands'), believed: [{ suspect: 'x', words: 'x', chance: 1.2 }] }
    expect(problemsOf('search.add', { id: newId(), jobId: newId(), entry })).not.toEqual([])
    expect(problemsOf('search.add', { id: newId(), jobId: newId(), entry: { kind: 'known', circumstances: ['haunted'], off: [], missing: [] } })).not.toEqual([])
  })

  it('take what is known of its past from the words of the take-in, until somebody says better', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const read = await readJob(shop.book.database, jobId)
    expect(searchOf(read, 'Ten years in a damp cellar, on its track.').circumstances).toEqual(['damp-store', 'idle-ten-years'])
    await send(shop.book, shop.maren, 'search.add', { id: newId(), jobId, entry: { kind: 'known', circumstances: ['carpet'], off: ['body'], missing: ['caliper'] } })
    expect(searchOf(await readJob(shop.book.database, jobId), 'Ten years in a damp cellar')).toMatchObject({ circumstances: ['carpet'], off: ['body'], missing: ['caliper'] })
  })
})
