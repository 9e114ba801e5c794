import { rmSync } from 'node:fs'
import { join } from 'node:path'
import { subDays } from 'date-fns'
import { v7 as newId } from 'uuid'
import { SeededRandom } from '../../bench/casualty/random'
import { startMariaDb } from '../../launcher/private-mariadb'
import { openBook } from '../../server/db/book'
import { bringUpToDate } from '../../server/db/migrate'
import { engine, engineType, owner, runningEntry } from '../../server/db/schema'
import { readCareBook } from '../../server/services/care-book'
import { openWorkshop } from '../../server/services/open-workshop'
import { emptyEngineType } from '../support/some-entries'
import { throwAwayFolder } from '../support/throw-away-folder'

/** Measures the due list of a shop with many engines: `npm run bench:care [ENGINES] [ENTRIES]`. */
const [engines = 2000, entries = 20_000] = process.argv.slice(2).map(Number)
const NOW = new Date('2026-11-30T12:00:00Z')
const DAYS = 730
const random = new SeededRandom(4711)
const folder = throwAwayFolder('care-bench')
const database = await startMariaDb(join(folder, 'database'), { durable: false })
const book = openBook(database.address)
try {
  await bringUpToDate(book, 'server/db/migrations')
  const actor = await openWorkshop(book.database, {
    workshopName: 'Bench',
    name: 'Maren Tolvik',
    signInName: 'maren',
    password: 'harbour-festival',
  })
  const [ownerId, typeId] = [newId(), newId()]
  await book.database.insert(owner).values({
    id: ownerId,
    name: 'A club',
    email: '',
    phone: '',
    address: '',
    notes: '',
    isShop: false,
  })
  await book.database.insert(engineType).values({ id: typeId, ...emptyEngineType })
  const ids = Array.from({ length: engines }, () => newId())
  const inPieces = async <T>(rows: readonly T[], insert: (piece: T[]) => Promise<unknown>): Promise<void> => {
    for (let at = 0; at < rows.length; at += 1000) await insert(rows.slice(at, at + 1000))
  }
  await inPieces(ids, (piece) =>
    book.database.insert(engine).values(
      piece.map((id, index) => ({
        id,
        ownerId,
        typeId,
        nickname: `Engine ${index}`,
        runningNumber: '',
        marks: '',
        condition: '',
        history: 'Stored in the attic, run at shows.',
        differences: '',
        units: [],
      })),
    ),
  )
  const rows = Array.from({ length: entries }, () => ({
    id: newId(),
    bookingId: newId(),
    engineId: ids[Math.floor(random.next() * ids.length)] ?? '',
    day: subDays(NOW, Math.floor(random.next() * DAYS))
      .toISOString()
      .slice(0, 10),
    hours: Math.round(random.next() * 40) / 10,
    meter: null,
    show: random.next() < 0.3 ? 'Autumn show' : '',
    authorId: actor.id,
    capturedAt: NOW,
  }))
  await inPieces(rows, (piece) => book.database.insert(runningEntry).values(piece))
  const times: number[] = []
  for (let run = 0; run < 12; run++) {
    const began = performance.now()
    const { lines } = await readCareBook(book.database, NOW)
    times.push(performance.now() - began)
    if (lines.length === 0) throw new Error('Nothing is due: the list was not read.')
  }
  const sorted = times.toSorted((one, other) => one - other)
  console.log(
    `Due list of ${engines} engines with ${entries} entries: first ${times[0]?.toFixed(0)} ms, median ${sorted[6]?.toFixed(0)} ms, worst ${sorted.at(-1)?.toFixed(0)} ms`,
  )
} finally {
  await book.close()
  await database.stop()
  rmSync(folder, { recursive: true, force: true })
}
