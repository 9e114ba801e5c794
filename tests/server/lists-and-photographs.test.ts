import { eq } from 'drizzle-orm'
import sharp from 'sharp'
import { v7 as newId } from 'uuid'
import { describe, expect, it } from 'vitest'
import { benchToday } from '../../server/services/bench-today'
import { listEngines, listOwners, readEngine } from '../../server/services/engines-and-owners'
import { job } from '../../server/db/schema'
import { listJobs, MOST_COUNTED } from '../../server/services/list-jobs'
import { keepPhotograph, readPhotograph, readThumbnail } from '../../server/services/photographs'
import { readJob } from '../../server/services/read-job'
import { send, takeInSomething, useTestBook } from '../support/test-book'

const shop = useTestBook()

const everything = { search: '', states: [], station: null, sort: 'newest', page: 1, pageSize: 20 } as const

describe('finding jobs', () => {
  it('finds by number, engine, type, owner and complaint, all words at once, whatever their case', async () => {
    const { number } = await takeInSomething(shop.book, shop.maren, 'Squeals like a gull')
    await takeInSomething(shop.book, shop.maren, 'Dead')
    for (const search of [String(number), 'squeals', 'ORRIN gull', 'órrin GÜLL', 'kestering squeals', 'ines squeals']) {
      expect((await listJobs(shop.book.database, { ...everything, search })).rows.map((row) => row.number)).toEqual([
        number,
      ])
    }
    expect((await listJobs(shop.book.database, { ...everything, search: 'orrin' })).total).toBe(2)
    expect((await listJobs(shop.book.database, { ...everything, search: '100%_' })).total).toBe(0)
  })

  it('orders what a search found as the whole list is ordered, page by page', async () => {
    for (let i = 0; i < 7; i++) await takeInSomething(shop.book, shop.maren, 'Squeals')
    for (const sort of ['due', 'newest', 'oldest', 'number'] as const) {
      const whole = (await listJobs(shop.book.database, { ...everything, sort })).rows.map((row) => row.number)
      const found = await Promise.all(
        [1, 2, 3].map((page) =>
          listJobs(shop.book.database, { ...everything, sort, search: 'squeals', page, pageSize: 3 }),
        ),
      )
      expect(found.flatMap((page) => page.rows.map((row) => row.number))).toEqual(whole)
      expect(found.map((page) => page.total)).toEqual([7, 7, 7])
    }
  })

  it('counts a search no further than a thousand, and says that there are more', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren, 'Squeals')
    const [row] = await shop.book.database.select().from(job).where(eq(job.id, jobId))
    if (!row) throw new Error('It was not taken in.')
    const { dueOrder: _computed, ...copied } = row
    const copies = Array.from({ length: MOST_COUNTED }, (_, i) => ({
      ...copied,
      id: newId(),
      number: row.number + 1 + i,
    }))
    await shop.book.database.insert(job).values(copies)
    const found = await listJobs(shop.book.database, { ...everything, sort: 'number', search: 'squeals', page: 2 })
    expect(found).toMatchObject({ total: MOST_COUNTED, more: true })
    expect(found.rows.map((entry) => entry.number)).toEqual(
      Array.from({ length: 20 }, (_, i) => row.number + MOST_COUNTED - 20 - i),
    )
  })

  it('follows an engine’s new nickname and an owner’s new name', async () => {
    const { engineId, ownerId } = await takeInSomething(shop.book, shop.maren)
    const { engine } = await readEngine(shop.book.database, engineId)
    const { id: _id, version, stateNumber: _state, adaptations: _adaptations, ...fields } = engine
    await send(
      shop.book,
      shop.maren,
      'engine.save',
      { id: engineId, fields: { ...fields, nickname: 'Puffin' } },
      { expectedVersion: version },
    )
    expect((await listJobs(shop.book.database, { ...everything, search: 'puffin' })).total).toBe(1)
    await send(
      shop.book,
      shop.maren,
      'owner.save',
      { id: ownerId, fields: { name: 'Hamza Yildirak', email: '', phone: '', address: '', notes: '', isShop: false } },
      { expectedVersion: 1 },
    )
    expect((await listJobs(shop.book.database, { ...everything, search: 'yildirak' })).total).toBe(1)
    expect((await listEngines(shop.book.database, 'puffin yildirak', 1, 10)).total).toBe(1)
    expect((await listOwners(shop.book.database, 'hamza', 1, 10)).rows).toMatchObject([
      { name: 'Hamza Yildirak', engines: 1 },
    ])
  })

  it('pages without losing or repeating a job, and filters by state and station', async () => {
    for (let i = 0; i < 7; i++) await takeInSomething(shop.book, shop.maren)
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    await send(
      shop.book,
      shop.maren,
      'job.move',
      { id: jobId, fields: { station: 'mend', state: 'waiting', waitingFor: 'a tyre' } },
      { expectedVersion: 1 },
    )
    const pages = await Promise.all(
      [1, 2, 3].map((page) => listJobs(shop.book.database, { ...everything, page, pageSize: 3 })),
    )
    expect(new Set(pages.flatMap((page) => page.rows.map((row) => row.id))).size).toBe(8)
    expect((await listJobs(shop.book.database, { ...everything, states: ['waiting'] })).rows).toMatchObject([
      { id: jobId, waitingFor: 'a tyre' },
    ])
    expect((await listJobs(shop.book.database, { ...everything, station: 'mend' })).total).toBe(1)
    const today = await benchToday(shop.book.database, new Date())
    expect(today.counts).toMatchObject({ onBench: 7, waiting: 1 })
  })
})

it('counts a corrected note’s minutes once, on the tag as in the job', async () => {
  const { jobId } = await takeInSomething(shop.book, shop.maren)
  const first = newId()
  await send(shop.book, shop.maren, 'note.add', {
    id: first,
    jobId,
    fields: { station: 'find', text: 'Looked', minutes: 30, supersedesId: null },
  })
  await send(shop.book, shop.maren, 'note.add', {
    id: newId(),
    jobId,
    fields: { station: 'find', text: 'Looked', minutes: 20, supersedesId: first },
  })
  expect((await listJobs(shop.book.database, everything)).rows[0]?.minutesUsed).toBe(20)
})

describe('photographs', () => {
  const details = (jobId: string) => ({
    id: newId(),
    jobId,
    station: 'take-in' as const,
    caption: 'As it came',
    about: null,
    takenAt: new Date(),
  })

  it('come back whole and upright over a block’s size, without the place and the camera that were written into them', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const noise = Buffer.alloc(1800 * 1300 * 3, 0).map((_, i) => (i * 7919) % 251)
    const bytes = await sharp(noise, { raw: { width: 1800, height: 1300, channels: 3 } })
      .withExif({ IFD0: { Make: 'Someone', Artist: 'Somebody' }, IFD3: { GPSLatitude: '51/1 30/1 0/1' } })
      .withMetadata({ orientation: 6 })
      .jpeg({ quality: 100 })
      .toBuffer()
    expect(bytes.length).toBeGreaterThan(1024 * 1024)
    const photograph = details(jobId)
    await keepPhotograph(shop.book.database, shop.maren, newId(), photograph, bytes)
    const kept = await readPhotograph(shop.book.database, photograph.id)
    expect(bytes.includes('Somebody')).toBe(true)
    expect(kept.bytes.includes('Somebody') || kept.bytes.includes('Exif')).toBe(false)
    const { exif, ...seen } = await sharp(kept.bytes).metadata()
    expect(exif).toBeUndefined()
    expect(seen).toMatchObject({ format: 'jpeg', width: 1300, height: 1800 })
    expect(kept.bytes.length).toBeGreaterThan(1024 * 1024)
    const [row] = (await readJob(shop.book.database, jobId)).photographs
    expect(row).toMatchObject({ width: 1300, height: 1800, size: kept.bytes.length })
    const thumbnail = await sharp((await readThumbnail(shop.book.database, photograph.id)).thumbnail).metadata()
    expect(thumbnail.height).toBeGreaterThan(thumbnail.width)
  })

  it('are kept once when sent twice', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const bytes = await sharp({ create: { width: 8, height: 8, channels: 3, background: 'red' } })
      .png()
      .toBuffer()
    const [photograph, commandId] = [details(jobId), newId()]
    await keepPhotograph(shop.book.database, shop.maren, commandId, photograph, bytes)
    expect(await keepPhotograph(shop.book.database, shop.maren, commandId, photograph, bytes)).toMatchObject({
      repeated: true,
    })
    expect((await readJob(shop.book.database, jobId)).photographs).toHaveLength(1)
  })

  it('are refused with a sentence: a text named .jpg, a picture of another kind, 60 MB', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    await expect(
      keepPhotograph(
        shop.book.database,
        shop.maren,
        newId(),
        details(jobId),
        Buffer.from('Dear Maren, the engine squeals.'),
      ),
    ).rejects.toMatchObject({
      status: 415,
      sentence: expect.stringContaining('not a photograph, whatever its name says'),
    })
    const svg = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>')
    await expect(keepPhotograph(shop.book.database, shop.maren, newId(), details(jobId), svg)).rejects.toMatchObject({
      status: 415,
    })
    await expect(
      keepPhotograph(shop.book.database, shop.maren, newId(), details(jobId), Buffer.alloc(60 * 1024 * 1024)),
    ).rejects.toMatchObject({ status: 413, sentence: expect.stringContaining('60 MB') })
  })
})
