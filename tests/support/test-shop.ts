import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { freePort } from '../../launcher/free-port'
import { startMariaDb, type PrivateMariaDb } from '../../launcher/private-mariadb'
import { startShopServer, type ShopServer } from '../../launcher/shop-server'
import { openBook } from '../../server/db/book'
import { bringUpToDate } from '../../server/db/migrate'
import { openWorkshop } from '../../server/services/open-workshop'
import { loadScenario } from '../../demo/load-scenario'

export const PASSWORD = 'harbour-festival'

/** A whole shop for a test: database and application, both of which may be killed and started again. */
export class TestShop {
  private readonly folder = mkdtempSync(join(tmpdir(), 'ech-shop-'))
  private port = 0
  mariadb!: PrivateMariaDb
  server!: ShopServer
  private databasePort: number | null = null

  get url(): string {
    return `http://127.0.0.1:${this.port}`
  }

  static async open(contents: 'scenario' | 'workshop' | 'empty', options: { firstOwnerCode?: string } = {}): Promise<TestShop> {
    const shop = new TestShop()
    shop.port = await freePort()
    await shop.startDatabase()
    const book = openBook(shop.mariadb.address)
    await bringUpToDate(book, 'server/db/migrations')
    if (contents === 'scenario') await loadScenario(book.database, { now: new Date(), password: PASSWORD })
    if (contents === 'workshop') await openWorkshop(book.database, { workshopName: 'Test bench', name: 'Maren Tolvik', signInName: 'maren', password: PASSWORD })
    await book.close()
    await shop.startServer(options)
    return shop
  }

  /** Starts the database, at the port it had before: the application goes on looking for it there. */
  async startDatabase(): Promise<void> {
    this.mariadb = await startMariaDb(join(this.folder, 'database'), this.databasePort === null ? {} : { port: this.databasePort })
    this.databasePort = this.mariadb.address.port
  }

  async startServer({ firstOwnerCode }: { firstOwnerCode?: string } = {}): Promise<void> {
    this.server = await startShopServer({
      root: process.cwd(), host: '127.0.0.1', port: this.port, database: this.mariadb.address, sessionPassword: 'a-password-of-tests-longer-than-32-characters', quiet: true,
      ...(firstOwnerCode ? { firstOwnerCode } : {}),
    })
  }

  async close(): Promise<void> {
    await this.server.stop()
    await this.mariadb.stop()
    rmSync(this.folder, { recursive: true, force: true })
  }
}
