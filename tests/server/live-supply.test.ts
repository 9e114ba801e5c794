import { v7 as newId } from 'uuid'
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { SimulatedSupply } from '../../bench/supply/simulated-supply'
import { SupplyServer } from '../../bench/supply/supply-server'
import type { Actor } from '../../server/commands/write'
import type { Book } from '../../server/db/book'
import { reading } from '../../server/db/schema'
import { keepLiveReading } from '../../server/measuring/keep-live-reading'
import { Jogs } from '../../server/measuring/jogs'
import { LiveBenches } from '../../server/measuring/live-benches'
import { MeasuringRuns } from '../../server/measuring/measuring-runs'
import { SupplyClaims } from '../../server/measuring/supply-claims'
import { zeroLeads } from '../../server/measuring/zero-leads'
import type { BenchMessage, LiveReading } from '../../messages/live-bench'
import { someSheet } from '../support/some-entries'
import { freshWorkshop, openTestBook, send, takeInSomething } from '../support/test-book'
import { someInstrument, sheetOf } from '../support/some-instrument'

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

describe('a mechanism moved on by pulses', () => {
  it('pulses while the key is held, takes silence for letting go, and gives the supply back', async () => {
    const claims = new SupplyClaims()
    const jogs = new Jogs(claims, 150, 50)
    const { engineId } = await takeInSomething(book, maren)
    const id = await instrument()
    expect(await jogs.hold(book.database, id, engineId, false)).toBe('Bench supply: pulses of 4.0 V')
    expect(claims.holder(id)).toBe('moving a mechanism on by pulses')
    await expect(new LiveBenches(claims).open(book.database, id, null, 'motor')).rejects.toMatchObject({ status: 409 })
    // The other way while the pulses are under way: they end first.
    expect(await jogs.hold(book.database, id, engineId, true)).toBe('Bench supply: pulses of 4.0 V, turned round')
    // Nothing more is heard of the key: the line broke, or somebody let go.
    await expect.poll(() => claims.holder(id), { timeout: 10_000 }).toBeNull()
    expect(await jogs.hold(book.database, id, engineId, false)).toBe('Bench supply: pulses of 4.0 V')
    await jogs.letGo(id)
    await expect.poll(() => claims.holder(id), { timeout: 10_000 }).toBeNull()
    await expect(jogs.hold(book.database, newId(), engineId, true)).rejects.toMatchObject({ status: 404 })
  })

  it('gives the supply up at once to whoever wants it, when it is only kept at hand for the next pulse', async () => {
    const claims = new SupplyClaims()
    const jogs = new Jogs(claims, 150, 60_000)
    const { engineId } = await takeInSomething(book, maren)
    const id = await instrument()
    await jogs.hold(book.database, id, engineId, false)
    await jogs.letGo(id)
    const benches = new LiveBenches(claims)
    await expect
      .poll(
        () =>
          benches.open(book.database, id, null, 'motor').then(
            ({ instrumentId }) => instrumentId,
            () => null,
          ),
        {
          timeout: 10_000,
        },
      )
      .toBe(id)
    // Taken in earnest it is not to be had for pulses.
    await expect(jogs.hold(book.database, id, engineId, false)).rejects.toMatchObject({ status: 409 })
    await benches.close(id)
  })
})

describe('a supply watched live', () => {
  const listen = (benches: LiveBenches) => {
    const heard: BenchMessage[] = []
    const leave = benches.listen((message) => heard.push(message))
    const readings = (): LiveReading[] =>
      heard.flatMap((message) => (message.kind === 'readings' ? message.readings : []))
    return { heard, readings, leave }
  }

  it('reads volts, amps and a speed, the same for everyone who listens, and keeps the last minute for who comes later', async () => {
    const benches = new LiveBenches(new SupplyClaims())
    const { engineId } = await takeInSomething(book, maren)
    const id = await instrument()
    const first = listen(benches)
    expect(await benches.open(book.database, id, engineId, 'motor')).toMatchObject({
      status: 'live',
      settings: { on: false, volts: 0 },
    })
    await benches.set(id, { volts: 9, on: true })
    await expect.poll(() => Math.abs(first.readings().at(-1)?.volts ?? 0), { timeout: 15_000 }).toBeGreaterThan(8.5)
    // Still running up at first.
    await expect.poll(() => first.readings().at(-1)?.radPerSecond ?? 0, { timeout: 15_000 }).toBeGreaterThan(300)
    expect(first.readings().at(-1)?.amps).toBeGreaterThan(0.02)
    const second = listen(benches)
    expect(second.readings().length).toBeGreaterThanOrEqual(first.readings().length - 1)
    await benches.set(id, { reversed: true })
    await expect.poll(() => first.readings().at(-1)?.volts ?? 0, { timeout: 15_000 }).toBeLessThan(-8.5)
    await expect.poll(() => second.readings().at(-1)?.volts ?? 0).toBeLessThan(-8.5)
    await benches.close(id)
    expect(first.heard.at(-1)).toMatchObject({ kind: 'state', state: { status: 'closed', settings: { on: false } } })
    first.leave()
    second.leave()
  })

  it('writes what it reads now into the sheet of the engine’s open job, once however often it is sent', async () => {
    const benches = new LiveBenches(new SupplyClaims())
    const heard = listen(benches)
    const { engineId, jobId } = await takeInSomething(book, maren)
    const id = await instrument()
    const keep = (commandId = newId(), held = false) =>
      keepLiveReading(book.database, benches, maren, id, { commandId, held })
    await expect(keep()).rejects.toMatchObject({
      status: 409,
      message: expect.stringContaining('not watched live') as string,
    })
    await benches.open(book.database, id, engineId, 'motor')
    await expect(keep()).rejects.toMatchObject({
      status: 409,
      message: expect.stringContaining('no open job with a sheet for a meter') as string,
    })
    const sheetId = newId()
    await send(book, maren, 'sheet.save', { id: sheetId, jobId, fields: someSheet })
    await expect(keep()).rejects.toMatchObject({ status: 422, message: 'The output is off: there is nothing to keep.' })
    await benches.set(id, { volts: 9, reversed: true, on: true })
    await expect(keep()).rejects.toMatchObject({ status: 422 })
    const commandId = newId()
    await expect
      .poll(() => keep(commandId).catch((problem: Error) => problem.message), { timeout: 100_000 })
      .toMatchObject({ jobId, sheetId, kind: 'running', direction: 'reverse' })
    const first = await keep(commandId)
    expect(first.volts).toBeGreaterThan(8.9)
    await expect(keep(commandId, true)).rejects.toMatchObject({
      status: 422,
      message: expect.stringContaining('already used') as string,
    })
    const rows = await book.database.select().from(reading).where(eq(reading.sheetId, sheetId))
    expect(rows).toHaveLength(1)
    expect(rows[0]).toMatchObject({
      id: first.readingId,
      source: 'measured',
      quantities: { voltage: { meter: { name: 'Bench supply' } } },
    })
    expect(rows[0]?.quantities).not.toHaveProperty('rotation')
    await benches.close(id)
    heard.leave()
  })

  it('shares its supply with no sheet, and gives it back', async () => {
    const claims = new SupplyClaims()
    const [benches, runs] = [new LiveBenches(claims), new MeasuringRuns(claims)]
    const { sheetId } = await sheetOf(book, maren)
    const id = await instrument()
    await benches.open(book.database, id, null, 'motor')
    await expect(runs.start(book.database, maren, sheetId, sweep(id))).rejects.toMatchObject({
      status: 409,
      message: 'Bench supply is watched live under Instruments: wait for it, or stop it there.',
    })
    await expect(benches.open(book.database, id, null, 'motor')).rejects.toMatchObject({ status: 409 })
    await benches.close(id)
    await runs.start(book.database, maren, sheetId, sweep(id))
    expect((await benches.rows(book.database)).find((row) => row.instrumentId === id)?.takenBy).toBe(
      'measuring for another sheet',
    )
    runs.stop(sheetId)
    await expect.poll(() => runs.state(sheetId)?.status, { timeout: 100_000 }).toBe('stopped')
  })

  it('says so when the supply goes off by itself, instead of showing it as on', async () => {
    const simulated = new SimulatedSupply({ clock: () => performance.now() / 1000 })
    const server = new SupplyServer(simulated)
    const benches = new LiveBenches(new SupplyClaims())
    const heard = listen(benches)
    try {
      const id = await instrument({ kind: 'network', host: '127.0.0.1', port: await server.listen() })
      await benches.open(book.database, id, null, 'motor')
      await benches.set(id, { volts: 6, on: true })
      await expect.poll(() => heard.readings().at(-1)?.volts ?? 0, { timeout: 10_000 }).toBeGreaterThan(5.9)
      simulated.off()
      await expect
        .poll(async () => (await benches.rows(book.database)).find((row) => row.instrumentId === id)?.live, {
          timeout: 10_000,
        })
        .toMatchObject({
          status: 'failed',
          says: expect.stringContaining('gone off by itself') as string,
          settings: { on: false },
        })
    } finally {
      heard.leave()
      await server.close()
    }
  })

  it('goes off when the last screen looks away', async () => {
    const benches = new LiveBenches(new SupplyClaims(), 50)
    const id = await instrument()
    const { leave } = listen(benches)
    await benches.open(book.database, id, null, 'motor')
    await benches.set(id, { volts: 5, on: true })
    leave()
    await expect
      .poll(async () => (await benches.rows(book.database)).find((row) => row.instrumentId === id)?.live)
      .toMatchObject({
        status: 'closed',
        says: 'Nobody was looking any more, so its output went off.',
        settings: { on: false },
      })
  })

  it('says when the supply falls silent, and lets it go', async () => {
    const claims = new SupplyClaims()
    const benches = new LiveBenches(claims)
    const supplyServer = new SupplyServer(new SimulatedSupply({ clock: () => performance.now() / 1000 }))
    const port = await supplyServer.listen()
    const id = await instrument({ kind: 'network', host: '127.0.0.1', port })
    const { heard, leave } = listen(benches)
    await benches.open(book.database, id, null, 'motor')
    supplyServer.dropClient()
    await expect
      .poll(() => heard.at(-1), { timeout: 10_000 })
      .toMatchObject({
        kind: 'state',
        state: { status: 'failed', says: expect.stringContaining('was lost') as string },
      })
    expect(claims.holder(id)).toBeNull()
    await expect(benches.set(id, { on: true })).rejects.toMatchObject({ status: 409 })
    leave()
    await supplyServer.close()
    await expect(benches.open(book.database, id, null, 'motor')).rejects.toMatchObject({
      status: 502,
      message: expect.stringContaining('Nothing answers') as string,
    })
    expect(claims.holder(id)).toBeNull()
  })

  it('measures its leads with the clips together: the simulated one’s 80 mΩ come back within 2', async () => {
    const claims = new SupplyClaims()
    const { ohms, halfWidth } = await zeroLeads(book.database, claims, await instrument({ leadOhms: 0.08 }))
    expect(Math.abs(ohms - 0.08)).toBeLessThan(0.002)
    expect(halfWidth).toBeLessThan(0.005)
    const supplyServer = new SupplyServer(new SimulatedSupply({ clock: () => performance.now() / 1000 }))
    const apart = await instrument({ kind: 'network', host: '127.0.0.1', port: await supplyServer.listen() })
    await expect(zeroLeads(book.database, claims, apart)).rejects.toMatchObject({
      status: 422,
      message: expect.stringContaining('put the two clips together') as string,
    })
    expect(claims.holder(apart)).toBeNull()
    await supplyServer.close()
  })
})
