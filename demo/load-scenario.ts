import { readFileSync } from 'node:fs'
import { v7 as newId } from 'uuid'
import { describeConstruction } from '../core/knowledge/constructions'
import { writeReading } from '../server/commands/add-reading'
import { hashOf, runCommand, runOnce } from '../server/commands/run-command'
import type { Actor } from '../server/commands/write'
import type { Database } from '../server/db/book'
import { openWorkshop } from '../server/services/open-workshop'
import { keepPhotograph } from '../server/services/photographs'
import type { MeterRow } from '../messages/book'
import type { SheetFields } from '../messages/bench-entries'
import type { ReadingFields } from '../messages/readings/reading-kinds'
import type { RecordedQuantity } from '../messages/readings/recorded-quantity'
import type { CommandName, CommandPayload } from '../messages/commands'
import { understandLine } from '../messages/readings/typed-line'
import { stationIds } from '../messages/vocabulary'
import { drawPhotograph } from './draw-photograph'
import { relayEventOf } from '../work/relay-lines'
import { engines, type DemoEngine } from './engines'
import { instruments } from './instruments'
import { parcelFields, parcels, type DemoParcel } from './parcels'
import { engineTypes, type DemoType } from './engine-types'
import { jobs, type DemoJob } from './jobs'
import { benchHand, meters, owners, reader, shop } from './people-and-owners'
import { demoContinuity } from './continuity'
import { careEntriesOf, demoRunningHours, earlierCleaning, shelf } from './care'
import { demoStrips, nextPartOf, stripEntriesOf } from './strips'
import { demoTypeKnowledge } from './type-knowledge'
import { demoRunning, demoLearned, searchKey } from './search-steps'
import type { WrittenStep } from './write-searches'
import { demoLines, type DemoSheet } from './sheets'

const DAY_MS = 24 * 3600 * 1000
const MINUTE_MS = 60 * 1000
/** Each further one looks like the last. */
const MOST_STEPS_PHOTOGRAPHED = 3

interface ScenarioOptions {
  readonly now: Date
  readonly password: string
}

/** Loads the scenario through the same commands the screens use: nothing is put in past them. */
export async function loadScenario(database: Database, { now, password }: ScenarioOptions): Promise<void> {
  const maren = await openWorkshop(database, {
    workshopName: shop.name,
    name: 'Maren Tolvik',
    signInName: 'maren',
    password,
  })
  const loader = new ScenarioLoader(database, maren, now)
  await loader.workshop(password)
  await loader.instruments()
  await loader.book()
  for (const [index, job] of jobs.entries()) await loader.job(job, index)
  for (const demo of parcels) await loader.parcel(demo)
  await loader.running()
}

class ScenarioLoader {
  private readonly ownerIds = new Map<string, string>()
  private readonly typeIds = new Map<string, string>()
  private readonly parcelIds = new Map<string, string>()
  /** By engine the job that came in a parcel. */
  private readonly parcelJobIds = new Map<string, string>()
  private readonly engineIds = new Map<string, string>()
  private readonly meterRows: MeterRow[] = []
  private jonas: Actor | null = null

  constructor(
    private readonly database: Database,
    private readonly maren: Actor,
    private readonly now: Date,
  ) {}

  private async run<N extends CommandName>(
    name: N,
    payload: CommandPayload<N>,
    at: Date,
    options: { actor?: Actor; expectedVersion?: number } = {},
  ): Promise<{ version?: number }> {
    const { actor = this.maren, expectedVersion } = options
    const receipt = await runCommand(this.database, actor, name, {
      commandId: newId(),
      capturedAt: at.toISOString(),
      ...(expectedVersion === undefined ? {} : { expectedVersion }),
      payload,
    })
    return receipt.result as { version?: number }
  }

  async workshop(password: string): Promise<void> {
    const at = new Date(this.now.getTime() - 5 * 365 * DAY_MS)
    await this.run('workshop.save', { fields: shop }, at, { expectedVersion: 1 })
    for (const account of [benchHand, reader]) {
      const id = newId()
      await this.run('person.save', { id, fields: account, password }, at)
      if (account === benchHand) this.jonas = { id, name: account.name, role: account.role }
    }
    for (const fields of shelf) await this.run('shelf.save', { id: newId(), fields }, at)
    for (const fields of meters) {
      const id = newId()
      await this.run('meter.save', { id, fields }, at)
      this.meterRows.push({ id, version: 1, ...fields })
    }
  }

  /** The supplies that ship, so that a motor can be measured with nothing connected. */
  async instruments(): Promise<void> {
    const at = new Date(this.now.getTime() - 30 * DAY_MS)
    for (const fields of instruments) await this.run('instrument.save', { id: newId(), fields }, at)
  }

  async book(): Promise<void> {
    const at = new Date(this.now.getTime() - 5 * 365 * DAY_MS)
    for (const fields of owners) {
      const id = newId()
      this.ownerIds.set(fields.name, id)
      await this.run('owner.save', { id, fields }, at)
    }
    for (const type of engineTypes) {
      const id = newId()
      this.typeIds.set(type.key, id)
      await this.run('engine-type.save', { id, fields: type.fields }, at)
      const changes = demoTypeKnowledge[type.key]
      if (changes)
        await this.run('type-knowledge.save', { id, fields: { changes } }, new Date(this.now.getTime() - 60 * DAY_MS))
    }
    for (const engine of engines) await this.engine(engine, at)
    for (const demo of parcels) await this.parcel(demo)
  }

  private async engine(engine: DemoEngine, at: Date): Promise<void> {
    const id = newId()
    this.engineIds.set(engine.key, id)
    const type = this.typeOf(engine)
    await this.run(
      'engine.save',
      {
        id,
        fields: {
          ownerId: this.ownerIds.get(engine.owner) as string,
          typeId: this.typeIds.get(engine.type) as string,
          nickname: engine.nickname ?? '',
          runningNumber: engine.number ?? '',
          marks: engine.marks ?? '',
          condition: '',
          history: engine.history ?? '',
          differences: engine.differences ?? '',
          units: (engine.units ?? [{ name: 'Locomotive', powered: true }]).map((unit) => ({
            id: newId(),
            marks: '',
            ...unit,
          })),
        },
      },
      at,
    )
    if (engine.adaptations)
      await this.run('engine.adapt', { id, fields: { adaptations: [...engine.adaptations] } }, at, {
        expectedVersion: 1,
      })
    const { motorKind, poles } = type.fields
    await this.run(
      'component.save',
      {
        id: newId(),
        engineId: id,
        fields: {
          kind: 'motor',
          description: `Original ${motorKind.replace('-', ' ')} motor, ${poles} poles`,
          fittedOn: null,
          removedOn: null,
          notes: '',
        },
      },
      at,
    )
    if (engine.decoder) {
      const fittedOn = new Date(this.now.getTime() - 850 * DAY_MS).toISOString().slice(0, 10)
      await this.run(
        'component.save',
        {
          id: newId(),
          engineId: id,
          fields: {
            kind: 'decoder',
            description: engine.decoder,
            fittedOn,
            removedOn: null,
            notes: 'Address in the lid',
          },
        },
        at,
      )
    }
  }

  /** A parcel as it came, and once its jobs are in the book what of it belongs to which. */
  async parcel(demo: DemoParcel): Promise<void> {
    const known = this.parcelIds.get(demo.engines[0] ?? '')
    const id = known ?? newId()
    for (const key of demo.engines) this.parcelIds.set(key, id)
    const at = new Date(this.now.getTime() - demo.daysAgo * DAY_MS)
    const fields = parcelFields(demo, this.ownerIds.get(demo.owner) as string, this.parcelJobIds, at)
    await this.run('parcel.save', { id, fields }, at, known ? { expectedVersion: 1 } : {})
  }

  private typeOf(engine: DemoEngine): DemoType {
    return engineTypes.find((type) => type.key === engine.type) as DemoType
  }

  async job(demo: DemoJob, index: number): Promise<void> {
    const engine = engines.find((candidate) => candidate.key === demo.engine) as DemoEngine
    const actor = demo.jonas && this.jonas ? this.jonas : this.maren
    const takenIn = new Date(this.now.getTime() - demo.daysAgo * DAY_MS)
    takenIn.setUTCHours(9, 10 + (index % 40), 0, 0)
    let clock = Math.min(takenIn.getTime(), this.now.getTime() - 6 * 3600 * 1000)
    const later = (minutes: number): Date => new Date((clock += minutes * MINUTE_MS))
    const jobId = newId()
    const day = (days: number): string => new Date(this.now.getTime() + days * DAY_MS).toISOString().slice(0, 10)
    const { version: taken = 1 } = await this.run(
      'job.take-in',
      {
        jobId,
        owner: { existing: this.ownerIds.get(engine.owner) as string },
        type: null,
        engine: { existing: this.engineIds.get(engine.key) as string },
        job: {
          complaint: demo.complaint,
          trial: demo.trial ?? '',
          trialAttempts: demo.first?.trial?.[1] ?? 10,
          wanted: demo.wanted ?? '',
          moneyLimit: demo.limit ?? null,
          sentimental: demo.sentimental ?? false,
          consent: demo.consent ?? '',
          conditionOnArrival: demo.condition ?? '',
          dueOn: demo.dueIn === undefined ? null : day(demo.dueIn),
          estimateMinutes: demo.estimate ?? null,
          arrivals: (demo.arrivals ?? []).map(([kind, what, fate]) => ({
            id: newId(),
            kind,
            what,
            fate: fate ?? null,
          })),
          told: (demo.told ?? []).map(([test, outcome, words]) => ({ test, outcome, words })),
          parcelId: (demo.handBack ? undefined : this.parcelIds.get(engine.key)) ?? null,
        },
      },
      new Date(clock),
      { actor },
    )
    if (!demo.handBack) this.parcelJobIds.set(engine.key, jobId)
    for (const [ordinal, caption] of (demo.photographs ?? []).entries()) {
      const bytes = await drawPhotograph(engine.livery, this.typeOf(engine).looks, index * 10 + ordinal + 1)
      await keepPhotograph(
        this.database,
        actor,
        newId(),
        { id: newId(), jobId, station: ordinal === 0 ? 'take-in' : 'find', caption, about: null, takenAt: later(2) },
        bytes,
      )
    }
    const before = [...(demo.notes ?? [])]
    if (demo.first) await this.sheet(jobId, 'first-run', this.typeOf(engine), demo.first, index * 2 + 1, later, actor)
    const taught = await this.search(jobId, engine.key, demo, later, actor)
    await this.care(jobId, engine, demo, later, actor)
    if (demo.handBack) await this.photographSister(jobId, engine, later, actor)
    else await this.strip(jobId, engine, later, actor)
    for (const [what, place, state, origin, remedy, suspect] of demo.findings ?? []) {
      const findingId = await this.finding(jobId, { what, place, origin, remedy }, state, later, actor)
      if (suspect) {
        const entry = { kind: 'confirmed' as const, suspect, words: what, findingId, believed: [] }
        await this.run('search.add', { id: newId(), jobId, entry }, later(1), { actor })
      }
    }
    for (const [station, text, minutes] of before) {
      await this.run(
        'note.add',
        { id: newId(), jobId, fields: { station, text, minutes, supersedesId: null } },
        later(minutes),
        { actor },
      )
    }
    for (const [what, quantity, state, price] of demo.parts ?? []) {
      await this.run(
        'part.save',
        { id: newId(), jobId, fields: { what, quantity, state, price: price ?? null } },
        later(1),
        { actor },
      )
    }
    if (demo.wait) {
      const [label, hours] = demo.wait
      const endsAt = new Date(this.now.getTime() + hours * 60 * MINUTE_MS).toISOString()
      await this.run(
        'timer.begin',
        { id: newId(), fields: { jobId, station: demo.station, label, endsAt } },
        later(1),
        {
          actor,
        },
      )
    }
    if (demo.prove) await this.sheet(jobId, 'prove', this.typeOf(engine), demo.prove, index * 2 + 2, later, actor)
    if (demo.series) await this.series(jobId, demo.series, later, actor)
    if (demo.sequence) await this.sequence(jobId, demo.sequence, later, actor)
    if (demo.relay) await this.relay(jobId, demo.relay, later, actor)
    if (demo.rebuild) await this.rebuild(jobId, demo.rebuild, later, actor)
    let version = taken
    const reached = stationIds.indexOf(demo.station)
    for (let at = 1; at <= reached; at++) {
      const last = at === reached
      const station = stationIds[at] ?? 'take-in'
      if (demo.handBack && station === 'hand-back') continue
      const state = last && demo.state === 'waiting' ? 'waiting' : 'open'
      version =
        (
          await this.run(
            'job.move',
            { id: jobId, fields: { station, state, waitingFor: last ? (demo.waitingFor ?? '') : '' } },
            later(1),
            { actor, expectedVersion: version },
          )
        ).version ?? version
    }
    if (reached === 0 && demo.state === 'waiting')
      await this.run(
        'job.move',
        { id: jobId, fields: { station: 'take-in', state: 'waiting', waitingFor: demo.waitingFor ?? '' } },
        later(1),
        { actor, expectedVersion: version },
      )
    if (demo.handBack) {
      const { leftUndone = '', lubricants = '', dueAgain = '', partsReturned = '', price } = demo.handBack
      const out = new Date(Math.max(clock, takenIn.getTime() + (demo.outAfter ?? 1) * DAY_MS))
      await this.run(
        'job.hand-back',
        { id: jobId, fields: { leftUndone, lubricants, dueAgain, partsReturned, price } },
        out,
        { actor, expectedVersion: version },
      )
      if (taught)
        await this.run(
          'knowledge.learn',
          { id: newId(), jobId, fields: { suspects: [...taught], typeNote: '', withdrawn: false } },
          out,
          { actor },
        )
    }
  }

  /** Readings the supply took by itself, as its runs write them. */
  private async measured(
    jobId: string,
    fields: Omit<
      SheetFields,
      'withMeter' | 'roomCelsius' | 'warmedUp' | 'voltageMeterId' | 'currentMeterId' | 'remarks'
    >,
    readings: readonly ReadingFields[],
    later: (minutes: number) => Date,
    actor: Actor,
  ): Promise<void> {
    const sheetId = newId()
    await this.run(
      'sheet.save',
      {
        id: sheetId,
        jobId,
        fields: {
          ...fields,
          withMeter: true,
          roomCelsius: 20,
          warmedUp: false,
          voltageMeterId: null,
          currentMeterId: null,
          remarks: '',
        },
      },
      later(2),
      { actor },
    )
    for (const reading of readings) {
      const payload = { id: newId(), jobId, sheetId, supersedesId: null, fields: reading }
      await runOnce(
        this.database,
        {
          commandId: newId(),
          name: 'reading.add',
          bodyHash: hashOf('reading.add', payload),
          actor,
          capturedAt: later(0.1),
        },
        (write) => writeReading(write, payload, 'measured'),
      )
    }
  }

  private async rebuild(
    jobId: string,
    steps: NonNullable<DemoJob['rebuild']>,
    later: (minutes: number) => Date,
    actor: Actor,
  ): Promise<void> {
    const readings = steps.flatMap(([step, milliamps, turns]) =>
      milliamps.map((current) => ({
        kind: 'step' as const,
        step,
        turns,
        vouched: false,
        quantities: { voltage: supplyRead(4, 0.001), current: supplyRead(current / 1000, 0.0001) },
      })),
    )
    await this.measured(jobId, { station: 'rebuild', supply: 'smooth-dc' }, readings, later, actor)
  }

  private async series(
    jobId: string,
    series: NonNullable<DemoJob['series']>,
    later: (minutes: number) => Date,
    actor: Actor,
  ): Promise<void> {
    for (const supply of ['smooth-dc', 'ac'] as const) {
      await this.measured(
        jobId,
        { station: 'first-run', supply },
        series[supply].map(([kind, volts, amps, rpm]) => ({
          kind,
          direction: 'forward' as const,
          vouched: false,
          quantities: {
            voltage: supplyRead(volts, 0.001),
            current: supplyRead(amps, 0.0001),
            ...(rpm === null
              ? {}
              : { rotation: { typed: '', value: (rpm * 2 * Math.PI) / 60, resolution: 1, meter: null } }),
          },
        })),
        later,
        actor,
      )
    }
  }

  private async sequence(
    jobId: string,
    { seen, failures, pullIn }: NonNullable<DemoJob['sequence']>,
    later: (minutes: number) => Date,
    actor: Actor,
  ): Promise<void> {
    const count = (value: number) => ({ typed: '', value, resolution: 1, meter: null })
    await this.measured(
      jobId,
      { station: 'first-run', supply: 'ac' },
      [
        ...seen.map(([position, volts, amps], number) => ({
          kind: 'sequence' as const,
          interruption: number,
          position,
          vouched: false,
          quantities: { voltage: supplyRead(volts, 0.001), current: supplyRead(amps, 0.0001) },
        })),
        {
          kind: 'sequence-count' as const,
          pullIn,
          vouched: false,
          quantities: { failures: count(failures), attempts: count(seen.length - 1) },
        },
      ],
      later,
      actor,
    )
  }

  private async relay(
    jobId: string,
    { pullsIn, letsGo }: NonNullable<DemoJob['relay']>,
    later: (minutes: number) => Date,
    actor: Actor,
  ): Promise<void> {
    const between = (volts: number): [number, number] => [volts - 0.05, volts + 0.05]
    const line = (event: Parameters<typeof relayEventOf>[0]) => ({
      kind: 'relay' as const,
      ...relayEventOf(event),
      vouched: false,
      quantities: {
        voltage: supplyRead(event.volts, event.kind === 'on-ac' ? 0.001 : 0.1),
        current: supplyRead(event.amps, 0.0001),
      },
    })
    // With its contact closed the horn's 18 Ω lie beside coil and lamp; open they do not.
    await this.measured(
      jobId,
      { station: 'first-run', supply: 'smooth-dc' },
      [
        ...pullsIn.flatMap((volts, index) => [
          line({ kind: 'pull-in', repeat: index + 1, between: between(volts), volts, amps: volts * 0.085 }),
          line({
            kind: 'drop-out',
            repeat: index + 1,
            between: between(letsGo[index] ?? 2),
            volts: letsGo[index] ?? 2,
            amps: (letsGo[index] ?? 2) * 0.0296,
          }),
        ]),
        line({ kind: 'on-ac', between: null, volts: 13.96, amps: 0.412 }),
      ],
      later,
      actor,
    )
  }

  /** The steps of a job's search: what was done, and what was believed when; answers what the job taught, if it did. */
  private async search(
    jobId: string,
    engineKey: string,
    demo: DemoJob,
    later: (minutes: number) => Date,
    actor: Actor,
  ): Promise<readonly string[] | undefined> {
    const searches = JSON.parse(readFileSync(new URL('./searches.json', import.meta.url), 'utf8')) as Record<
      string,
      { circumstances: string[]; steps: WrittenStep[] } | undefined
    >
    const key = searchKey(engineKey, demo.handBack ? demo.daysAgo : undefined)
    const written = searches[key]
    const add = (entry: object): Promise<unknown> =>
      this.run('search.add', { id: newId(), jobId, entry: entry as CommandPayload<'search.add'>['entry'] }, later(2), {
        actor,
      })
    const running = demo.handBack ? undefined : demoRunning[engineKey]
    if (running) await add({ kind: 'known', circumstances: ['exhibition'], off: [], missing: [], running })
    if (!written) return demoLearned[key]
    await add({ kind: 'known', circumstances: written.circumstances, off: [], missing: [] })
    for (const step of written.steps)
      await add(
        step.kind === 'confirmed' || step.kind === 'repaired'
          ? { ...step, findingId: step.kind === 'confirmed' ? newId() : null }
          : step,
      )
    if (!demo.handBack) await this.continuity(jobId, engineKey, later, actor)
    return written.steps.flatMap((step) => (step.kind === 'confirmed' && step.suspect ? [step.suspect] : []))
  }

  /** Hours that ran in the last half year: a few engines often, and one show for the whole club. */
  async running(): Promise<void> {
    const day = (daysAgo: number): string => new Date(this.now.getTime() - daysAgo * DAY_MS).toISOString().slice(0, 10)
    const book = (daysAgo: number, show: string, rows: ReadonlyArray<readonly [key: string, hours: number]>) =>
      this.run(
        'running.book',
        {
          id: newId(),
          fields: {
            day: day(daysAgo),
            show,
            engines: rows.flatMap(([key, hours]) => {
              const engineId = this.engineIds.get(key)
              return engineId ? [{ engineId, hours, meter: null, meterReplaced: false }] : []
            }),
          },
        },
        new Date(this.now.getTime() - daysAgo * DAY_MS),
      )
    for (const [daysAgo, show, rows] of demoRunningHours) await book(daysAgo, show, rows)
  }

  /** What was cleaned and oiled; in some earlier jobs, how long it took. */
  private async care(
    jobId: string,
    engine: DemoEngine,
    demo: DemoJob,
    later: (minutes: number) => Date,
    actor: Actor,
  ): Promise<void> {
    const { construction, power } = this.typeOf(engine).fields
    const description = describeConstruction(construction, power)
    const entries = demo.handBack
      ? demo.daysAgo % 5 === 0
        ? earlierCleaning(description, 'oxide', 1.4 + (demo.daysAgo % 3) * 0.3)
        : []
      : careEntriesOf(engine.key, description)
    for (const entry of entries) await this.run('care.add', { id: newId(), jobId, entry }, later(2), { actor })
  }

  /** What is off the engine of a job in hand, and how far it is together again. */
  private async strip(
    jobId: string,
    engine: DemoEngine,
    later: (minutes: number) => Date,
    actor: Actor,
  ): Promise<void> {
    const { construction, power } = this.typeOf(engine).fields
    let pictures = 0
    for (const entry of stripEntriesOf(engine.key, construction, power)) {
      if (entry.kind === 'off' && pictures < MOST_STEPS_PHOTOGRAPHED)
        await this.photographPart(jobId, engine, entry.part, pictures++, later(1), actor)
      await this.run('strip.add', { id: newId(), jobId, entry }, later(1), { actor })
    }
    // What lies before the hands now is photographed too: the sister engine is laid over it.
    const next = nextPartOf(engine.key, construction, power)
    if (next) await this.photographPart(jobId, engine, next, pictures, later(1), actor)
  }

  /** A sister engine was taken apart in an earlier job: its photographs stand at the same steps. */
  private async photographSister(
    jobId: string,
    engine: DemoEngine,
    later: (minutes: number) => Date,
    actor: Actor,
  ): Promise<void> {
    const key = Object.keys(demoStrips).find((other) =>
      engines.some((entry) => entry.key === other && entry.type === engine.type),
    )
    if (!key) return
    const { construction, power } = this.typeOf(engine).fields
    const parts = stripEntriesOf(key, construction, power).flatMap((entry) =>
      entry.kind === 'off' ? [entry.part] : [],
    )
    const next = nextPartOf(key, construction, power)
    for (const [ordinal, part] of [...parts.slice(0, 2), ...(next ? [next] : [])].entries())
      await this.photographPart(jobId, engine, part, ordinal, later(1), actor)
  }

  private async photographPart(
    jobId: string,
    engine: DemoEngine,
    part: string,
    ordinal: number,
    takenAt: Date,
    actor: Actor,
  ): Promise<void> {
    const looks = { ...this.typeOf(engine).looks, opened: ordinal > 0 }
    const bytes = await drawPhotograph(engine.livery, looks, 1000 + ordinal)
    const id = newId()
    const about = { kind: 'part' as const, part, moment: 'off' as const }
    await keepPhotograph(
      this.database,
      actor,
      newId(),
      { id, jobId, station: 'strip', caption: '', about, takenAt },
      bytes,
    )
    if (ordinal === 1)
      await this.run(
        'photograph.save',
        {
          id,
          jobId,
          fields: {
            caption: 'Red lead over the motor, not under it',
            about,
            marks: [
              { shape: 'arrow', x: 0.34, y: 0.42, toX: 0.2, toY: 0.22, words: 'red lead, over' },
              { shape: 'ring', x: 0.52, y: 0.47, toX: 0.56, toY: 0.47, words: 'brush cap' },
            ],
          },
        },
        takenAt,
        { actor, expectedVersion: 1 },
      )
  }

  /** Continuity readings of the engine's job in hand, as typed at the bench. */
  private async continuity(
    jobId: string,
    engineKey: string,
    later: (minutes: number) => Date,
    actor: Actor,
  ): Promise<void> {
    for (const [point, column, reading] of demoContinuity[engineKey] ?? []) {
      const fields = {
        point,
        column,
        words: `${point.replace('.', ' ').replaceAll('-', ' ')}, ${column}`,
        reading:
          reading === 'closed' || reading === 'open'
            ? { kind: reading }
            : {
                kind: 'ohms' as const,
                quantity: { typed: reading, value: Number.parseFloat(reading), resolution: 0.1, meter: null },
              },
      }
      await this.run('continuity.add', { id: newId(), jobId, fields }, later(0.2), { actor })
    }
  }

  private async finding(
    jobId: string,
    fields: { what: string; place: string; origin: 'arrived' | 'inside' | 'here'; remedy: string },
    state: CommandPayload<'finding.save'>['fields']['state'],
    later: (minutes: number) => Date,
    actor: Actor,
  ): Promise<string> {
    const id = newId()
    const life =
      state === 'mended'
        ? (['suspected', 'confirmed', 'mended'] as const)
        : state === 'suspected'
          ? (['suspected'] as const)
          : (['suspected', state] as const)
    for (const [step, stepState] of life.entries()) {
      await this.run('finding.save', { id, jobId, fields: { ...fields, state: stepState } }, later(3), {
        actor,
        ...(step > 0 ? { expectedVersion: step } : {}),
      })
    }
    return id
  }

  private async sheet(
    jobId: string,
    station: 'first-run' | 'prove',
    type: DemoType,
    demo: DemoSheet,
    seed: number,
    later: (minutes: number) => Date,
    actor: Actor,
  ): Promise<void> {
    const sheetId = newId()
    const ac = type.fields.power === 'ac'
    const meter = (name: string): MeterRow | null => this.meterRows.find((row) => row.name.startsWith(name)) ?? null
    const used = { voltage: meter('Bench meter, 20 V'), current: meter(ac ? 'Track meter' : 'Bench meter, 400 mA') }
    await this.run(
      'sheet.save',
      {
        id: sheetId,
        jobId,
        fields: {
          station,
          withMeter: demo.withMeter,
          roomCelsius: demo.celsius ?? null,
          warmedUp: false,
          supply: ac ? 'ac' : type.fields.power === 'dcc' ? 'dcc' : 'smooth-dc',
          voltageMeterId: demo.withMeter ? (used.voltage?.id ?? null) : null,
          currentMeterId: demo.withMeter ? (used.current?.id ?? null) : null,
          remarks: '',
        },
      },
      later(2),
      { actor },
    )
    for (const line of demoLines(type, demo, seed)) {
      const { fields, errors } = understandLine(line, 'rotation', used)
      if (!fields)
        throw new Error(`The scenario holds a line that cannot be understood: ${JSON.stringify({ line, errors })}`)
      await this.run('reading.add', { id: newId(), jobId, sheetId, supersedesId: null, fields }, later(0.5), { actor })
    }
  }
}

/** A quantity as the demo's supply reads it. */
function supplyRead(value: number, resolution: number): RecordedQuantity {
  return {
    typed: '',
    value,
    resolution,
    meter: { id: newId(), name: 'Simulated bench supply', percentOfReading: 0.1, digits: 3 },
  }
}
