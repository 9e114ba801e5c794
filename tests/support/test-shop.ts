import { execFile } from 'node:child_process'
import { cpSync, existsSync, mkdirSync, renameSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { freePort } from '../../launcher/free-port'
import type { OwnCertificate } from '../../launcher/own-certificate'
import { startMariaDb, type PrivateMariaDb } from '../../launcher/private-mariadb'
import { startShopServer, type ShopServer } from '../../launcher/shop-server'
import type { DatabaseAddress } from '../../server/db/book'
import { throwAwayFolder } from './throw-away-folder'

export const PASSWORD = 'harbour-festival'

export interface TestShopOptions {
  readonly firstOwnerCode?: string
  /** Also reckons searches on the server, which keeps a core busy for a while after the scenario is loaded. */
  readonly reckons?: boolean
  /** Names by which it answers; without any, by every name. */
  readonly hosts?: readonly string[]
  /** With one, https instead of plain http. */
  readonly certificate?: OwnCertificate
  /** Presses every write onto the disk, as a real shop does; where nothing is measured it need not. */
  readonly durable?: boolean
}

type Contents = 'scenario' | 'workshop' | 'empty'

/** A whole shop for a test: database and application, both of which may be killed and started again. */
export class TestShop {
  private readonly folder = throwAwayFolder('shop')
  private port = 0
  mariadb!: PrivateMariaDb
  server!: ShopServer
  private databasePort: number | null = null
  private durable = false

  get url(): string {
    return `http://127.0.0.1:${this.port}`
  }

  static async open(contents: Contents, options: TestShopOptions = {}): Promise<TestShop> {
    const shop = new TestShop()
    shop.port = await freePort()
    shop.durable = options.durable ?? false
    const prepared = preparedFolder(contents)
    if (prepared) cpSync(prepared, shop.folder, { recursive: true })
    await shop.startDatabase()
    if (!prepared) await fillShop(contents, shop.mariadb.address)
    await shop.startServer(options)
    return shop
  }

  /** Starts the database, at the port it had before: the application goes on looking for it there. */
  async startDatabase(): Promise<void> {
    this.mariadb = await startMariaDb(join(this.folder, 'database'), {
      durable: this.durable,
      ...(this.databasePort === null ? {} : { port: this.databasePort }),
    })
    this.databasePort = this.mariadb.address.port
  }

  async startServer({ firstOwnerCode, reckons, hosts, certificate }: TestShopOptions = {}): Promise<void> {
    this.server = await startShopServer({
      root: process.cwd(),
      host: '127.0.0.1',
      port: this.port,
      database: this.mariadb.address,
      sessionPassword: 'a-password-of-tests-longer-than-32-characters',
      quiet: true,
      ...(firstOwnerCode ? { firstOwnerCode } : {}),
      ...(hosts ? { hosts } : {}),
      ...(certificate ? { certificate } : {}),
      ...(reckons ? {} : { environment: { ECHOPPE_SEARCH_JUDGE: '' } }),
    })
  }

  async close(): Promise<void> {
    await this.server.stop()
    await this.mariadb.stop()
    rmSync(this.folder, { recursive: true, force: true })
  }
}

/** Fills a database, in a process of its own: the browser tests' loader reads no JSON modules, the knowledge is made of them. */
async function fillShop(contents: Contents, { port, user, password, database }: DatabaseAddress): Promise<void> {
  await promisify(execFile)(process.execPath, ['--import', 'tsx', 'tests/support/load-shop.ts', contents, PASSWORD], {
    env: {
      ...process.env,
      ECHOPPE_DATABASE_PORT: String(port),
      ECHOPPE_DATABASE_USER: user,
      ECHOPPE_DATABASE_PASSWORD: password,
      ECHOPPE_DATABASE_NAME: database,
    },
  })
}

/** The folder of a database filled with these contents once for the whole run, to be copied. */
function preparedFolder(contents: Contents): string | null {
  const folder = process.env.ECHOPPE_PREPARED_SHOPS ? join(process.env.ECHOPPE_PREPARED_SHOPS, contents) : ''
  return folder && existsSync(folder) ? folder : null
}

/** Fills a database once for every shop a run of tests opens with these contents. */
export async function prepareShop(contents: Contents, folder: string): Promise<void> {
  const making = join(folder, `${contents}-in-the-making`)
  mkdirSync(making)
  const mariadb = await startMariaDb(join(making, 'database'), { durable: false })
  await fillShop(contents, mariadb.address)
  await mariadb.stop()
  renameSync(making, join(folder, contents))
}
