import { v7 as newId } from 'uuid'
import type { MeterRow } from '../messages/book'
import type { CommandName, CommandPayload } from '../messages/commands'
import type { Actor } from '../server/commands/write'
import type { Database } from '../server/db/book'
import { openWorkshop } from '../server/services/open-workshop'
import { demoRunningHours, shelf } from './care'
import { engineTypes, type DemoType } from './engine-types'
import { engines, type DemoEngine } from './engines'
import { instruments } from './instruments'
import { DAY_MS, JobPen, runDemo } from './job-pen'
import { jobs, type DemoJob } from './jobs'
import { parcelFields, parcels, type DemoParcel } from './parcels'
import { benchHand, meters, owners, reader, shop } from './people-and-owners'
import { demoTypeKnowledge } from './type-knowledge'
import { writeJob } from './write-job'

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

  private run<N extends CommandName>(
    name: N,
    payload: CommandPayload<N>,
    at: Date,
    { expectedVersion }: { readonly expectedVersion?: number } = {},
  ): Promise<{ version?: number }> {
    return runDemo(this.database, this.maren, name, payload, at, expectedVersion)
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
    const clock = Math.min(takenIn.getTime(), this.now.getTime() - 6 * 3600 * 1000)
    const pen = new JobPen(this.database, actor, engine, this.meterRows, clock)
    await writeJob(pen, demo, {
      ownerId: this.ownerIds.get(engine.owner) as string,
      engineId: this.engineIds.get(engine.key) as string,
      parcelId: (demo.handBack ? undefined : this.parcelIds.get(engine.key)) ?? null,
      index,
      takenIn,
      now: this.now,
    })
    if (!demo.handBack) this.parcelJobIds.set(engine.key, pen.jobId)
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
}
