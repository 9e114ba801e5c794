import { count, eq } from 'drizzle-orm'
import { v7 as newId } from 'uuid'
import { describe, expect, it } from 'vitest'
import { engine, finding, job, journal, owner, reading } from '../../server/db/schema'
import { readJob } from '../../server/services/read-job'
import { problemsOf } from '../../messages/validate'
import type { Quantities } from '../../messages/readings/recorded-quantity'
import { standingReadings } from '../../work/sheet-readings'
import { runningReading, someJob, someSheet } from '../support/some-entries'
import { send, takeInSomething, useTestBook } from '../support/test-book'

const shop = useTestBook()

const findingFields = { what: 'Lead off', place: 'tender', state: 'suspected', origin: 'inside', remedy: '' } as const

describe('a write', () => {
  it('takes owner, type, engine and job in together, numbers the job and enters each in the journal', async () => {
    const first = await takeInSomething(shop.book, shop.maren)
    const second = await takeInSomething(shop.book, shop.maren)
    expect(second.number).toBe(first.number + 1)
    const entries = await shop.book.database.select().from(journal).where(eq(journal.subjectId, first.jobId))
    expect(entries).toMatchObject([
      { subject: 'job', command: 'job.take-in', after: expect.objectContaining({ complaint: 'Stops on the turnout' }) },
    ])
    const subjects = (
      await shop.book.database
        .select({ subject: journal.subject })
        .from(journal)
        .where(eq(journal.commandId, entries[0]?.commandId ?? ''))
    ).map((row) => row.subject)
    expect(subjects.sort()).toEqual(['engine', 'engine-type', 'job', 'owner'])
  })

  it('is done once however often it is sent, and answers every repeat the same, before looking at versions', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const payload = { id: newId(), jobId, fields: findingFields }
    const commandId = newId()
    const first = await send(shop.book, shop.maren, 'finding.save', payload, { commandId })
    await send(
      shop.book,
      shop.maren,
      'finding.save',
      { ...payload, fields: { ...findingFields, what: 'Lead off, soldered' } },
      { expectedVersion: 1 },
    )
    const repeated = await send(shop.book, shop.maren, 'finding.save', payload, { commandId })
    expect(repeated).toMatchObject({ result: first.result, repeated: true })
    expect(await shop.book.database.select({ what: finding.what, version: finding.version }).from(finding)).toEqual([
      { what: 'Lead off, soldered', version: 2 },
    ])
  })

  it('is done once when twenty deliveries of it race', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const commandId = newId()
    const payload = {
      id: newId(),
      jobId,
      fields: { station: 'find', text: 'Lead found', minutes: 10, supersedesId: null },
    } as const
    const receipts = await Promise.all(
      Array.from({ length: 20 }, () => send(shop.book, shop.maren, 'note.add', payload, { commandId })),
    )
    expect(receipts.filter((receipt) => !receipt.repeated)).toHaveLength(1)
    expect((await readJob(shop.book.database, jobId)).notes).toHaveLength(1)
  })

  it('refuses a command number used again for something else (422)', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const commandId = newId()
    await send(shop.book, shop.maren, 'finding.save', { id: newId(), jobId, fields: findingFields }, { commandId })
    await expect(
      send(
        shop.book,
        shop.maren,
        'finding.save',
        { id: newId(), jobId, fields: { ...findingFields, what: 'Other' } },
        { commandId },
      ),
    ).rejects.toMatchObject({ status: 422, code: 'command-reused' })
  })

  it('refuses a stale edit with the row as it stands (409), and changes nothing', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    await send(
      shop.book,
      shop.maren,
      'job.edit',
      { id: jobId, fields: { ...someJob, wanted: 'Quieter' } },
      { expectedVersion: 1 },
    )
    await expect(
      send(
        shop.book,
        shop.maren,
        'job.edit',
        { id: jobId, fields: { ...someJob, wanted: 'Louder' } },
        { expectedVersion: 1 },
      ),
    ).rejects.toMatchObject({
      status: 409,
      extra: { current: expect.objectContaining({ wanted: 'Quieter', version: 2 }) },
    })
    const [row] = await shop.book.database.select({ wanted: job.wanted }).from(job).where(eq(job.id, jobId))
    expect(row).toEqual({ wanted: 'Quieter' })
  })

  it('lets one of two simultaneous edits of one version through', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const outcomes = await Promise.allSettled(
      ['Quieter', 'Louder'].map((wanted) =>
        send(shop.book, shop.maren, 'job.edit', { id: jobId, fields: { ...someJob, wanted } }, { expectedVersion: 1 }),
      ),
    )
    expect(outcomes.map((outcome) => outcome.status).sort()).toEqual(['fulfilled', 'rejected'])
  })

  it('leaves neither row nor journal entry when any part of it fails', async () => {
    const before = await shop.book.database.select({ rows: count() }).from(journal)
    await expect(
      send(shop.book, shop.maren, 'job.take-in', {
        jobId: newId(),
        owner: {
          made: {
            id: newId(),
            fields: { name: 'Nobody', email: '', phone: '', address: '', notes: '', isShop: false },
          },
        },
        type: null,
        engine: { existing: newId() },
        job: someJob,
      }),
    ).rejects.toMatchObject({ status: 404 })
    expect(await shop.book.database.select().from(owner)).toEqual([])
    expect(await shop.book.database.select({ rows: count() }).from(journal)).toEqual(before)
  })

  it('names the field that is wrong', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    await expect(
      send(shop.book, shop.maren, 'finding.save', { id: newId(), jobId, fields: { ...findingFields, what: '' } }),
    ).rejects.toMatchObject({
      status: 422,
      extra: { fields: expect.arrayContaining([{ field: 'fields.what', message: '“what” is empty.' }]) },
    })
    await expect(
      send(shop.book, shop.maren, 'finding.save', {
        id: newId(),
        jobId,
        fields: { ...findingFields, colour: 'red' },
      } as never),
    ).rejects.toMatchObject({ extra: { fields: [{ field: 'fields.colour', message: '“colour” is not known here.' }] } })
  })

  it('numbers jobs without gap or twin when many come in at once', async () => {
    const taken = await Promise.all(Array.from({ length: 8 }, () => takeInSomething(shop.book, shop.maren)))
    const numbers = taken.map((one) => one.number).sort((a, b) => a - b)
    expect(new Set(numbers).size).toBe(8)
    expect((numbers.at(-1) ?? 0) - (numbers[0] ?? 0)).toBe(7)
  })
})

describe('who may write', () => {
  it('lets a reader read only, and keeps settings and accounts for the owner', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const note = { id: newId(), jobId, fields: { station: 'find', text: 'x', minutes: 0, supersedesId: null } } as const
    await expect(send(shop.book, { ...shop.maren, role: 'reader' }, 'note.add', note)).rejects.toMatchObject({
      status: 403,
    })
    await expect(
      send(shop.book, { ...shop.maren, role: 'hand' }, 'person.save', {
        id: newId(),
        fields: { signInName: 'x1', name: 'X', role: 'owner', active: true },
        password: 'long-enough-1',
      }),
    ).rejects.toMatchObject({ status: 403 })
    await expect(send(shop.book, { ...shop.maren, role: 'hand' }, 'note.add', note)).resolves.toMatchObject({
      repeated: false,
    })
  })

  it('keeps at least one active owner, and no trace of a password in the journal', async () => {
    await expect(
      send(
        shop.book,
        shop.maren,
        'person.save',
        {
          id: shop.maren.id,
          fields: { signInName: 'maren', name: 'Maren Tolvik', role: 'hand', active: true },
          password: null,
        },
        { expectedVersion: 1 },
      ),
    ).rejects.toMatchObject({ status: 422, sentence: expect.stringContaining('at least one active owner') })
    await send(shop.book, shop.maren, 'person.save', {
      id: newId(),
      fields: { signInName: 'jonas', name: 'Jonas', role: 'hand', active: true },
      password: 'quite-a-secret-77',
    })
    expect(JSON.stringify(await shop.book.database.select().from(journal))).not.toContain('quite-a-secret-77')
  })

  it('refuses a sign-in name that is taken', async () => {
    await expect(
      send(shop.book, shop.maren, 'person.save', {
        id: newId(),
        fields: { signInName: 'maren', name: 'Other', role: 'hand', active: true },
        password: 'long-enough-1',
      }),
    ).rejects.toMatchObject({ status: 422, code: 'taken' })
  })
})

describe('readings', () => {
  async function sheetWithReading() {
    const taken = await takeInSomething(shop.book, shop.maren)
    const sheetId = newId()
    await send(shop.book, shop.maren, 'sheet.save', { id: sheetId, jobId: taken.jobId, fields: someSheet })
    const readingId = newId()
    await send(shop.book, shop.maren, 'reading.add', {
      id: readingId,
      jobId: taken.jobId,
      sheetId,
      supersedesId: null,
      fields: runningReading(12, 180),
    })
    return { ...taken, sheetId, readingId }
  }

  it('are struck out and brought back by later lines, never changed or deleted', async () => {
    const { jobId, sheetId, readingId } = await sheetWithReading()
    const strikeId = newId()
    await send(shop.book, shop.maren, 'reading.strike', {
      id: strikeId,
      jobId,
      sheetId,
      readingId,
      reason: 'clip slipped',
    })
    let lines = (await readJob(shop.book.database, jobId)).sheets[0]?.readings ?? []
    expect(lines).toHaveLength(2)
    expect(standingReadings(lines)).toMatchObject([{ id: strikeId, struck: true, strikeReason: 'clip slipped' }])
    await expect(
      send(shop.book, shop.maren, 'reading.strike', { id: newId(), jobId, sheetId, readingId, reason: '' }),
    ).rejects.toMatchObject({ status: 422 })
    await send(shop.book, shop.maren, 'reading.strike', {
      id: newId(),
      jobId,
      sheetId,
      readingId: strikeId,
      reason: '',
    })
    lines = (await readJob(shop.book.database, jobId)).sheets[0]?.readings ?? []
    expect(standingReadings(lines)).toMatchObject([
      { struck: false, quantities: { current: { typed: '180', value: 0.18 } } },
    ])
    expect((await shop.book.database.select({ rows: count() }).from(reading))[0]?.rows).toBe(3)
  })

  it('keep what was typed and the meter as it was, whatever becomes of the meter', async () => {
    const { jobId, sheetId } = await sheetWithReading()
    const meterId = newId()
    const meterFields = {
      name: 'Bench',
      measures: 'current',
      rangeTop: 0.4,
      resolution: 0.0001,
      percentOfReading: 1,
      digits: 3,
      retired: false,
    } as const
    await send(shop.book, shop.maren, 'meter.save', { id: meterId, fields: meterFields })
    const fields = runningReading(6, 150)
    const withMeter = {
      ...fields,
      quantities: {
        ...fields.quantities,
        current: {
          typed: '0,15A',
          value: 0.15,
          resolution: 0.01,
          meter: { id: meterId, name: 'Bench', percentOfReading: 1, digits: 3 },
        },
      },
    }
    await send(shop.book, shop.maren, 'reading.add', {
      id: newId(),
      jobId,
      sheetId,
      supersedesId: null,
      fields: withMeter,
    })
    await send(
      shop.book,
      shop.maren,
      'meter.save',
      { id: meterId, fields: { ...meterFields, percentOfReading: 5 } },
      { expectedVersion: 1 },
    )
    const lines = (await readJob(shop.book.database, jobId)).sheets[0]?.readings ?? []
    expect((lines.at(-1)?.quantities as Quantities).current).toEqual({
      typed: '0,15A',
      value: 0.15,
      resolution: 0.01,
      meter: { id: meterId, name: 'Bench', percentOfReading: 1, digits: 3 },
    })
  })

  it('are refused without what their kind needs', async () => {
    const { jobId, sheetId } = await sheetWithReading()
    const said = (fields: object) =>
      problemsOf('reading.add', { id: newId(), jobId, sheetId, supersedesId: null, fields })
    const { quantities, ...head } = runningReading(12, 180)
    expect(said({ ...head, quantities })).toEqual([])
    expect(said({ ...head, kind: 'creep', quantities: {} })).toEqual([
      { field: 'fields.quantities.distance', message: '“distance” is missing.' },
    ])
    expect(said({ ...head, kind: 'glance', quantities })).toEqual([
      { field: 'fields', message: '“kind” is missing or none of the kinds known here.' },
    ])
    // What only the supply writes cannot be typed.
    const relay = { kind: 'relay', event: 'pulls-in', rise: 1, quantities, vouched: false } as const
    expect(said(relay)).toEqual([])
    await expect(
      send(shop.book, shop.maren, 'reading.add', { id: newId(), jobId, sheetId, supersedesId: null, fields: relay }),
    ).rejects.toMatchObject({
      status: 422,
      sentence: 'A line of this kind is written by an instrument, not typed.',
    })
  })

  it('belong to the engine’s state: mending a finding begins the next one', async () => {
    const { jobId, engineId } = await sheetWithReading()
    const id = newId()
    await send(shop.book, shop.maren, 'finding.save', { id, jobId, fields: { ...findingFields, state: 'confirmed' } })
    await send(
      shop.book,
      shop.maren,
      'finding.save',
      { id, jobId, fields: { ...findingFields, state: 'mended' } },
      { expectedVersion: 1 },
    )
    await send(shop.book, shop.maren, 'sheet.save', { id: newId(), jobId, fields: { ...someSheet, station: 'prove' } })
    expect((await readJob(shop.book.database, jobId)).sheets.map((sheet) => sheet.engineState)).toEqual([0, 1])
    expect(
      (await shop.book.database.select({ state: engine.stateNumber }).from(engine).where(eq(engine.id, engineId)))[0],
    ).toEqual({ state: 1 })
  })
})
