import exifr from 'exifr'
import jsQR from 'jsqr'
import { toBuffer } from 'qrcode'
import sharp from 'sharp'
import { v7 as newId } from 'uuid'
import { describe, expect, it } from 'vitest'
import type { PhoneAim } from '../../messages/photograph-entries'
import { phoneAccess } from '../../server/db/schema'
import { aimPhone, letIn, openPhone, shutPhone } from '../../server/services/phone-access'
import { keepPhotograph, readPhotograph, readThumbnail } from '../../server/services/photographs'
import { readJob } from '../../server/services/read-job'
import { readSisterPhotographs } from '../../server/services/sister-photographs'
import { someJob } from '../support/some-entries'
import { send, takeInSomething, useTestBook } from '../support/test-book'

const shop = useTestBook()
const lid: PhoneAim = {
  station: 'strip',
  about: { kind: 'part', part: 'body', moment: 'off' },
  words: 'Body, before it comes off',
}
const cell: PhoneAim = { ...lid, about: { kind: 'part', part: 'motor', moment: 'off' }, words: 'Motor' }
const picture = (width = 40, height = 30): Promise<Buffer> =>
  sharp({ create: { width, height, channels: 3, background: '#a9812f' } })
    .jpeg()
    .toBuffer()

describe('a phone let in by a code', () => {
  it('writes for the person who let it in, at the step the bench has in hand, and of that job only', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const { database } = shop.book
    const phone = await openPhone(database, shop.maren, jobId, lid)
    expect(await letIn(database, phone.token)).toMatchObject({ jobId, aim: lid, actor: { name: 'Maren Tolvik' } })
    await aimPhone(database, shop.maren, phone.id, cell)
    expect((await letIn(database, phone.token)).aim).toEqual(cell)
    await expect(letIn(database, `${phone.token.slice(0, -1)}_`)).rejects.toMatchObject({ status: 401 })
  })

  it('is shut out when the step is left, when ten minutes are over, and when its person let in another', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const { database } = shop.book
    const first = await openPhone(database, shop.maren, jobId, lid)
    const second = await openPhone(database, shop.maren, jobId, lid)
    await expect(letIn(database, first.token)).rejects.toMatchObject({ status: 401 })
    await database.update(phoneAccess).set({ expiresAt: new Date(Date.now() - 1) })
    await expect(letIn(database, second.token)).rejects.toMatchObject({
      sentence: expect.stringContaining('ten minutes passed'),
    })
    await expect(aimPhone(database, shop.maren, second.id, cell)).rejects.toMatchObject({ status: 401 })
    const third = await openPhone(database, shop.maren, jobId, lid)
    await shutPhone(database, shop.maren, third.id)
    await expect(letIn(database, third.token)).rejects.toMatchObject({ status: 401 })
  })

  it('is not kept in the book by its token, and none is given to a reader', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const { token } = await openPhone(shop.book.database, shop.maren, jobId, lid)
    expect(JSON.stringify(await shop.book.database.select().from(phoneAccess))).not.toContain(token)
    await expect(openPhone(shop.book.database, { ...shop.maren, role: 'reader' }, jobId, lid)).rejects.toMatchObject({
      status: 403,
    })
  })

  it('finds the way by a code that another program reads back', async () => {
    const address = `https://192.0.2.17:4700/phone#${'kT'.repeat(21)}x`
    const { data, info } = await sharp(await toBuffer(address, { margin: 2, errorCorrectionLevel: 'M' }))
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true })
    expect(jsQR(new Uint8ClampedArray(data), info.width, info.height)?.data).toBe(address)
  })
})

describe('what is kept of a photograph', () => {
  it('holds neither place nor camera, read by another library than the one that took them out', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const bytes = await sharp(await picture())
      .withExif({ IFD0: { Make: 'Someone' }, IFD3: { GPSLatitude: '51/1 30/1 0/1', GPSLatitudeRef: 'N' } })
      .jpeg()
      .toBuffer()
    expect(await exifr.parse(bytes, true)).toMatchObject({ Make: 'Someone' })
    const id = newId()
    const details = { id, jobId, station: 'strip' as const, caption: '', about: lid.about, takenAt: new Date() }
    await keepPhotograph(shop.book.database, shop.maren, newId(), details, bytes)
    for (const kept of [
      (await readPhotograph(shop.book.database, id)).bytes,
      (await readThumbnail(shop.book.database, id)).thumbnail,
    ]) {
      const found = ((await exifr.parse(kept, true).catch(() => undefined)) ?? {}) as Record<string, unknown>
      expect(['Make', 'latitude', 'GPSLatitude'].filter((tag) => tag in found)).toEqual([])
    }
  })

  it('stands at its part on every sister of the type, and nowhere else', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const { engine } = await readJob(shop.book.database, jobId)
    const other = newId()
    await send(shop.book, shop.maren, 'job.take-in', {
      jobId: other,
      owner: { existing: engine.ownerId },
      type: null,
      engine: { existing: engine.id },
      job: someJob,
    })
    for (const part of ['body', 'motor'])
      await keepPhotograph(
        shop.book.database,
        shop.maren,
        newId(),
        {
          id: newId(),
          jobId,
          station: 'strip',
          caption: part,
          about: { kind: 'part', part, moment: 'off' },
          takenAt: new Date(),
        },
        await picture(),
      )
    expect((await readSisterPhotographs(shop.book.database, other, 'body')).map((row) => row.caption)).toEqual(['body'])
    expect(await readSisterPhotographs(shop.book.database, jobId, 'body')).toEqual([])
  })

  it('is all of eighty sent at once, each once', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const bytes = await picture(400, 300)
    const details = Array.from({ length: 80 }, () => ({ id: newId(), commandId: newId() }))
    const keep = ({ id, commandId }: (typeof details)[number]) =>
      keepPhotograph(
        shop.book.database,
        shop.maren,
        commandId,
        { id, jobId, station: 'strip', caption: '', about: null, takenAt: new Date('2026-11-30T09:00:00Z') },
        bytes,
      )
    await Promise.all(details.map(keep))
    const again = await Promise.all(details.slice(0, 5).map(keep))
    expect(again.every((receipt) => receipt.repeated)).toBe(true)
    expect((await readJob(shop.book.database, jobId)).photographs).toHaveLength(80)
  })
})
