import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { mkdirSync, readdirSync, readFileSync, rmSync, statSync, truncateSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import fc from 'fast-check'
import type { RowDataPacket } from 'mysql2/promise'
import { v7 as newId } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { backUp } from '../../launcher/back-up'
import { checkBookFile, sumOfRows, writeBookFile } from '../../launcher/book-file'
import { changeTables, dropTables } from '../../launcher/change-tables'
import { ownDatabase } from '../../launcher/database-options'
import { mustAnswer } from '../../launcher/must-answer'
import { backUpWhenDue, backupIsDue } from '../../launcher/nightly-backups'
import { ownCertificate } from '../../launcher/own-certificate'
import { startMariaDb, type PrivateMariaDb } from '../../launcher/private-mariadb'
import { putBack } from '../../launcher/put-back'
import { updateBook } from '../../launcher/update-book'
import { openBook, type Book } from '../../server/db/book'
import { bringUpToDate, migrationState } from '../../server/db/migrate'
import { photograph, photographBlock, reading } from '../../server/db/schema'
import { problemsOf } from '../../messages/validate'
import { readingOfColumns } from '../../server/db/reading-columns'
import { firstMigrations, MIGRATIONS, shippedMigrations, statementsOf } from '../support/older-migrations'
import { throwAwayFolder } from '../support/throw-away-folder'
import { freshWorkshop, send, takeInSomething } from '../support/test-book'

const folder = throwAwayFolder('update')
let mariadb: PrivateMariaDb
let book: Book
beforeAll(async () => {
  mariadb = await startMariaDb(join(folder, 'database'), { durable: false })
  book = openBook(mariadb.address)
})
afterAll(async () => {
  await book.close()
  await mariadb.stop()
  rmSync(folder, { recursive: true, force: true })
})

const dumps = join(folder, 'dumps')
const quiet = { migrations: MIGRATIONS, dumps, say: () => {} }
const now = () => new Date()

async function emptied(): Promise<void> {
  const connection = await book.pool.getConnection()
  await dropTables(connection)
  await connection.query('drop table if exists echoppe_update')
  connection.release()
}

/** The book as the program of so many migrations left it, with somebody in it. */
async function olderBook(count: number): Promise<void> {
  await emptied()
  if (count === 0) return
  await bringUpToDate(book, firstMigrations(count, join(folder, `first-${count}`)))
  await book.pool.query(
    "insert into owner (id, name, email, phone, address, notes, is_shop) values (unhex(repeat('0a', 16)), 'Ines Carvalhal', '', '', '', '', 0)",
  )
}

const owners = async (): Promise<string[]> => {
  const [rows] = await book.pool.query<Array<RowDataPacket & { name: string }>>('select name from owner')
  return rows.map(({ name }) => name)
}

describe('an update that is broken off', () => {
  const tags = shippedMigrations()

  it.each(tags.map((tag, index) => [tag, index] as const))(
    'in %s: the next start goes back to what was and does it anew, wherever it was broken off',
    async (tag, index) => {
      const statements = statementsOf(tag)
      for (const done of new Set([0, 1, Math.ceil(statements.length / 2), statements.length])) {
        await olderBook(index)
        const cutOff = changeTables(
          book,
          mariadb.address,
          { ...quiet, now: now(), why: 'update' },
          async (connection) => {
            for (const statement of statements.slice(0, done)) await connection.query(statement)
            throw new Error('cut off')
          },
        )
        await expect(cutOff).rejects.toThrow('cut off')
        const said: string[] = []
        await updateBook(mariadb.address, { ...quiet, now: now(), say: (line) => said.push(line) })
        expect(said[0]).toContain('was interrupted')
        const state = await migrationState(book, MIGRATIONS)
        expect(state.applied).toBe(state.shipped)
        expect(await owners()).toEqual(index === 0 ? [] : ['Ines Carvalhal'])
        expect((await book.pool.query("show tables like 'echoppe_update'"))[0]).toEqual([])
      }
    },
    60_000,
  )

  it('makes of today’s readings what they are: a step, a relay, a sequence switch, none left to be read out of words', async () => {
    await olderBook(tags.indexOf('0017_reading_kinds'))
    const connection = await book.pool.getConnection()
    await connection.query('set foreign_key_checks = 0')
    const id = (number: number): string => `unhex('${number.toString(16).padStart(32, '0')}')`
    for (const [number, station] of ['rebuild', 'first-run'].entries())
      await connection.query(
        `insert into sheet (id, job_id, engine_state, station, with_meter, warmed_up, supply, remarks, opened_at, version)
         values (${id(number)}, ${id(9)}, 0, '${station}', 1, 0, 'ac', '', now(), 1)`,
      )
    const volts = { typed: '', value: 4, resolution: 0.001, meter: null }
    const once = { typed: '1', value: 1, resolution: 1, meter: null }
    const [metered, counted] = [
      { voltage: volts, current: { ...volts, value: 0.3 } },
      { failures: once, attempts: once },
    ]
    const today: ReadonlyArray<readonly [number, string, string | null, object, string, object]> = [
      [0, 'running', 'reverse', metered, 'Rods on “both” sides', { step: 'Rods on “both” sides', turns: 'reverse' }],
      [0, 'locked', 'forward', metered, 'Relay 1: pulls in', { step: 'Relay 1: pulls in', turns: 'stands' }],
      [1, 'locked', 'forward', metered, 'Relay 12: pulls in', { event: 'pulls-in', rise: 12 }],
      [1, 'locked', 'forward', metered, 'Relay 1: hangs', { event: 'hangs', rise: 1 }],
      [1, 'locked', 'forward', metered, 'Relay on AC: at rest', { event: 'ac-at-rest', rise: null }],
      [1, 'locked', 'forward', metered, 'Relay: on from the start', { event: 'always-on', rise: null }],
      [1, 'locked', 'forward', metered, 'As found: neutral', { interruption: 0, position: 'neutral' }],
      [1, 'running', 'reverse', metered, 'Interruption 10: reverse', { interruption: 10, position: 'reverse' }],
      [
        1,
        'trial',
        null,
        counted,
        'Sequence switch. It pulls in between 7.25 and 7.50 V.',
        { pullIn: { above: 7.25, below: 7.5 } },
      ],
      [1, 'trial', null, counted, 'Sequence switch. While the volts rose it did not pull in.', { pullIn: null }],
      [1, 'running', null, metered, '', { direction: 'forward' }],
      [1, 'trial', 'forward', counted, '', {}],
    ]
    for (const [number, [sheet, kind, direction, quantities, step]] of today.entries())
      await connection.query(
        `insert into reading (id, sheet_id, kind, direction, quantities, vouched, source, struck, strike_reason, step,
           author_id, captured_at, received_at)
         values (${id(100 + number)}, ${id(sheet)}, ?, ?, ?, 0, 'measured', 0, '', ?, ${id(8)}, now(), now())`,
        [kind, direction, JSON.stringify(quantities), step],
      )
    connection.release()
    await updateBook(mariadb.address, { ...quiet, now: now() })
    const rows = await book.database.select().from(reading).orderBy(reading.id)
    expect(rows.map(({ detail, direction }) => detail ?? (direction ? { direction } : {}))).toEqual(
      today.map(([, , , , , expected]) => expected),
    )
    const someId = '01890000-0000-7000-8000-000000000000'
    for (const row of rows)
      expect(
        problemsOf('reading.add', {
          id: someId,
          jobId: someId,
          sheetId: someId,
          supersedesId: null,
          fields: readingOfColumns(row),
        }),
      ).toEqual([])
  })

  it('by kill -9 at any moment: the next start gets through, and a book of a newer version is left alone', async () => {
    for (const afterMs of [5, 60, 150, 280, 420]) {
      await olderBook(4)
      const child = spawn(
        process.execPath,
        ['--import', 'tsx', 'tests/support/update-until-killed.ts', JSON.stringify(mariadb.address), dumps],
        { stdio: ['ignore', 'pipe', 'inherit'] },
      )
      await once(child.stdout, 'data')
      const killed = setTimeout(() => child.kill('SIGKILL'), afterMs)
      if (child.exitCode === null) await once(child, 'exit')
      clearTimeout(killed)
      await updateBook(mariadb.address, { ...quiet, now: now() })
      expect((await migrationState(book, MIGRATIONS)).applied).toBe(tags.length)
      expect(await owners()).toEqual(['Ines Carvalhal'])
    }
    await expect(
      updateBook(mariadb.address, {
        ...quiet,
        now: now(),
        migrations: firstMigrations(3, join(folder, 'older-program')),
      }),
    ).rejects.toThrow('written by a newer version')
  }, 60_000)

  it('says what to do when what to go back to is gone', async () => {
    await olderBook(5)
    await expect(
      changeTables(book, mariadb.address, { ...quiet, now: now(), why: 'update' }, () =>
        Promise.reject(new Error('cut off')),
      ),
    ).rejects.toThrow('cut off')
    for (const name of readdirSync(dumps)) truncateSync(join(dumps, name), 200)
    await expect(updateBook(mariadb.address, { ...quiet, now: now() })).rejects.toThrow(
      /what to go back to cannot be had.*bin\/restore FILE/,
    )
    expect(await owners()).toEqual(['Ines Carvalhal'])
  })
})

describe('a backup', () => {
  let other: PrivateMariaDb
  beforeAll(async () => {
    other = await startMariaDb(join(folder, 'other-database'), { durable: false })
  })
  afterAll(() => other.stop())

  async function filled(texts: readonly string[], blocks: readonly Buffer[]): Promise<void> {
    await emptied()
    await updateBook(mariadb.address, { ...quiet, now: now() })
    const maren = await freshWorkshop(book)
    const { jobId } = await takeInSomething(book, maren)
    for (const text of texts)
      await send(book, maren, 'note.add', {
        id: newId(),
        jobId,
        fields: { station: 'find', text, minutes: 1, supersedesId: null },
      })
    for (const [ordinal, bytes] of blocks.entries()) {
      const id = newId()
      await book.database.insert(photograph).values({
        id,
        jobId,
        station: 'find',
        caption: texts[0] ?? '',
        mediaType: 'image/png',
        width: 1,
        height: 1,
        size: bytes.length,
        sha256: 'x'.repeat(64),
        cleaned: true,
        thumbnail: bytes,
        takenAt: now(),
      })
      await book.database.insert(photographBlock).values({ photographId: id, ordinal, bytes })
    }
  }

  it('brings back every row to the bit, whatever stands in it; damaged anywhere it is refused and nothing is touched', async () => {
    const text = fc.string({ unit: 'grapheme', minLength: 1, maxLength: 300 }).filter((words) => words.trim() !== '')
    await fc.assert(
      fc.asyncProperty(
        fc.array(text, { minLength: 1, maxLength: 6 }),
        fc.array(
          fc.uint8Array({ maxLength: 5000 }).map((bytes) => Buffer.from(bytes)),
          { maxLength: 3 },
        ),
        fc.double({ min: 0, max: 0.999, noNaN: true }),
        async (texts, blocks, where) => {
          await filled(texts, blocks)
          const file = join(folder, 'property.book.gz')
          await backUp(mariadb.address, file, now())
          await putBack(other.address, file, { dumps, now: now(), say: () => {} })
          expect(await sumOfRows(other.address)).toBe(await sumOfRows(mariadb.address))
          const [from, to] = [book, openBook(other.address)]
          for (const table of ['note', 'photograph', 'photograph_block', 'journal', 'person']) {
            const [one, two] = await Promise.all(
              [from, to].map(async ({ pool }) => (await pool.query(`select * from ${table}`))[0]),
            )
            expect(two).toEqual(one)
          }
          const whole = readFileSync(file)
          const flipped = Buffer.from(whole)
          const at = Math.floor(where * whole.length)
          flipped[at] = (flipped[at] as number) ^ 0x10
          for (const damaged of [flipped, whole.subarray(0, at)]) {
            writeFileSync(`${file}.damaged`, damaged)
            const before = await sumOfRows(other.address)
            const outcome = await putBack(other.address, `${file}.damaged`, { dumps, now: now(), say: () => {} }).then(
              () => 'put back',
              (error: Error) => error.message,
            )
            // A bit of the file's own head (its time of writing, say) changes nothing of the book.
            if (outcome !== 'put back') expect(outcome).toMatch(/damaged|no book of this program|newer version/)
            expect(await sumOfRows(other.address)).toBe(before)
          }
          await to.close()
        },
      ),
      { numRuns: 8 },
    )
  }, 120_000)

  it('of a newer program, or something else altogether, is refused untouched', async () => {
    await filled(['Looked'], [])
    const newer = join(folder, 'newer.book.gz')
    await writeBookFile(mariadb.address, newer, { migrations: 999, writtenAt: now().toISOString() })
    const letter = join(folder, 'letter.txt')
    writeFileSync(letter, 'Dear Maren, the engine squeals.')
    const before = await sumOfRows(mariadb.address)
    await expect(putBack(mariadb.address, newer, { dumps, now: now(), say: () => {} })).rejects.toThrow(
      'written by a newer version of this program',
    )
    await expect(putBack(mariadb.address, letter, { dumps, now: now(), say: () => {} })).rejects.toThrow(
      'damaged or no book of this program',
    )
    await expect(putBack(mariadb.address, join(folder, 'none'), { dumps, now: now(), say: () => {} })).rejects.toThrow(
      'cannot be read: is the name right?',
    )
    expect(await sumOfRows(mariadb.address)).toBe(before)
  })

  it('is of one moment while people go on writing, and is written with the memory of a few chunks', async () => {
    await filled(['first'], [])
    const big = Buffer.from(Buffer.alloc(1024 * 1024, 'q7').map((byte, index) => (byte + index * 31) % 256))
    const [row] = await book.database
      .select()
      .from(photograph)
      .then(async () => {
        const [job] = (await book.pool.query<Array<RowDataPacket & { id: string }>>('select hex(id) as id from job'))[0]
        const id = newId()
        const hex = job?.id ?? ''
        const jobId =
          `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`.toLowerCase()
        await book.database.insert(photograph).values({
          id,
          jobId,
          station: 'find',
          caption: '',
          mediaType: 'image/png',
          width: 1,
          height: 1,
          size: 1,
          sha256: 'x'.repeat(64),
          cleaned: true,
          thumbnail: big,
          takenAt: now(),
        })
        return [{ id }]
      })
    for (let ordinal = 0; ordinal < 60; ordinal++)
      await book.database.insert(photographBlock).values({ photographId: row?.id ?? '', ordinal, bytes: big })
    const before = process.memoryUsage.rss()
    let most = before
    const watch = setInterval(() => {
      most = Math.max(most, process.memoryUsage.rss())
    }, 5)
    const file = join(folder, 'big.book.gz')
    let going = true
    let pairs = 0
    const writing = (async () => {
      const connection = await book.pool.getConnection()
      while (going) {
        await connection.beginTransaction()
        await connection.query(
          "insert into owner (id, name, email, phone, address, notes, is_shop) values (unhex(replace(uuid(), '-', '')), 'One of two', '', '', '', '', 0)",
        )
        await connection.query('insert into counter values (?, 1)', [`two of two ${pairs++}`])
        await connection.commit()
      }
      connection.release()
    })()
    await backUp(mariadb.address, file, now())
    going = false
    await writing
    clearInterval(watch)
    expect(pairs).toBeGreaterThan(20)
    await putBack(other.address, file, { dumps, now: now(), say: () => {} })
    const restored = openBook(other.address)
    const [[counts]] = (await restored.pool.query<RowDataPacket[]>(
      "select (select count(*) from owner where name = 'One of two') as ones, (select count(*) from counter where name like 'two of two%') as twos",
    )) as unknown as [[{ ones: number; twos: number }]]
    await restored.close()
    expect(counts.ones).toBe(counts.twos)
    expect(statSync(file).size).toBeGreaterThan(100_000)
    expect((most - before) / 1e6).toBeLessThan(60)
    await expect(checkBookFile(file, shippedMigrations().length)).resolves.toMatchObject({
      head: { migrations: shippedMigrations().length },
    })
  }, 60_000)

  it('is written every night by itself, or after a night the shop was closed, and as many are kept as the setting says', async () => {
    const at = (text: string) => new Date(text)
    expect(backupIsDue(null, at('2026-11-30T12:00:00'))).toBe(true)
    expect(backupIsDue(at('2026-11-30T02:00:05'), at('2026-11-30T23:00:00'))).toBe(false)
    expect(backupIsDue(at('2026-11-30T02:00:05'), at('2026-12-01T01:59:00'))).toBe(false)
    expect(backupIsDue(at('2026-11-30T02:00:05'), at('2026-12-01T02:00:00'))).toBe(true)
    expect(backupIsDue(at('2026-11-29T03:00:00'), at('2026-11-30T01:00:00'))).toBe(false)
    await filled(['Looked'], [])
    const kept = join(folder, 'nights')
    mkdirSync(kept)
    for (let night = 1; night <= 9; night++) {
      await backUpWhenDue(mariadb.address, kept, at(`2026-11-0${night}T03:00:00Z`))
      await backUpWhenDue(mariadb.address, kept, at(`2026-11-0${night}T04:00:00Z`))
    }
    expect(
      readdirSync(kept)
        .sort()
        .map((name) => name.slice(0, 15)),
    ).toEqual([3, 4, 5, 6, 7, 8, 9].map((night) => `book-2026-11-0${night}`))
  }, 60_000)
})

describe('a database server of the shop’s own', () => {
  it('is reached encrypted with its certificate checked, brought up to date and backed up like the private one', async () => {
    const certificate = await ownCertificate(folder, ['localhost', '127.0.0.1'], now())
    const server = await startMariaDb(join(folder, 'own-server'), {
      durable: false,
      parameters: [`--ssl-cert=${certificate.certificateFile}`, `--ssl-key=${certificate.keyFile}`],
    })
    try {
      const passwordFile = join(folder, 'own.password')
      writeFileSync(passwordFile, `${server.address.password}\n`)
      const named = (more: object) =>
        ownDatabase({
          database: `echoppe@127.0.0.1:${server.address.port}/echoppe`,
          'database-password-file': passwordFile,
          ...more,
        })
      const address = named({ 'database-ca': certificate.certificateFile })
      if (!address) throw new Error('An address was named.')
      await mustAnswer(address)
      await updateBook(address, { ...quiet, now: now() })
      const opened = openBook(address)
      const [[cipher]] = (await opened.pool.query<RowDataPacket[]>("show status like 'Ssl_cipher'")) as unknown as [
        [{ Value: string }],
      ]
      expect(cipher.Value).toMatch(/^TLS_|^ECDHE/)
      await opened.close()
      await backUp(address, join(folder, 'own.book.gz'), now())
      mkdirSync(join(folder, 'stranger'))
      const stranger = await ownCertificate(join(folder, 'stranger'), ['localhost'], now())
      await expect(mustAnswer(named({ 'database-ca': stranger.certificateFile })!)).rejects.toThrow(
        /cannot be used: .*self.signed/i,
      )
      writeFileSync(passwordFile, 'wrong')
      await expect(mustAnswer(named({ 'database-ca': certificate.certificateFile })!)).rejects.toThrow('Access denied')
    } finally {
      await server.stop()
    }
  }, 60_000)

  it('is named by one plain address; beyond this machine always encrypted', () => {
    const passwordFile = join(folder, 'a.password')
    writeFileSync(passwordFile, 'secret\n')
    const named = (database: string) => ownDatabase({ database, 'database-password-file': passwordFile })
    expect(named('echoppe@192.168.1.20/shop')).toEqual({
      host: '192.168.1.20',
      port: 3306,
      user: 'echoppe',
      database: 'shop',
      password: 'secret',
      tls: { caFile: null },
    })
    expect(named('echoppe@[::1]:3307/shop')).toMatchObject({ host: '::1', port: 3307, tls: null })
    expect(named('e@127.0.0.2/shop')).toMatchObject({ tls: null })
    for (const wrong of ['192.168.1.20', 'a@b', 'a@b:99999/c', 'a@b/c;drop', 'a b@c/d'])
      expect(() => named(wrong)).toThrow(/address of a database|is no port/)
    expect(() => ownDatabase({ database: 'a@b/c' })).toThrow('--database-password-file FILE')
    expect(ownDatabase({})).toBeNull()
  })
})
