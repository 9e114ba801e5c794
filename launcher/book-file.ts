import { createReadStream, createWriteStream } from 'node:fs'
import { open, rename, rm, stat } from 'node:fs/promises'
import { dirname } from 'node:path'
import { Readable, Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { createGunzip, createGzip } from 'node:zlib'
import type { DatabaseAddress } from '../server/db/book'
import { BookLines } from './book-lines'
import { CHANGE_MARK } from './change-mark'
import { runDatabaseProgram } from './database-programs'
import { SentenceError, systemErrorCode } from './sentence-error'

/**
 * A whole book in one file: MariaDB's own dump, compressed, between a first line that says what it is and a last one
 * with the sums of what stands between. Written and read as a stream, so its size never matters to the memory.
 */
const HEAD = '-- echoppe-book '
const TAIL = '-- echoppe-sums '
const FILE_FORMAT = 1
/** What makes two dumps of the same rows the same to the letter. */
const dumpOf = ({ database }: DatabaseAddress): string[] => [
  '--single-transaction',
  '--quick',
  '--hex-blob',
  '--order-by-primary',
  '--skip-dump-date',
  '--skip-comments',
  '--skip-triggers',
  '--net-buffer-length=1000000',
  '--max-allowed-packet=64M',
  `--ignore-table=${database}.${CHANGE_MARK}`,
  database,
]

export interface BookFileHead {
  readonly format: number
  /** How many of the shipped migrations the book has. */
  readonly migrations: number
  readonly writtenAt: string
}

interface BookFileSums {
  readonly all: string
  readonly rows: string
}

/** A sound book file: what it says it is, and the sums of what it holds. */
export interface CheckedBookFile {
  readonly head: BookFileHead
  readonly sums: BookFileSums
}

/**
 * Writes the book as it stands at one moment, while it goes on being used. The file has its name only when it is whole.
 *
 * @throws SentenceError when it could not be written; nothing is left of it then
 */
export async function writeBookFile(
  address: DatabaseAddress,
  file: string,
  about: Pick<BookFileHead, 'migrations' | 'writtenAt'>,
): Promise<CheckedBookFile> {
  const part = `${file}.part`
  const head: BookFileHead = { format: FILE_FORMAT, ...about }
  const { child, ended } = runDatabaseProgram('mariadb-dump', address, dumpOf(address), ['ignore', 'pipe', 'pipe'])
  const lines = new BookLines()
  try {
    const whole = Readable.from(
      framed(head, (child.stdout as Readable).pipe(lines), async () => {
        const { code, said } = await ended
        if (code !== 0)
          throw new SentenceError(
            `The book could not be written out: ${said || 'mariadb-dump ended without a reason'}.`,
          )
        return lines.sums()
      }),
      { objectMode: false },
    )
    await pipeline(whole, createGzip(), createWriteStream(part, { mode: 0o600 }))
    const written = await open(part)
    await written.sync().finally(() => written.close())
    await rename(part, file)
    return { head, sums: lines.sums() }
  } catch (error) {
    child.kill()
    await rm(part, { force: true })
    if (systemErrorCode(error) === 'ENOSPC')
      throw new SentenceError(
        `The disk that holds ${dirname(file)} is full: free some space, then try again. The book itself is untouched.`,
      )
    if (systemErrorCode(error) === 'ENOENT' || systemErrorCode(error) === 'EACCES')
      throw new SentenceError(`${file} cannot be written: is the folder there, and may you write in it?`)
    throw error
  }
}

async function* framed(head: BookFileHead, dump: Readable, sums: () => Promise<BookFileSums>): AsyncGenerator<Buffer> {
  yield Buffer.from(`${HEAD}${JSON.stringify(head)}\n`)
  for await (const chunk of dump) yield chunk as Buffer
  yield Buffer.from(`${TAIL}${JSON.stringify(await sums())}\n`)
}

/**
 * Reads a book file from end to end and checks it; changes nothing.
 *
 * @throws SentenceError when it is none, was cut off, was changed, or is newer than this program
 */
export async function checkBookFile(file: string, shippedMigrations: number): Promise<CheckedBookFile> {
  await mustBeReadable(file)
  const lines = new BookLines()
  const nowhere = new Writable({ write: (_chunk, _encoding, done) => done() })
  const frame = new Frame()
  try {
    await pipeline(
      createReadStream(file),
      createGunzip(),
      async function* (source: AsyncIterable<Buffer>) {
        yield* frame.inner(source)
      },
      lines,
      nowhere,
    )
  } catch (error) {
    if (error instanceof SentenceError) throw error
    throw new SentenceError(
      `${file} is damaged or no book of this program: ${error instanceof Error ? error.message : String(error)}. Nothing was changed.`,
    )
  }
  const { head, sums } = frame
  if (!head) throw new SentenceError(`${file} is no book of this program. Nothing was changed.`)
  if (head.format > FILE_FORMAT || head.migrations > shippedMigrations)
    throw new SentenceError(
      `${file} was written by a newer version of this program: take that version. Nothing was changed.`,
    )
  const found = lines.sums()
  if (!sums || sums.all !== found.all || sums.rows !== found.rows)
    throw new SentenceError(
      `${file} is damaged: ${sums ? 'what it holds is not what was written' : 'its end is missing'}. Nothing was changed.`,
    )
  return { head, sums }
}

/** Puts what a book file holds into a database, in place of tables of the same names. Check the file first. */
export async function readBookFile(address: DatabaseAddress, file: string): Promise<void> {
  const { child, ended } = runDatabaseProgram(
    'mariadb',
    address,
    ['--binary-mode', '--default-character-set=utf8mb4', '--max-allowed-packet=64M', address.database],
    ['pipe', 'ignore', 'pipe'],
  )
  // The client may end before it has read everything; why is said by `ended`.
  await pipeline(createReadStream(file), createGunzip(), child.stdin as Writable).catch(() => {})
  const { code, said } = await ended
  if (code !== 0)
    throw new SentenceError(`The book could not be read back: ${said || 'the database client ended without a reason'}.`)
}

/** The sum of all rows of a database, by the same dump as a book file's. */
export async function sumOfRows(address: DatabaseAddress): Promise<string> {
  const { child, ended } = runDatabaseProgram('mariadb-dump', address, dumpOf(address), ['ignore', 'pipe', 'pipe'])
  const lines = new BookLines()
  await pipeline(child.stdout as Readable, lines, new Writable({ write: (_chunk, _encoding, done) => done() }))
  const { code, said } = await ended
  if (code !== 0) throw new SentenceError(`The book that was put back could not be compared: ${said}.`)
  return lines.sums().rows
}

async function mustBeReadable(file: string): Promise<void> {
  const found = await stat(file).catch(() => null)
  if (!found?.isFile()) throw new SentenceError(`${file} cannot be read: is the name right?`)
}

const LONGEST_FRAME_LINE = 4096

/** Takes first and last line off a book file as it streams by. */
class Frame {
  head: BookFileHead | null = null
  sums: BookFileSums | null = null

  async *inner(source: AsyncIterable<Buffer>): AsyncGenerator<Buffer> {
    let kept = Buffer.alloc(0)
    for await (const chunk of source) {
      kept = Buffer.concat([kept, chunk])
      if (!this.head) {
        const end = kept.indexOf('\n')
        if (end < 0 && kept.length < LONGEST_FRAME_LINE) continue
        this.head = parseFrame<BookFileHead>(kept.subarray(0, Math.max(0, end)), HEAD)
        if (!this.head) throw new Error('it does not begin as a book does')
        kept = kept.subarray(end + 1)
      }
      // The last line may be anywhere in what was read last: so much is held back.
      if (kept.length > LONGEST_FRAME_LINE) {
        yield kept.subarray(0, kept.length - LONGEST_FRAME_LINE)
        kept = Buffer.from(kept.subarray(kept.length - LONGEST_FRAME_LINE))
      }
    }
    const begin = kept.lastIndexOf(`\n${TAIL}`) + 1
    if (begin > 0) this.sums = parseFrame<BookFileSums>(kept.subarray(begin), TAIL)
    yield this.sums ? kept.subarray(0, begin) : kept
  }
}

function parseFrame<T>(line: Buffer, lead: string): T | null {
  const text = line.toString('utf8').trimEnd()
  if (!text.startsWith(lead)) return null
  try {
    return JSON.parse(text.slice(lead.length)) as T
  } catch {
    return null
  }
}
