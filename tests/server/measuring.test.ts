import { v7 as newId } from 'uuid'
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { usualCommands } from '../../bench/supply/supply-commands'
import type { Actor } from '../../server/commands/write'
import type { Book } from '../../server/db/book'
import { journal, reading } from '../../server/db/schema'
import { clampAdvice } from '../../server/measuring/clamp-advice'
import { MeasuringRuns } from '../../server/measuring/measuring-runs'
import { sheetMachine } from '../../server/measuring/sheet-machine'
import { readEngine } from '../../server/services/engines-and-owners'
import type { InstrumentFields } from '../../shared/messages/bench-entries'
import { someSheet } from '../support/some-entries'
import { freshWorkshop, openTestBook, send, takeInSomething } from '../support/test-book'

let book: Book
let maren: Actor
beforeAll(() => {
  process.env.ECHOPPE_BENCH_PACE = '60'
  book = openTestBook()
})
afterAll(async () => {
  delete process.env.ECHOPPE_BENCH_PACE
  await book.close()
})
beforeEach(async () => {
  maren = await freshWorkshop(book)
})

const supply = (more: Partial<InstrumentFields> = {}): InstrumentFields => ({
  name: 'Bench supply', kind: 'simulated', host: '', port: 5025, leadOhms: 0.1, commands: { ...usualCommands },
  voltage: { percentOfReading: 0.05, digits: 2, resolution: 0.001 }, current: { percentOfReading: 0.1, digits: 3, resolution: 0.0001 }, retired: false, ...more,
})
async function instrument(more: Partial<InstrumentFields> = {}): Promise<string> {
  const id = newId()
  await send(book, maren, 'instrument.save', { id, fields: supply(more) })
  return id
}
async function sheetOf(construction?: 'three-rail-single'): Promise<{ sheetId: string; jobId: string }> {
  const { jobId, engineId, typeId } = await takeInSomething(book, maren)
  if (construction) {
    const { type } = await readEngine(book.database, engineId)
    const { id: _id, version, templateId: _template, adaptations: _adaptations, ...fields } = type
    await send(book, maren, 'engine-type.save', { id: typeId, fields: { ...fields, construction, power: 'ac', motorKind: 'ac-series' } }, { expectedVersion: version })
  }
  const sheetId = newId()
  await send(book, maren, 'sheet.save', { id: sheetId, jobId, fields: someSheet })
  return { sheetId, jobId }
}

describe('measuring a motor into its sheet', () => {
  it('keeps every reading as measured, with the supply’s accuracy as it was, in the journal too', async () => {
    const runs = new MeasuringRuns()
    const { sheetId, jobId } = await sheetOf()
    await runs.start(book.database, maren, sheetId, await instrument())
    runs.watch(sheetId, (state) => { if (state.status === 'hold') setImmediate(() => runs.held(sheetId)) })
    await expect.poll(() => runs.state(sheetId)?.status, { timeout: 40_000 }).toBe('done')
    const rows = await book.database.select().from(reading).where(eq(reading.sheetId, sheetId))
    expect(rows).toHaveLength(37)
    expect(new Set(rows.map((row) => row.source))).toEqual(new Set(['measured']))
    expect(rows.filter((row) => row.kind === 'locked')).toHaveLength(24)
    expect(rows.find((row) => row.kind === 'running')?.quantities).toMatchObject({ voltage: { meter: { name: 'Bench supply', percentOfReading: 0.05, digits: 2 } }, rotation: { meter: null } })
    const entries = await book.database.select().from(journal).where(eq(journal.jobId, jobId))
    expect(entries.filter((entry) => entry.subject === 'reading')).toHaveLength(37)
  })

  it('one supply serves one sheet at a time, and is free again once that one is stopped', async () => {
    const runs = new MeasuringRuns()
    const [first, second] = [await sheetOf(), await sheetOf()]
    const id = await instrument()
    await runs.start(book.database, maren, first.sheetId, id)
    await expect(runs.start(book.database, maren, second.sheetId, id)).rejects.toMatchObject({ status: 409, message: expect.stringContaining('measuring for another sheet') as string })
    await expect.poll(() => runs.state(first.sheetId)?.status, { timeout: 20_000 }).toBe('hold')
    runs.stop(first.sheetId)
    await expect.poll(() => runs.state(first.sheetId)?.status, { timeout: 20_000 }).toBe('stopped')
    expect((await runs.start(book.database, maren, second.sheetId, id)).status).toBe('running')
    runs.stop(second.sheetId)
    await expect.poll(() => runs.state(second.sheetId)?.status, { timeout: 20_000 }).toBe('stopped')
  })

  it('says why it cannot: nothing at the address, a wound field, an instrument that is not there', async () => {
    const runs = new MeasuringRuns()
    const { sheetId } = await sheetOf()
    await runs.start(book.database, maren, sheetId, await instrument({ kind: 'network', host: '127.0.0.1', port: 9 }))
    await expect.poll(() => runs.state(sheetId), { timeout: 10_000 }).toMatchObject({ status: 'failed', says: 'Nothing answers at 127.0.0.1:9: is the supply on, and the address right?' })
    const ac = await sheetOf('three-rail-single')
    await expect(runs.start(book.database, maren, ac.sheetId, await instrument())).rejects.toMatchObject({ status: 422, message: expect.stringContaining('wound field') as string })
    await expect(runs.start(book.database, maren, sheetId, newId())).rejects.toMatchObject({ status: 404 })
    await expect(send(book, maren, 'instrument.save', { id: newId(), fields: supply({ kind: 'network', host: ' ' }) })).rejects.toMatchObject({ status: 422 })
  })

  it('tells where to clamp and what to take off first, from the engine’s own circuit', async () => {
    const { sheetId } = await sheetOf()
    const { description } = await sheetMachine(book.database, sheetId)
    expect(clampAdvice(description)).toMatchObject({ plus: 'motor.plus', minus: 'motor.minus', takeOff: ['Lead to the can motor, plus', 'Lead to the can motor, minus'] })
  })
})
