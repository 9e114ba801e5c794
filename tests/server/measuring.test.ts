import { v7 as newId } from 'uuid'
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { SimulatedSupply } from '../../bench/supply/simulated-supply'
import { usualCommands } from '../../bench/supply/supply-commands'
import { SupplyServer } from '../../bench/supply/supply-server'
import { diagnosisKnowledge } from '../../core/knowledge/diagnosis-knowledge'
import type { Actor } from '../../server/commands/write'
import type { Book } from '../../server/db/book'
import { journal, reading } from '../../server/db/schema'
import { clampAdvice, firstMotorClamp } from '../../server/measuring/clamp-advice'
import { keepLiveReading } from '../../server/measuring/keep-live-reading'
import { Jogs } from '../../server/measuring/jogs'
import { LiveBenches } from '../../server/measuring/live-benches'
import { MeasuringRuns } from '../../server/measuring/measuring-runs'
import { proceduresFor } from '../../server/measuring/procedures/procedures'
import { sheetMachine } from '../../server/measuring/sheet-machine'
import { SupplyClaims } from '../../server/measuring/supply-claims'
import { zeroLeads } from '../../server/measuring/zero-leads'
import { readEngine } from '../../server/services/engines-and-owners'
import { readJob } from '../../server/services/read-job'
import { gatheredFindings } from '../../work/gathered-findings'
import type { BenchMessage, LiveReading } from '../../messages/live-bench'
import type { InstrumentFields, SheetFields } from '../../messages/bench-entries'
import { someSheet } from '../support/some-entries'
import { freshWorkshop, openTestBook, send, takeInSomething } from '../support/test-book'

let book: Book
let maren: Actor
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
const supply = (more: Partial<InstrumentFields> = {}): InstrumentFields => ({
  name: 'Bench supply',
  kind: 'simulated',
  host: '',
  port: 5025,
  leadOhms: 0.1,
  commands: { ...usualCommands },
  voltage: { percentOfReading: 0.05, digits: 2, resolution: 0.001 },
  current: { percentOfReading: 0.1, digits: 3, resolution: 0.0001 },
  retired: false,
  ...more,
})
async function instrument(more: Partial<InstrumentFields> = {}): Promise<string> {
  const id = newId()
  await send(book, maren, 'instrument.save', { id, fields: supply(more) })
  return id
}
async function sheetOf(
  construction?: 'three-rail-single' | 'three-rail-twin',
  station: 'first-run' | 'rebuild' = 'first-run',
  supply: SheetFields['supply'] = 'smooth-dc',
): Promise<{ sheetId: string; jobId: string }> {
  const { jobId, engineId, typeId } = await takeInSomething(book, maren)
  if (construction) {
    const { type } = await readEngine(book.database, engineId)
    const { id: _id, version, templateId: _template, adaptations: _adaptations, ...fields } = type
    await send(
      book,
      maren,
      'engine-type.save',
      { id: typeId, fields: { ...fields, construction, power: 'ac', motorKind: 'ac-series' } },
      { expectedVersion: version },
    )
  }
  const sheetId = newId()
  await send(book, maren, 'sheet.save', { id: sheetId, jobId, fields: { ...someSheet, station, supply } })
  return { sheetId, jobId }
}

describe('measuring a motor into its sheet', () => {
  it('keeps every reading as measured, with the supply’s accuracy as it was, in the journal too', async () => {
    const runs = new MeasuringRuns(new SupplyClaims())
    const { sheetId, jobId } = await sheetOf()
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
    const [first, second] = [await sheetOf(), await sheetOf()]
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
    const { sheetId } = await sheetOf()
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
      send(book, maren, 'instrument.save', { id: newId(), fields: supply({ kind: 'network', host: ' ' }) }),
    ).rejects.toMatchObject({ status: 422 })
  })

  it('tests a step of the rebuild: a moment at low volts, somebody says which way it turned, five readings stand under the step’s name', async () => {
    const runs = new MeasuringRuns(new SupplyClaims())
    const { sheetId } = await sheetOf(undefined, 'rebuild')
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
    const { sheetId } = await sheetOf(undefined, 'rebuild')
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
    const { sheetId } = await sheetOf('three-rail-single')
    const dc = await sheetOf()
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
      const { sheetId } = await sheetOf('three-rail-single', 'first-run', supplied)
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
    const { sheetId } = await sheetOf('three-rail-twin')
    const plain = await sheetOf('three-rail-single')
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
    const { sheetId } = await sheetOf()
    const { description } = await sheetMachine(book.database, sheetId)
    expect(firstMotorClamp(description)).toMatchObject({ plus: 'motor.plus', minus: 'motor.minus' })
    expect(clampAdvice(description, firstMotorClamp(description))).toMatchObject({
      takeOff: ['Lead to the can motor, plus', 'Lead to the can motor, minus'],
      paperUnder: [],
    })
    const ac = (await sheetMachine(book.database, (await sheetOf('three-rail-twin')).sheetId)).description
    expect(clampAdvice(ac, firstMotorClamp(ac))).toEqual({
      red: 'Field, first end',
      black: 'Frame',
      paperUnder: ['Sequence switch: supply to the field, forward'],
      takeOff: ['Field coil of the rear motor', 'Lead to the brush of the rear motor'],
    })
  })
})

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
    const { sheetId } = await sheetOf()
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
