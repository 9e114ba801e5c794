import { spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync, truncateSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import sharp from 'sharp'
import { v7 as newId } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startMariaDb, type PrivateMariaDb } from '../../launcher/private-mariadb'
import type { Actor } from '../../server/commands/write'
import { openBook, type Book } from '../../server/db/book'
import { bringUpToDate } from '../../server/db/migrate'
import { freeBytes, mustHaveRoom } from '../../server/services/disk-room'
import { keepPhotograph, readPhotograph } from '../../server/services/photographs'
import { MIGRATIONS } from '../support/older-migrations'
import { freshWorkshop, send, takeInSomething } from '../support/test-book'

/** A disk of its own, small enough to be filled: only an administrator may mount one. */
const disk = mkdtempSync(join(tmpdir(), 'ech-disk-'))
const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=900M', 'tmpfs', disk]).status === 0

describe.runIf(mounted)('a disk that fills up', () => {
  const ballast = join(disk, 'ballast')
  let mariadb: PrivateMariaDb
  let book: Book
  let maren: Actor
  beforeAll(async () => {
    mkdirSync(join(disk, 'book'))
    mariadb = await startMariaDb(join(disk, 'book', 'database'))
    book = openBook(mariadb.address)
    await bringUpToDate(book, MIGRATIONS)
    maren = await freshWorkshop(book)
    process.env.ECHOPPE_BOOK_FOLDER = join(disk, 'book')
  })
  afterAll(async () => {
    delete process.env.ECHOPPE_BOOK_FOLDER
    await book.close()
    await mariadb.stop()
    spawnSync('umount', [disk])
    rmSync(disk, { recursive: true, force: true })
  })

  /** Fills the disk until so much is left. */
  function leave(megabytes: number): void {
    writeFileSync(ballast, '')
    const size = freeBytes(disk) - megabytes * 1024 * 1024
    const block = Buffer.alloc(1024 * 1024, 1)
    for (let written = 0; written < size; written += block.length)
      writeFileSync(ballast, block.subarray(0, Math.min(block.length, size - written)), { flag: 'a' })
  }

  it('refuses a photograph with a sentence while notes still go, then those too; what was kept stays, and the shop goes on reading', async () => {
    const { jobId } = await takeInSomething(book, maren)
    const noise = Buffer.from(Uint8Array.from({ length: 1600 * 1200 * 3 }, (_, index) => (index * 7919) % 251))
    const bytes = await sharp(noise, { raw: { width: 1600, height: 1200, channels: 3 } })
      .jpeg({ quality: 98 })
      .toBuffer()
    const keep = (id: string) =>
      keepPhotograph(
        book.database,
        maren,
        newId(),
        { id, jobId, station: 'find', caption: '', about: null, takenAt: new Date() },
        bytes,
      )
    const note = async (text: string) => {
      mustHaveRoom(0)
      await send(book, maren, 'note.add', {
        id: newId(),
        jobId,
        fields: { station: 'find', text, minutes: 0, supersedesId: null },
      })
    }
    const first = newId()
    await keep(first)
    leave(152)
    await expect(keep(newId())).rejects.toMatchObject({
      status: 507,
      sentence: expect.stringContaining('as good as full'),
    })
    await note('goes on')
    leave(140)
    await expect(note('no more')).rejects.toMatchObject({ status: 507 })
    // Somebody else fills the rest to the last byte: the database goes on reading.
    leave(0)
    expect((await readPhotograph(book.database, first)).bytes.length).toBeGreaterThan(500_000)
    truncateSync(ballast, 0)
    await keep(newId())
    await note('and on')
    expect((await book.pool.query('select count(*) as photographs from photograph'))[0]).toEqual([{ photographs: 2 }])
  }, 60_000)
})
