import { v7 as newId } from 'uuid'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Actor } from '../../server/commands/write'
import type { Book } from '../../server/db/book'
import { readMotorPast } from '../../server/services/motor-past'
import { judgeAgainstHistory } from '../../core/motor/history-judgement'
import { historyBefore } from '../../work/motor-history'
import { someSheet } from '../support/some-entries'
import { freshWorkshop, openTestBook, send, takeInSomething } from '../support/test-book'

let book: Book
let maren: Actor
beforeAll(() => {
  book = openTestBook()
})
afterAll(() => book.close())
beforeEach(async () => {
  maren = await freshWorkshop(book)
})

const DAY_MS = 86_400_000

/** A sheet of readings that follow one motor exactly, so many days ago. */
async function sheetOf(
  jobId: string,
  motor: { ohms: number; backEmf: number },
  daysAgo: number,
  station: 'first-run' | 'prove' = 'prove',
): Promise<string> {
  const id = newId()
  const capturedAt = new Date(Date.now() - daysAgo * DAY_MS).toISOString()
  await send(
    book,
    maren,
    'sheet.save',
    { id, jobId, fields: { ...someSheet, station, withMeter: true, roomCelsius: 20, warmedUp: false } },
    { capturedAt },
  )
  const quantity = (value: number, unit: string) => ({
    typed: `${value} ${unit}`,
    value,
    resolution: value / 1000,
    meter: null,
  })
  const add = (kind: 'running' | 'locked', volts: number, amps: number, more: object = {}) =>
    send(
      book,
      maren,
      'reading.add',
      {
        id: newId(),
        jobId,
        sheetId: id,
        supersedesId: null,
        fields: {
          kind,
          direction: 'forward',
          vouched: false,
          quantities: { voltage: quantity(volts, 'V'), current: quantity(amps, 'A'), ...more },
        },
      },
      { capturedAt },
    )
  for (const volts of [1, 1.2, 1.4, 1.6, 1.8, 2]) await add('locked', volts, volts / motor.ohms)
  for (const volts of [5, 8, 10, 12]) {
    const speed = (volts - motor.ohms * 0.1) / (motor.backEmf + motor.ohms * 2e-5)
    await add('running', volts, 0.1 + 2e-5 * speed, { rotation: quantity(speed, 'rad/s') })
  }
  return id
}

describe('what the book knows of a motor', () => {
  it('its own sheets in the order they were taken, the shop’s others one each, and the class of its construction', async () => {
    const first = await takeInSomething(book, maren)
    const another = () => takeInSomething(book, maren, 'Another of them', first.typeId)
    const [second, third] = [await another(), await another()]
    const motor = { ohms: 24, backEmf: 0.009 }
    await sheetOf(first.jobId, motor, 700)
    const latest = await sheetOf(first.jobId, { ...motor, backEmf: 0.0075 }, 2, 'first-run')
    await sheetOf(second.jobId, { ...motor, ohms: 23 }, 400)
    await sheetOf(second.jobId, { ...motor, ohms: 24.5 }, 40)
    await sheetOf(third.jobId, { ...motor, ohms: 25 }, 90)
    await sheetOf(third.jobId, { ohms: 40, backEmf: 0.006 }, 10, 'first-run')

    const past = await readMotorPast(book.database, first.engineId)
    expect(past.own.map((sheet) => sheet.figures.backEmf?.value.toFixed(4))).toEqual(['0.0090', '0.0075'])
    // Not the sheet before the work, and of the second engine only its latest.
    expect(past.shop.map((figures) => figures.resistance?.value.toFixed(1)).sort()).toEqual(['24.5', '25.0'])
    const history = historyBefore(past, latest)
    const judged = history && judgeAgainstHistory(past.own.at(-1)?.figures ?? {}, history)
    expect(judged?.most).toMatchObject({ since: 'own', line: { name: 'backEmf', own: { beyondDoubt: true } } })
    expect(judged?.most?.line.own?.share).toBeCloseTo(0.0075 / 0.009 - 1, 2)
  })

  it('leaves out sheets of the motor that was there before, and examples with another motor', async () => {
    const first = await takeInSomething(book, maren)
    const other = await takeInSomething(book, maren, 'Another of them', first.typeId)
    await sheetOf(first.jobId, { ohms: 24, backEmf: 0.009 }, 700)
    await sheetOf(first.jobId, { ohms: 12, backEmf: 0.006 }, 20)
    await sheetOf(other.jobId, { ohms: 30, backEmf: 0.012 }, 30)
    const fittedOn = new Date(Date.now() - 100 * DAY_MS).toISOString().slice(0, 10)
    await send(book, maren, 'component.save', {
      id: newId(),
      engineId: first.engineId,
      fields: { kind: 'motor', description: 'Five-pole replacement', fittedOn, removedOn: null, notes: '' },
    })
    const past = await readMotorPast(book.database, first.engineId)
    expect(past).toMatchObject({ motorSince: fittedOn, own: [{ figures: { resistance: {} } }] })
    expect(past.own[0]?.figures.resistance?.value).toBeCloseTo(12, 1)
    await send(
      book,
      maren,
      'engine.adapt',
      {
        id: other.engineId,
        fields: {
          adaptations: [
            {
              kind: 'motor',
              motor: 'motor',
              name: 'Other motor',
              motorKind: 'can',
              ohms: 30,
              segments: 5,
              backEmf: 0.012,
            },
          ],
        },
      },
      { expectedVersion: 1 },
    )
    expect((await readMotorPast(book.database, first.engineId)).shop).toEqual([])
  })

  it('nothing of an engine that is not there', async () => {
    await expect(readMotorPast(book.database, newId())).rejects.toMatchObject({ status: 404 })
  })
})
