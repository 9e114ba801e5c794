import sharp from 'sharp'
import { v7 as newId } from 'uuid'
import { beforeEach, describe, expect, it } from 'vitest'
import type { EngineBook, JobBook, OwnerBook, TimerRow, WorkshopBook } from '../../messages/book'
import {
  engineBookWith,
  jobBookWith,
  ownerBookWith,
  timersWith,
  workshopBookWith,
  type Changes,
} from '../../messages/changes'
import { commandNames, type CommandName, type CommandPayload } from '../../messages/commands'
import { effectOf } from '../../messages/effects'
import { BookNews } from '../../server/book-news'
import { keepPhotograph } from '../../server/services/photographs'
import { readTimers } from '../../server/services/timers'
import { readEngine, readOwner } from '../../server/services/engines-and-owners'
import { readJob } from '../../server/services/read-job'
import { readWorkshop } from '../../server/services/read-workshop'
import { sampleMessages, type SampleIds } from '../support/sample-messages'
import { send, takeInSomething, useTestBook } from '../support/test-book'

const shop = useTestBook()

interface Books {
  readonly job: JobBook
  readonly engine: EngineBook
  readonly owner: OwnerBook
  readonly workshop: WorkshopBook
  readonly timers: readonly TimerRow[]
}

let ids: SampleIds
let readingId: string

beforeEach(async () => {
  const { jobId } = await takeInSomething(shop.book, shop.maren)
  const { engine, owner, type } = await readJob(shop.book.database, jobId)
  ids = {
    jobId,
    engineId: engine.id,
    ownerId: owner.id,
    typeId: type.id,
    sheetId: newId(),
    findingId: newId(),
    photographId: newId(),
    personId: shop.maren.id,
  }
  const samples = sampleMessages(ids)
  await send(shop.book, shop.maren, 'sheet.save', { ...samples['sheet.save'], id: ids.sheetId })
  await send(shop.book, shop.maren, 'finding.save', { ...samples['finding.save'], id: ids.findingId })
  await keepPhotograph(
    shop.book.database,
    shop.maren,
    newId(),
    { id: ids.photographId, jobId, station: 'strip', caption: '', about: null, takenAt: new Date() },
    await sharp({ create: { width: 8, height: 8, channels: 3, background: 'red' } })
      .png()
      .toBuffer(),
  )
  readingId = samples['reading.add'].id
  await send(shop.book, shop.maren, 'reading.add', samples['reading.add'])
})

async function readBooks(): Promise<Books> {
  const { database } = shop.book
  return {
    job: await readJob(database, ids.jobId),
    engine: await readEngine(database, ids.engineId),
    owner: await readOwner(database, ids.ownerId),
    workshop: await readWorkshop(database),
    timers: (await readTimers(database)).timers,
  }
}

/** As every screen puts changes into what it shows. Job tags and lists of engines are reckoned from many jobs: left out. */
function booksWith(books: Books, changes: Changes): Books {
  return {
    job: jobBookWith(books.job, changes) as JobBook,
    engine: engineBookWith(books.engine, changes),
    owner: ownerBookWith(books.owner, changes),
    workshop: workshopBookWith(books.workshop, changes),
    timers: timersWith(books.timers, changes),
  }
}

/** Lists by id, since a book sorts by what its rows say; without what only the server can know, where asked. */
function comparable(value: unknown, withVersions: boolean): unknown {
  if (Array.isArray(value)) {
    const rows = value.map((row) => comparable(row, withVersions))
    return rows.every((row) => row !== null && typeof row === 'object' && 'id' in row)
      ? (rows as Array<{ id: string }>).toSorted((one, other) => one.id.localeCompare(other.id))
      : rows
  }
  if (value === null || typeof value !== 'object') return value
  const hidden = new Set(['jobs', 'engines', ...(withVersions ? [] : ['version', 'journal'])])
  return Object.fromEntries(
    Object.entries(value)
      .filter(([key]) => !hidden.has(key))
      .map(([key, entry]) => [key, comparable(entry, withVersions)]),
  )
}

/** One of every message, and those more that begin another state of the engine or strike a line out. */
function messages(): Array<readonly [CommandName, unknown, version?: number]> {
  const samples = sampleMessages(ids)
  const { fields } = samples['finding.save']
  return [
    ...commandNames
      .filter((name) => name !== 'reading.strike')
      .map((name) => [name, samples[name], versionFor(name)] as const),
    ['reading.strike', { ...samples['reading.strike'], readingId, reason: 'meter off' }],
    [
      'finding.save',
      {
        id: newId(),
        jobId: ids.jobId,
        fields: { ...fields, state: 'confirmed' },
        search: { id: newId(), entry: { kind: 'could-not', test: 'lid-look', words: 'no time' } },
        strip: {
          id: newId(),
          entry: { kind: 'not-as-planned', part: 'body', words: 'Body', what: 'loose', remark: '', findingId: null },
        },
      },
    ],
    [
      'finding.save',
      {
        id: ids.findingId,
        jobId: ids.jobId,
        fields: { ...fields, state: 'mended' },
        search: {
          id: newId(),
          entry: {
            kind: 'repaired',
            suspect: 'tyre-perished@tyres',
            words: 'new tyres',
            findingId: ids.findingId,
            believed: [],
          },
        },
      },
      1,
    ],
    [
      'search.add',
      {
        id: newId(),
        jobId: ids.jobId,
        entry: { kind: 'repaired', suspect: 'tyre-perished@tyres', words: 'new tyres', findingId: null, believed: [] },
      },
    ],
  ]
}
const versionFor = (name: CommandName): number | undefined =>
  [
    'engine.adapt',
    'engine-type.adapt',
    'photograph.save',
    'job.edit',
    'job.move',
    'job.hand-back',
    'workshop.save',
  ].includes(name)
    ? 1
    : undefined

describe('the effect of every message', () => {
  it('on the screen is what the server makes of it, and its receipt brings the book to what a fresh reading says', async () => {
    for (const [name, payload, expectedVersion] of messages()) {
      const before = await readBooks()
      const versions: Partial<Record<CommandName, number>> = {
        'engine.adapt': before.engine.engine.version,
        'engine-type.adapt': before.engine.type.version,
        'job.edit': before.job.job.version,
        'job.move': before.job.job.version,
        'job.hand-back': before.job.job.version,
        'workshop.save': before.workshop.version,
      }
      const capturedAt = new Date().toISOString()
      const overlay = effectOf(
        name,
        { ...before.job, ...before.workshop, version: before.workshop.version, timers: before.timers },
        { payload: payload as CommandPayload<typeof name>, author: shop.maren.name, capturedAt },
      )
      const receipt = await send(shop.book, shop.maren, name, payload as never, {
        capturedAt,
        expectedVersion: versions[name] ?? expectedVersion,
      })
      const after = await readBooks()
      expect(comparable(booksWith(before, overlay), false), name).toEqual(comparable(after, false))
      expect(comparable(booksWith(before, receipt.changes), true), name).toEqual(comparable(after, true))
    }
  })

  it('comes again with a repeat, as the rows are by then', async () => {
    const commandId = newId()
    const payload = { ...sampleMessages(ids)['part.save'] }
    await send(shop.book, shop.maren, 'part.save', payload, { commandId })
    await send(
      shop.book,
      shop.maren,
      'part.save',
      { ...payload, fields: { ...payload.fields, state: 'here' } },
      { expectedVersion: 1 },
    )
    const repeated = await send(shop.book, shop.maren, 'part.save', payload, { commandId })
    expect(repeated.changes.parts).toMatchObject([{ id: payload.id, state: 'here', version: 2 }])
  })
})

describe('the news of a book', () => {
  const note = (jobId: string, text: string): Changes => ({
    notes: [
      {
        id: newId(),
        jobId,
        station: 'find',
        text,
        minutes: 1,
        supersedesId: null,
        author: 'Maren',
        capturedAt: '2026-11-01T10:00:00.000Z',
      },
    ],
  })
  const heardFrom = (news: BookNews, since: string): { heard: string[]; missed: number; leave: () => void } => {
    const result = { heard: [] as string[], missed: 0, leave: () => {} }
    result.leave = news.listen(
      { jobId: 'job-a' },
      since,
      ({ changes }) => result.heard.push(...(changes.notes ?? []).map((row) => row.text)),
      () => {
        result.missed += 1
      },
    )
    return result
  }

  it('tells what was written since the book was read, then what is written, of this job alone', () => {
    const news = new BookNews()
    news.tell(note('job-a', 'before'))
    const { now } = news
    news.tell(note('job-a', 'since'))
    news.tell(note('job-b', 'elsewhere'))
    const listener = heardFrom(news, now)
    news.tell(note('job-a', 'then'))
    listener.leave()
    news.tell(note('job-a', 'after leaving'))
    expect(listener).toMatchObject({ heard: ['since', 'then'], missed: 0 })
  })

  it('says that the book must be read again where too much was missed, or the server is another', () => {
    const news = new BookNews()
    const { now } = news
    for (let index = 0; index < 600; index++) news.tell(note('job-a', String(index)))
    expect(heardFrom(news, now)).toMatchObject({ heard: [], missed: 1 })
    expect(heardFrom(news, new BookNews().now)).toMatchObject({ heard: [], missed: 1 })
    expect(heardFrom(news, '')).toMatchObject({ heard: [], missed: 1 })
    expect(heardFrom(news, news.now)).toMatchObject({ heard: [], missed: 0 })
  })
})
