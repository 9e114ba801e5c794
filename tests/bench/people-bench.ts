import { v7 as newId } from 'uuid'
import { SeededRandom } from '../../bench/casualty/random'
import { openBook } from '../../server/db/book'
import { runningReading, someSheet } from '../support/some-entries'
import { PASSWORD, TestShop } from '../support/test-shop'
import { complaintWords, fillEngines, fillJobs } from './many-jobs'

/**
 * A shop of 20,000 jobs and 5,000 engines with many people at work in it at once, each with a pause of some four
 * seconds between one thing and the next: `npm run bench:people`, after a build. What a person waits for is a request.
 */
const PAUSE_MS = 4000

interface Waits {
  readonly times: Array<readonly [what: string, milliseconds: number]>
  errors: number
}

const percentile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))] ?? 0

/** One person: looks at lists, opens jobs and engines, types readings and notes, until the time is over. */
async function work(shop: TestShop, cookie: string, seed: number, until: number, waits: Waits): Promise<void> {
  const random = new SeededRandom(seed)
  const headers = { cookie, origin: shop.url, 'content-type': 'application/json' }
  const ask = async (what: string, path: string, payload?: object): Promise<unknown> => {
    const began = performance.now()
    const body = payload && { commandId: newId(), capturedAt: new Date().toISOString(), payload }
    const answer = await fetch(`${shop.url}/api/${path}`, {
      headers,
      ...(body ? { method: 'POST', body: JSON.stringify(body) } : {}),
    }).catch(() => null)
    const read = answer?.ok ? ((await answer.json()) as unknown) : null
    waits.times.push([what, performance.now() - began])
    if (!answer?.ok) waits.errors++
    return read
  }
  const pause = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, PAUSE_MS * (0.5 + random.next())))
  await new Promise((resolve) => setTimeout(resolve, PAUSE_MS * random.next()))
  while (Date.now() < until) {
    await ask('the Bench', 'bench')
    await pause()
    const search =
      random.next() < 0.5 ? `&search=${complaintWords[Math.floor(random.next() * complaintWords.length)]}` : ''
    const page = 1 + Math.floor(random.next() * 30)
    const list = (await ask('a page of jobs', `jobs?page=${search ? 1 : page}${search}`)) as {
      readonly rows: ReadonlyArray<{ readonly id: string }>
    } | null
    await pause()
    const found = list?.rows[Math.floor(random.next() * list.rows.length)]
    if (!found) continue
    const jobId = found.id
    await ask('a job opened', `jobs/${jobId}?slices=findings,sheets,search,notes`)
    await pause()
    const sheetId = newId()
    await ask('a sheet begun', 'commands/sheet.save', { id: sheetId, jobId, fields: someSheet })
    for (let line = 0; line < 4; line++) {
      await pause()
      const fields = runningReading(4 + line, 120 + line)
      await ask('a reading', 'commands/reading.add', { id: newId(), jobId, sheetId, supersedesId: null, fields })
    }
    await pause()
    await ask('a note', 'commands/note.add', {
      id: newId(),
      jobId,
      fields: { station: 'find', text: 'Stands at the second turnout', minutes: 0, supersedesId: null },
    })
    await pause()
    await ask('a page of engines', `engines?page=${1 + Math.floor(random.next() * 50)}`)
    await pause()
  }
}

const shop = await TestShop.open('scenario', { durable: true })
try {
  const book = openBook(shop.mariadb.address)
  await fillEngines(book.database, 5000)
  await fillJobs(book.database, 20_000)
  await book.close()
  const signedIn = await fetch(`${shop.url}/api/session`, {
    method: 'POST',
    headers: { origin: shop.url, 'content-type': 'application/json' },
    body: JSON.stringify({ signInName: 'maren', password: PASSWORD }),
  })
  const cookie = signedIn.headers
    .getSetCookie()
    .map((line) => line.split(';')[0])
    .join('; ')
  for (const [people, seconds] of [
    [20, 90],
    [100, 60],
  ] as const) {
    const waits: Waits = { times: [], errors: 0 }
    const until = Date.now() + seconds * 1000
    await Promise.all(Array.from({ length: people }, (_, person) => work(shop, cookie, 100 + person, until, waits)))
    const all = waits.times.map(([, time]) => time)
    console.log(
      `${people} people, ${all.length} requests: median ${percentile(all, 0.5).toFixed(0)} ms, p95 ${percentile(all, 0.95).toFixed(0)} ms, p99 ${percentile(all, 0.99).toFixed(0)} ms, longest ${Math.max(...all).toFixed(0)} ms, ${waits.errors} errors`,
    )
    for (const what of new Set(waits.times.map(([name]) => name))) {
      const own = waits.times.flatMap(([name, time]) => (name === what ? [time] : []))
      console.log(
        `  ${what.padEnd(20)} median ${percentile(own, 0.5).toFixed(0)} ms, p95 ${percentile(own, 0.95).toFixed(0)} ms`,
      )
    }
  }
} finally {
  await shop.close()
}
