import { spawn, spawnSync } from 'node:child_process'
import { once } from 'node:events'
import { existsSync, mkdirSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { join } from 'node:path'
import { createConnection } from 'mysql2/promise'
import { afterAll, describe, expect, it } from 'vitest'
import { lockFolder } from '../../launcher/folder-lock'
import { claimPort } from '../../launcher/free-port'
import { startMariaDb } from '../../launcher/private-mariadb'
import { openBook } from '../../server/db/book'
import { bringUpToDate, migrationState } from '../../server/db/migrate'
import { throwAwayFolder } from '../support/throw-away-folder'

const folder = throwAwayFolder('launch')
afterAll(() => rmSync(folder, { recursive: true, force: true }))

describe('starting the shop', () => {
  it('says which port to take when one is taken', async () => {
    const other = createServer().listen(0, '127.0.0.1')
    await new Promise((resolve) => other.once('listening', resolve))
    const { port } = other.address() as { port: number }
    await expect(claimPort(port, '127.0.0.1')).rejects.toThrow(
      `Port ${port} is taken by another program: start with  --port ${port + 1}`,
    )
    other.close()
  })

  it('refuses a second start while the first lives, and takes over the lock of a dead one', async () => {
    const locked = join(folder, 'locked')
    const unlock = await lockFolder(locked)
    await expect(lockFolder(locked)).rejects.toThrow(`already running (process ${process.pid})`)
    await unlock()
    const holder = spawn(process.execPath, ['--import', 'tsx', 'tests/support/hold-lock.ts', locked], {
      stdio: ['ignore', 'pipe', 'inherit'],
    })
    await once(holder.stdout, 'data')
    await expect(lockFolder(locked)).rejects.toThrow(`already running (process ${holder.pid})`)
    holder.kill('SIGKILL')
    await once(holder, 'exit')
    await (
      await lockFolder(locked)
    )()
  })

  it('of many starts in the same instant on a new folder exactly one wins', async () => {
    for (let round = 0; round < 3; round++) {
      const locked = join(folder, `instant-${round}`)
      const holders = Array.from({ length: 3 }, () =>
        spawn(process.execPath, ['--import', 'tsx', 'tests/support/hold-lock.ts', locked], {
          stdio: ['ignore', 'pipe', 'inherit'],
        }),
      )
      const said = await Promise.all(
        holders.map(async (holder) => String((await once(holder.stdout, 'data'))[0]).trim()),
      )
      for (const holder of holders) holder.kill('SIGKILL')
      expect(said.filter((word) => word === 'locked')).toHaveLength(1)
      expect(said.filter((word) => word.startsWith('The shop is already running'))).toHaveLength(2)
    }
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

  it('makes the folder whole, listens on loopback only, keeps the password to its user, and lets nobody else in', async () => {
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
    // One account, over loopback, with its own book and nothing beyond; the administrator is not to be had at all.
    for (const user of ['root', 'mariadb.sys', ''])
      for (const way of [{ host: '127.0.0.1', port: mariadb.address.port }, { socketPath: mariadb.socket }]) {
        await expect(createConnection({ ...way, user })).rejects.toThrow('Access denied')
      }
    await expect(book.pool.query("select load_file('/etc/hostname')")).resolves.toMatchObject([
      [{ "load_file('/etc/hostname')": null }],
      expect.anything(),
    ])
    await expect(book.pool.query("select 1 into outfile '/tmp/echoppe-should-not-be'")).rejects.toThrow(
      'you need (at least one of) the FILE privilege',
    )
    await expect(book.pool.query('select * from mysql.global_priv')).rejects.toMatchObject({
      code: 'ER_TABLEACCESS_DENIED_ERROR',
    })
    await book.close()
    await mariadb.stop()
  })

  it('closes the administrator’s door of a folder made by an earlier version, and says so once', async () => {
    const data = join(folder, 'earlier')
    const made = spawnSync('mariadb-install-db', [
      '--no-defaults',
      `--datadir=${data}`,
      '--auth-root-authentication-method=normal',
      '--skip-test-db',
      ...(process.getuid?.() === 0 ? ['--user=root'] : []),
    ])
    expect(made.status).toBe(0)
    writeFileSync(join(data, 'echoppe-format.json'), '{"format": 1}')
    const first = await startMariaDb(data)
    expect(first.accountsClosed).toBe(true)
    await expect(createConnection({ host: '127.0.0.1', port: first.address.port, user: 'root' })).rejects.toMatchObject(
      { code: 'ER_ACCESS_DENIED_ERROR' },
    )
    await first.stop()
    const second = await startMariaDb(data)
    expect(second.accountsClosed).toBe(false)
    await second.stop()
  })

  it('ends a database that was left behind when its launcher was killed alone', async () => {
    const data = join(folder, 'left-behind')
    const child = spawn(process.execPath, ['--import', 'tsx', 'tests/support/start-database.ts', data], {
      stdio: ['ignore', 'pipe', 'inherit'],
    })
    const left = Number(String((await once(child.stdout, 'data'))[0]))
    child.kill('SIGKILL')
    await once(child, 'exit')
    expect(() => process.kill(left, 0)).not.toThrow()
    const mariadb = await startMariaDb(data)
    expect(mariadb.pid).not.toBe(left)
    expect(existsSync(`/proc/${left}/exe`)).toBe(false)
    await mariadb.stop()
  })
})
