import { execFile } from 'node:child_process'
import { rmSync } from 'node:fs'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { freePort } from '../../launcher/free-port'
import type { OwnCertificate } from '../../launcher/own-certificate'
import { startMariaDb, type PrivateMariaDb } from '../../launcher/private-mariadb'
import { startShopServer, type ShopServer } from '../../launcher/shop-server'
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
}

/** A whole shop for a test: database and application, both of which may be killed and started again. */
export class TestShop {
  private readonly folder = throwAwayFolder('shop')
  private port = 0
  mariadb!: PrivateMariaDb
  server!: ShopServer
  private databasePort: number | null = null

  get url(): string {
    return `http://127.0.0.1:${this.port}`
  }

  static async open(contents: 'scenario' | 'workshop' | 'empty', options: TestShopOptions = {}): Promise<TestShop> {
    const shop = new TestShop()
    shop.port = await freePort()
    await shop.startDatabase()
    const { port, user, password, database } = shop.mariadb.address
    await promisify(execFile)(process.execPath, ['--import', 'tsx', 'tests/support/load-shop.ts', contents, PASSWORD], {
      env: {
        ...process.env,
        ECHOPPE_DATABASE_PORT: String(port),
        ECHOPPE_DATABASE_USER: user,
        ECHOPPE_DATABASE_PASSWORD: password,
        ECHOPPE_DATABASE_NAME: database,
      },
    })
    await shop.startServer(options)
    return shop
  }

  /** Starts the database, at the port it had before: the application goes on looking for it there. */
  async startDatabase(): Promise<void> {
    this.mariadb = await startMariaDb(
      join(this.folder, 'database'),
      this.databasePort === null ? {} : { port: this.databasePort },
    )
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
