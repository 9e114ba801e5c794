import { v7 as newId } from 'uuid'
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { diagnosisKnowledge } from '../../core/knowledge/diagnosis-knowledge'
import type { Actor } from '../../server/commands/write'
import type { Book } from '../../server/db/book'
import { journal, reading } from '../../server/db/schema'
import { clampAdvice, firstMotorClamp } from '../../server/measuring/clamp-advice'
import { MeasuringRuns } from '../../server/measuring/measuring-runs'
import { proceduresFor } from '../../server/measuring/procedures/procedures'
import { sheetMachine } from '../../server/measuring/sheet-machine'
import { SupplyClaims } from '../../server/measuring/supply-claims'
import { readJob } from '../../server/services/read-job'
import { gatheredFindings } from '../../work/gathered-findings'
import { freshWorkshop, openTestBook, send } from '../support/test-book'
import { someInstrument, someSupply, sheetOf } from '../support/some-instrument'

let book: Book
let maren: Actor
const instrument = (more?: Parameters<typeof someInstrument>[2]) => someInstrument(book, maren, more)
beforeAll(() => {
  process.env.ECHOPPE_BENCH_PACE = '12'
  book = openTestBook()
})
afterAll(async () => {
  delete process.env.ECHOPPE_BENCH_PACE
  await book.close()
})
beforeEach(async () => {
  maren = await freshWorkshop(book)
})

const sweep = (instrumentId: string) => ({ instrumentId, procedure: 'sweep' as const, step: '' })

describe('measuring a motor into its sheet', () => {
  it('keeps every reading as measured, with the supply’s accuracy as it was, in the journal too', async () => {
    const runs = new MeasuringRuns(new SupplyClaims())
    const { sheetId, jobId } = await sheetOf(book, maren)
    await runs.start(book.database, maren, sheetId, sweep(await instrument()))
    runs.watch(sheetId, (state) => {
      if (state.status === 'hold') setImmediate(() => runs.held(sheetId))
    })
    await expect.poll(() => runs.state(sheetId)?.status, { timeout: 100_000 }).toBe('done')
    const rows = await book.database.select().from(reading).where(eq(reading.sheetId, sheetId))
    expect(rows).toHaveLength(37)
    expect(new Set(rows.map((row) => row.source))).toEqual(new Set(['measured']))
    expect(rows.filter((row) => row.kind === 'locked')).toHaveLength(24)
    expect(rows.find((row) => row.kind === 'running')?.quantities).toMatchObject({
      voltage: { meter: { name: 'Bench supply', percentOfReading: 0.05, digits: 2 } },
      rotation: { meter: null },
    })
    const entries = await book.database.select().from(journal).where(eq(journal.jobId, jobId))
    expect(entries.filter((entry) => entry.subject === 'reading')).toHaveLength(37)
    // Taken at the motor's terminals: it says so to the search, and nothing of the track.
    const { description } = await sheetMachine(book.database, sheetId)
    const found = gatheredFindings(await readJob(book.database, jobId), description, diagnosisKnowledge).map(
      (finding) => `${finding.test} ${finding.outcome}`,
    )
    expect(found).toContain('terminals-run runs')
    expect(found.filter((finding) => finding.startsWith('track'))).toEqual([])
  })

  it('one supply serves one sheet at a time, and is free again once that one is stopped', async () => {
    const runs = new MeasuringRuns(new SupplyClaims())
    const [first, second] = [await sheetOf(book, maren), await sheetOf(book, maren)]
    const id = await instrument()
    await runs.start(book.database, maren, first.sheetId, sweep(id))
    await expect(runs.start(book.database, maren, second.sheetId, sweep(id))).rejects.toMatchObject({
      status: 409,
      message: expect.stringContaining('measuring for another sheet') as string,
    })
    await expect.poll(() => runs.state(first.sheetId)?.status, { timeout: 100_000 }).toBe('hold')
    runs.stop(first.sheetId)
    await expect.poll(() => runs.state(first.sheetId)?.status, { timeout: 100_000 }).toBe('stopped')
    expect((await runs.start(book.database, maren, second.sheetId, sweep(id))).status).toBe('running')
    runs.stop(second.sheetId)
    await expect.poll(() => runs.state(second.sheetId)?.status, { timeout: 100_000 }).toBe('stopped')
  })

  it('says why it cannot: nothing at the address, an instrument that is not there', async () => {
    const runs = new MeasuringRuns(new SupplyClaims())
    const { sheetId } = await sheetOf(book, maren)
    await runs.start(
      book.database,
      maren,
      sheetId,
      sweep(await instrument({ kind: 'network', host: '127.0.0.1', port: 9 })),
    )
    await expect
      .poll(() => runs.state(sheetId), { timeout: 10_000 })
      .toMatchObject({
        status: 'failed',
        says: 'Nothing answers at 127.0.0.1:9: is the supply on, and the address right?',
      })
    await expect(runs.start(book.database, maren, sheetId, sweep(newId()))).rejects.toMatchObject({ status: 404 })
    await expect(
      send(book, maren, 'instrument.save', { id: newId(), fields: someSupply({ kind: 'network', host: ' ' }) }),
    ).rejects.toMatchObject({ status: 422 })
  })

  it('tests a step of the rebuild: a moment at low volts, somebody says which way it turned, five readings stand under the step’s name', async () => {
    const runs = new MeasuringRuns(new SupplyClaims())
    const { sheetId } = await sheetOf(book, maren, { station: 'rebuild' })
    const id = await instrument()
    const step = (name: string) => ({ instrumentId: id, procedure: 'step' as const, step: name })
    await expect(runs.start(book.database, maren, sheetId, step(' '))).rejects.toMatchObject({
      status: 422,
      message: 'Say which step was just done.',
    })
    await expect(runs.start(book.database, maren, sheetId, sweep(id))).rejects.toMatchObject({
      status: 422,
      message: expect.stringContaining('belongs to First run and Prove') as string,
    })
    for (const [name, turns] of [
      ['Motor in its frame', 'forward'],
      ['First axle', 'stands'],
    ] as const) {
      await runs.start(book.database, maren, sheetId, step(name))
      await expect.poll(() => runs.state(sheetId)?.status, { timeout: 100_000 }).toBe('asks')
      expect(runs.state(sheetId)?.latest?.amps).toBeGreaterThan(0.01)
      runs.answer(sheetId, turns)
      await expect.poll(() => runs.state(sheetId)?.status, { timeout: 100_000 }).toBe('done')
    }
    const rows = await book.database.select().from(reading).where(eq(reading.sheetId, sheetId))
    const of = (name: string) => rows.filter((row) => row.detail?.step === name).map((row) => row.detail?.turns)
    expect(of('Motor in its frame')).toEqual(Array.from({ length: 5 }, () => 'forward'))
    expect(of('First axle')).toEqual(Array.from({ length: 5 }, () => 'stands'))
  })

  it('does not leave the output on when nobody answers', async () => {
    const runs = new MeasuringRuns(new SupplyClaims(), 300)
    const { sheetId } = await sheetOf(book, maren, { station: 'rebuild' })
    await runs.start(book.database, maren, sheetId, {
      instrumentId: await instrument(),
      procedure: 'step',
      step: 'Motor alone',
    })
    await expect
      .poll(() => runs.state(sheetId), { timeout: 100_000 })
      .toMatchObject({ status: 'stopped', says: expect.stringContaining('The output is off') as string, readings: 0 })
  })

  it('tests a sequence switch: neutral known by its current, the direction asked, the drum’s steps and the volts that pull it in told', async () => {
    const runs = new MeasuringRuns(new SupplyClaims())
    const { sheetId } = await sheetOf(book, maren, { construction: 'three-rail-single' })
    const dc = await sheetOf(book, maren)
    const id = await instrument()
    const sequence = { instrumentId: id, procedure: 'sequence' as const, step: '' }
    await expect(runs.start(book.database, maren, dc.sheetId, sequence)).rejects.toMatchObject({
      status: 422,
      message: 'This machine has no sequence switch.',
    })
    const asked: string[] = []
    let running = 0
    await runs.start(book.database, maren, sheetId, sequence)
    runs.watch(sheetId, (state) => {
      if (state.status !== 'asks' || asked.at(-1) === state.says) return
      asked.push(state.says)
      // As somebody would see it: a motor that takes current runs, each time the other way; switched on it has stepped once.
      const turning = (state.latest?.amps ?? 0) > 0.05 * (state.latest?.volts ?? 1)
      if (turning) running += 1
      runs.answer(sheetId, turning ? (running % 2 === 1 ? 'reverse' : 'forward') : 'stands')
    })
    await expect.poll(() => runs.state(sheetId)?.status, { timeout: 60_000 }).toBe('done')
    expect(runs.state(sheetId)?.says).toMatch(
      /^8 interruptions, every one a single step\. It pulls in between 4\.\d\d and 4\.\d\d V\./,
    )
    // Neutral was told by the current once it had been seen: only running positions were asked for.
    // Which of two comes first hangs on whether switching on has stepped the drum once or, after a longer pause, twice.
    const [first = 1] = asked.slice(1, 2).map((question) => (question.startsWith('Interruption 1') ? 1 : 2))
    expect(asked).toEqual([
      'What does it do, as it was found?',
      ...[0, 2, 4, 6].map((later) => `Interruption ${first + later}: what does it do?`),
    ])
    const rows = await book.database.select().from(reading).where(eq(reading.sheetId, sheetId))
    expect(rows.find((row) => row.kind === 'sequence-count')).toMatchObject({
      quantities: { failures: { value: 0 }, attempts: { value: 8 } },
      detail: { pullIn: { above: expect.closeTo(4.5, 0) as number, below: expect.closeTo(4.5, 0) as number } },
    })
    expect(rows.map((row) => row.detail)).toContainEqual({ interruption: first === 1 ? 2 : 1, position: 'neutral' })
  })

  it.each(['smooth-dc', 'ac'] as const)(
    'measures a wound field on the supply its sheet is for: %s',
    async (supplied) => {
      const runs = new MeasuringRuns(new SupplyClaims())
      const { sheetId } = await sheetOf(book, maren, {
        construction: 'three-rail-single',
        station: 'first-run',
        supply: supplied,
      })
      await runs.start(book.database, maren, sheetId, sweep(await instrument()))
      runs.watch(sheetId, (state) => {
        if (state.status === 'hold') setImmediate(() => runs.held(sheetId))
      })
      await expect.poll(() => runs.state(sheetId)?.status, { timeout: 100_000 }).toBe('done')
      const rows = await book.database.select().from(reading).where(eq(reading.sheetId, sheetId))
      expect(rows.filter((row) => row.kind === 'locked')).toHaveLength(6)
      const running = rows.filter((row) => row.kind === 'running')
      expect(running).toHaveLength(11)
      // On AC the ripple of the current is the supply's own: no speed is claimed.
      expect(running.filter((row) => 'rotation' in row.quantities)).toHaveLength(supplied === 'ac' ? 0 : 11)
    },
  )

  it('tests a relay with the motors’ leads off: where it pulls in and lets go, each rise a line of the sheet, at rest on AC', async () => {
    const runs = new MeasuringRuns(new SupplyClaims())
    const { sheetId } = await sheetOf(book, maren, { construction: 'three-rail-twin' })
    const plain = await sheetOf(book, maren, { construction: 'three-rail-single' })
    const relay = { instrumentId: await instrument(), procedure: 'relay' as const, step: '' }
    await expect(runs.start(book.database, maren, plain.sheetId, relay)).rejects.toMatchObject({
      status: 422,
      message: 'This machine has no relay.',
    })
    expect(proceduresFor(await sheetMachine(book.database, sheetId))).toEqual(['sweep', 'sequence', 'relay'])
    await runs.start(book.database, maren, sheetId, relay)
    await expect.poll(() => runs.state(sheetId)?.status, { timeout: 100_000 }).toBe('done')
    expect(runs.state(sheetId)?.says).toMatch(
      /^It pulls in at 4\.\d\d ± 0\.\d\d V and lets go at 1\.\d\d ± 0\.\d\d V\. The output is off\.$/,
    )
    const rows = await book.database.select().from(reading).where(eq(reading.sheetId, sheetId))
    expect(rows.map((row) => row.detail)).toEqual(
      expect.arrayContaining([
        { event: 'pulls-in', rise: 1 },
        { event: 'lets-go', rise: 3 },
        { event: 'ac-at-rest', rise: null },
      ]),
    )
    expect(rows.find(({ detail }) => detail?.event === 'pulls-in' && detail.rise === 2)?.quantities).toMatchObject({
      voltage: { resolution: 0.1 },
    })
    const { description, jobId } = await sheetMachine(book.database, sheetId)
    expect(gatheredFindings(await readJob(book.database, jobId), description, diagnosisKnowledge)).toMatchObject([
      { test: 'horn-test', outcome: 'sounds' },
    ])
  })

  it('tells where to clamp and what to take off first, from the engine’s own circuit', async () => {
    const { sheetId } = await sheetOf(book, maren)
    const { description } = await sheetMachine(book.database, sheetId)
    expect(firstMotorClamp(description)).toMatchObject({ plus: 'motor.plus', minus: 'motor.minus' })
    expect(clampAdvice(description, firstMotorClamp(description))).toMatchObject({
      takeOff: ['Lead to the can motor, plus', 'Lead to the can motor, minus'],
      paperUnder: [],
    })
    const ac = (
      await sheetMachine(book.database, (await sheetOf(book, maren, { construction: 'three-rail-twin' })).sheetId)
    ).description
    expect(clampAdvice(ac, firstMotorClamp(ac))).toEqual({
      red: 'Field, first end',
      black: 'Frame',
      paperUnder: ['Sequence switch: supply to the field, forward'],
      takeOff: ['Field coil of the rear motor', 'Lead to the brush of the rear motor'],
    })
  })
})
