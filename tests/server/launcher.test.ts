import { spawn } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { lockFolder } from '../../launcher/folder-lock'
import { claimPort } from '../../launcher/free-port'
import { dumpDatabase } from '../../launcher/dump-database'
import { startMariaDb } from '../../launcher/private-mariadb'
import { openBook } from '../../server/db/book'
import { bringUpToDate, migrationState } from '../../server/db/migrate'

const folder = mkdtempSync(join(tmpdir(), 'ech-launch-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

describe('starting the shop', () => {
  it('says which port to take when one is taken', async () => {
    const other = createServer().listen(0, '127.0.0.1')
    await new Promise((resolve) => other.once('listening', resolve))
    const { port } = other.address() as { port: number }
    await expect(claimPort(port, '127.0.0.1')).rejects.toThrow(`Port ${port} is taken by another program: start with  --port ${port + 1}`)
    other.close()
  })

  it('refuses a second start while the first lives, and takes over the lock of a dead one', async () => {
    const lockFile = join(folder, 'running')
    const unlock = lockFolder(lockFile)
    expect(() => lockFolder(lockFile)).toThrow(/already running \(process \d+\)/)
    unlock()
    const dead = spawn('true')
    await new Promise((resolve) => dead.once('exit', resolve))
    writeFileSync(lockFile, `${dead.pid} 12345`)
    lockFolder(lockFile)()
    expect(existsSync(lockFile)).toBe(false)
  })

  it('leaves a half-made or newer data folder as it is and says what to do', async () => {
    const half = join(folder, 'half')
    mkdirSync(half)
    writeFileSync(join(half, 'ibdata1'), 'something')
    await expect(startMariaDb(half)).rejects.toThrow('is not a whole data folder')
    expect(readdirSync(half)).toEqual(['ibdata1'])
    const newer = join(folder, 'newer')
    mkdirSync(newer)
    writeFileSync(join(newer, 'echoppe-format.json'), '{"format": 99}')
    await expect(startMariaDb(newer)).rejects.toThrow('written by a newer version')
  })

  it('makes the folder whole, listens on loopback only, keeps the password to its user, and dumps before an update', async () => {
    const data = join(folder, 'whole')
    mkdirSync(`${data}.being-made`)
    writeFileSync(join(`${data}.being-made`, 'left over'), 'from an interrupted start')
    const mariadb = await startMariaDb(data)
    expect(existsSync(`${data}.being-made`)).toBe(false)
    expect(statSync(`${data}.password`).mode & 0o777).toBe(0o600)
    expect(Buffer.byteLength(mariadb.socket)).toBeLessThanOrEqual(107)
    const book = openBook(mariadb.address)
    const [[bound]] = (await book.pool.query("show variables like 'bind_address'")) as unknown as [[{ Value: string }]]
    expect(bound.Value).toBe('127.0.0.1')
    expect(await migrationState(book, 'server/db/migrations')).toMatchObject({ applied: 0, unknown: false })
    await bringUpToDate(book, 'server/db/migrations')
    const state = await migrationState(book, 'server/db/migrations')
    expect(state.applied).toBe(state.shipped)
    expect(statSync(await dumpDatabase(mariadb, join(folder, 'dumps'), 'test')).size).toBeGreaterThan(500)
    await book.close()
    await mariadb.stop()
  })
})
