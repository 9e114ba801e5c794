import ICAL from 'ical.js'
import { v7 as newId } from 'uuid'
import { describe, expect, it } from 'vitest'
import type { OwnCareRows } from '../../core/knowledge/care/own-care-rows'
import type { CareEntry } from '../../messages/care-entries'
import { careCalendar, makeFeed, mustBeFed, revokeFeed } from '../../server/services/calendar-feed'
import { readCareBook } from '../../server/services/care-book'
import { readJob } from '../../server/services/read-job'
import { readWorkshop } from '../../server/services/read-workshop'
import { careKnowledgeOf } from '../../work/care-practice'
import { careState, dryAt } from '../../work/care-state'
import { oiledInWords } from '../../work/oiled-in-words'
import { send, takeInSomething, useTestBook } from '../support/test-book'

const shop = useTestBook()
const NOW = new Date('2026-11-30T12:00:00Z')
const hours = (engineId: string, day: string, amount: number, more: object = {}) =>
  send(shop.book, shop.maren, 'running.book', {
    id: newId(),
    fields: { day, show: '', engines: [{ engineId, hours: amount, meter: null, meterReplaced: false, ...more }] },
  })
const add = (jobId: string, entry: CareEntry, id = newId()) =>
  send(shop.book, shop.maren, 'care.add', { id, jobId, entry })
async function someEngine() {
  const { jobId } = await takeInSomething(shop.book, shop.maren)
  const { engine } = await readJob(shop.book.database, jobId)
  return { jobId, engineId: engine.id }
}

describe('the care book', () => {
  it('forecasts when oil is due from what ran since it was oiled', async () => {
    const { jobId, engineId } = await someEngine()
    for (const day of ['2026-10-05', '2026-10-20', '2026-11-03', '2026-11-17']) await hours(engineId, day, 3)
    const before = (await readCareBook(shop.book.database, NOW)).lines[0]?.due.find((due) => due.id === 'oil')
    expect(before).toMatchObject({ spent: 12, every: 24, state: 'later' })
    expect(before?.inDays).toBeGreaterThan(30)
    await add(jobId, { kind: 'oiled', point: 'worm.care', product: 'gear grease', quarters: 0, words: 'Worm' })
    const oil = async () =>
      (await readCareBook(shop.book.database, new Date())).lines[0]?.due.find((due) => due.id === 'oil')
    // Half oiled is not oiled: it counts once the job has gone on.
    expect((await oil())?.spent).toBe(12)
    const { job } = await readJob(shop.book.database, jobId)
    const fields = { station: 'rebuild' as const, state: 'open' as const, waitingFor: '' }
    await send(shop.book, shop.maren, 'job.move', { id: jobId, fields }, { expectedVersion: job.version })
    const after = (await readCareBook(shop.book.database, new Date())).lines[0]?.due.find((due) => due.id === 'oil')
    expect(after?.spent).toBe(0)
  })

  it('halves the hours of an engine that runs in a garden or on a carpet, as its history says or as it was tapped', async () => {
    const { jobId, engineId } = await someEngine()
    await hours(engineId, '2026-11-01', 3)
    const oil = async () => (await readCareBook(shop.book.database, NOW)).lines[0]?.due.find((due) => due.id === 'oil')
    expect((await oil())?.every).toBe(24)
    const { job } = await readJob(shop.book.database, jobId)
    const { complaint, trial, trialAttempts, wanted, moneyLimit, sentimental, consent } = job
    const { conditionOnArrival, dueOn, estimateMinutes, arrivals } = job
    const kept = { complaint, trial, trialAttempts, wanted, moneyLimit, sentimental, consent }
    const fields = { ...kept, conditionOnArrival, dueOn, estimateMinutes, arrivals, past: ['garden' as const] }
    await send(shop.book, shop.maren, 'job.edit', { id: jobId, fields }, { expectedVersion: job.version })
    expect((await oil())?.every).toBe(12)
    expect((await readCareBook(shop.book.database, NOW)).lines[0]?.shortened).toBe(true)
  })

  it('tells of two outings of one day the one booked last, its hours and its show together', async () => {
    const { engineId } = await someEngine()
    for (const [show, amount] of [
      ['Zither evening', 3],
      ['Autumn show', 1],
    ] as const)
      await send(shop.book, shop.maren, 'running.book', {
        id: newId(),
        fields: { day: '2026-11-20', show, engines: [{ engineId, hours: amount, meter: null, meterReplaced: false }] },
      })
    const { lines } = await readCareBook(shop.book.database, NOW)
    expect(lines[0]?.lastRan).toEqual({ day: '2026-11-20', hours: 1, show: 'Autumn show' })
  })

  it('books one show for a whole roster, and no engine twice', async () => {
    const [first, second] = [await someEngine(), await someEngine()]
    const row = (engineId: string) => ({ engineId, hours: 6, meter: null, meterReplaced: false })
    const show = (engines: string[]) =>
      send(shop.book, shop.maren, 'running.book', {
        id: newId(),
        fields: { day: '2026-11-28', show: 'Harbour festival', engines: engines.map(row) },
      })
    await show([first.engineId, second.engineId])
    const { lines } = await readCareBook(shop.book.database, NOW)
    expect(lines.map((line) => line.lastRan?.show)).toEqual(['Harbour festival', 'Harbour festival'])
    await expect(show([first.engineId, first.engineId])).rejects.toThrow('stands twice')
  })

  it('reckons hours from a meter, refuses one that goes backwards, and begins anew with another meter', async () => {
    const { engineId } = await someEngine()
    await hours(engineId, '2026-11-01', 0, { hours: null, meter: 40 })
    await hours(engineId, '2026-11-08', 0, { hours: null, meter: 43.5 })
    await expect(hours(engineId, '2026-11-15', 0, { hours: null, meter: 3 })).rejects.toThrow(
      'hours do not go backwards',
    )
    await hours(engineId, '2026-11-15', 0, { hours: null, meter: 3, meterReplaced: true })
    await hours(engineId, '2026-11-22', 0, { hours: null, meter: 4 })
    const { lines } = await readCareBook(shop.book.database, NOW)
    expect(lines[0]?.due.find((due) => due.id === 'oil')?.spent).toBeCloseTo(4.5, 9)
  })
})

describe('the calendar', () => {
  it('is read by another library, each event a whole day with an identity of its own (RFC 5545)', async () => {
    const { engineId } = await someEngine()
    for (const day of ['2026-11-03', '2026-11-17']) await hours(engineId, day, 3)
    const book = await readCareBook(shop.book.database, NOW)
    const text = careCalendar(book, 'Test bench')
    expect(text.split('\r\n').every((line) => Buffer.byteLength(line) <= 75)).toBe(true)
    const calendar = new ICAL.Component(ICAL.parse(text))
    const events = calendar.getAllSubcomponents('vevent').map((event) => new ICAL.Event(event))
    expect(events.map((event) => event.summary).sort()).toHaveLength(2)
    const oil = book.lines[0]?.due.find((due) => due.id === 'oil')
    const event = events.find((entry) => entry.uid.startsWith('oil-'))
    expect(event?.startDate.isDate).toBe(true)
    const expected = new Date(Date.parse('2026-11-30T00:00:00Z') + (oil?.inDays ?? 0) * 86_400_000)
    expect(event?.startDate.toString()).toBe(expected.toISOString().slice(0, 10))
    expect(new Set(events.map((entry) => entry.uid)).size).toBe(events.length)
  })

  it('is fetched by a secret address until that is taken back', async () => {
    const { database } = shop.book
    const { id, token } = await makeFeed(database, shop.maren)
    await mustBeFed(database, token)
    expect((await readCareBook(database, NOW)).feeds).toHaveLength(1)
    await revokeFeed(database, shop.maren, id)
    await expect(mustBeFed(database, token)).rejects.toMatchObject({ status: 404 })
    await expect(mustBeFed(database, 'x'.repeat(43))).rejects.toMatchObject({ status: 404 })
  })
})

describe('cleaning and oiling', () => {
  it('keeps what was wetted until it is dry, what was oiled for the sheet, and refuses what nobody knows', async () => {
    const { jobId } = await someEngine()
    const cleaned = (agent: string): CareEntry => ({
      kind: 'cleaned',
      step: 'treads@driven@locomotive oxide',
      subject: 'treads',
      soil: 'oxide',
      agent,
      method: 'bud',
      pieces: 3,
      minutes: 4.5,
      driesMinutes: 10,
      words: 'Treads: oxide',
    })
    await add(jobId, cleaned('isopropyl'))
    await expect(add(jobId, cleaned('moonshine'))).rejects.toThrow('“moonshine” does')
    await add(jobId, { kind: 'oiled', point: 'one', product: 'light oil', quarters: 2, words: 'One' })
    await add(jobId, { kind: 'oiled', point: 'two', product: 'light oil', quarters: 2, words: 'Two' })
    const slip = newId()
    await add(jobId, { kind: 'oiled', point: 'three', product: 'gear oil', quarters: 1, words: 'Three' }, slip)
    await add(jobId, { kind: 'struck', entryId: slip, words: 'Three' })
    const { care } = await readJob(shop.book.database, jobId)
    expect(oiledInWords(care)).toBe('light oil (2 points)')
    const at = Date.parse(care[0]?.capturedAt ?? '')
    expect(dryAt(careState(care))).toBe(at + 10 * 60_000)
    const { jobId: another } = await takeInSomething(shop.book, shop.maren)
    expect((await readJob(shop.book.database, another)).cleaningMinutes).toEqual([
      { subject: 'treads', soil: 'oxide', perPiece: 1.5, count: 1 },
    ])
  })

  it('cleans and oils as the shop does it, the type’s own rows before the shop’s, and refuses a row that harms what it is for', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const rows = (why: string): OwnCareRows => ({
      rules: [{ what: 'isopropyl', material: null, subject: 'treads', level: 'never', why }],
      ways: [],
      amounts: [],
    })
    const { workshop, version } = await readWorkshop(shop.book.database)
    await send(
      shop.book,
      shop.maren,
      'workshop.save',
      { fields: { ...workshop, careRows: rows('The shop says so.') } },
      { expectedVersion: version },
    )
    const before = await readJob(shop.book.database, jobId)
    expect(careKnowledgeOf(before).subjectRules.at(-1)?.why).toBe('The shop says so.')
    const { id, version: typeVersion, templateId: _template, adaptations: _adaptations, ...type } = before.type
    const harming = {
      ...rows(''),
      rules: [],
      ways: [{ soil: 'oxide', subject: 'treads', agent: null, method: 'steel-wool' }],
    }
    const saveType = (careRows: unknown) =>
      send(
        shop.book,
        shop.maren,
        'engine-type.save',
        { id, fields: { ...type, careRows: careRows as OwnCareRows } },
        { expectedVersion: typeVersion },
      )
    await expect(saveType(harming)).rejects.toMatchObject({
      status: 422,
      sentence: expect.stringContaining('harms it (Treads)'),
      extra: { fields: [expect.objectContaining({ field: 'fields.careRows.ways.0' })] },
    })
    await saveType(rows('This type says so.'))
    const after = careKnowledgeOf(await readJob(shop.book.database, jobId)).subjectRules
    expect(after.filter((row) => row.what === 'isopropyl' && row.subject === 'treads')).toEqual([
      expect.objectContaining({ level: 'never', why: 'This type says so.' }),
    ])
  })

  it('takes no bottle of a class that nobody knows onto the shelf', async () => {
    const fields = {
      name: 'Miracle cure',
      product: 'miracle',
      labelled: 'not-said' as const,
      left: 'full' as const,
      openedOn: null,
      notes: '',
    }
    await expect(send(shop.book, shop.maren, 'shelf.save', { id: newId(), fields })).rejects.toThrow(
      'choose the one it belongs to',
    )
  })
})
