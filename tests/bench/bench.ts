import { chromium } from '@playwright/test'
import { sql } from 'drizzle-orm'
import { Circuit } from '../../core/engine/circuit'
import type { Part } from '../../core/engine/description-schema'
import { operatingPoint } from '../../core/engine/operating-point'
import { runningPositions } from '../../core/engine/pickup-map'
import { constructionPlans, describeConstruction } from '../../core/knowledge/constructions'
import { judgeSheet } from '../../core/motor/sheet-judgement'
import type { SheetReading } from '../../core/motor/sheet-reading'
import { minimalRemoval } from '../../core/strip/minimal-removal'
import { openBook } from '../../server/db/book'
import { listJobs, type JobQuery } from '../../server/services/list-jobs'
import { PASSWORD, TestShop } from '../support/test-shop'
import { browserLaunch } from '../support/browser-launch'
import { complaintWords, fillJobs, FIRST_MADE_UP, jobStatesDrawn } from './many-jobs'

/** Measures what the product promises about speed and prints it: `npm run bench`, after a build. */
function percentile(values: number[], share: number): number {
  return [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))] as number
}
function report(what: string, values: number[], unit: string): void {
  console.log(
    `${what.padEnd(58)} median ${percentile(values, 0.5).toFixed(1)} ${unit}, p95 ${percentile(values, 0.95).toFixed(1)} ${unit}`,
  )
}

const meter = { percentOfReading: 1, digits: 3 }
const readings: SheetReading[] = Array.from({ length: 40 }, (_, i) =>
  i < 24
    ? {
        kind: 'running',
        direction: i % 2 ? 'reverse' : 'forward',
        voltage: { value: 4 + i / 3, resolution: 0.01, meter },
        current: { value: 0.1 + i / 900, resolution: 0.0001, meter },
        speed: { value: 300 + i * 30, resolution: 1, meter },
        run: null,
      }
    : {
        kind: 'locked',
        direction: 'forward',
        voltage: { value: 1 + (i - 24) / 16, resolution: 0.01, meter },
        current: { value: (1 + (i - 24) / 16) / (22 + (i % 3)), resolution: 0.0001, meter },
        angle: null,
      },
)
const machine = { power: 'dc', nominalVoltage: 12, scaleRatio: 87, gearRatio: 14, wheelDiameterMetres: 0.01 } as const
const judged = Array.from({ length: 300 }, () => {
  const began = performance.now()
  const { fit } = judgeSheet(readings, machine, { windingCelsius: 20 })
  for (let step = 0; step <= 40; step++) {
    fit?.currentAt(step * 0.3)
    fit?.speedAt(step * 0.3)
  }
  return performance.now() - began
})
report('sheet of 40 readings judged, with the chart’s bands', judged.slice(50), 'ms')

const machines = constructionPlans.map((plan) => describeConstruction(plan.id, plan.power === 'dc' ? 'dcc' : 'ac'))
const [largest] = [...machines].sort((first, second) => second.components.length - first.components.length)
if (!largest) throw new Error('No construction ships.')
for (const machine of [largest, ...machines.filter((entry) => entry.motors.length > 1)]) {
  const circuit = new Circuit(machine)
  const switches = runningPositions(machine)
  const solved = Array.from({ length: 400 }, (_, i) => {
    const began = performance.now()
    operatingPoint(
      circuit,
      { switches, states: { [machine.components[i % machine.components.length]?.id ?? '']: 'high-resistance' } },
      { ...machine.rails, volts: 12 },
    )
    return performance.now() - began
  })
  report(`operating point, ${machine.components.length} components`, solved.slice(100), 'ms')
}
/** 120 parts, each behind one to three needs with one to three ways, seeded. */
let seed = 7
const random = (): number => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647
const plans = Array.from({ length: 60 }, () => {
  const parts = Array.from({ length: 120 }, (_, i): Part => ({
    id: `p${i}`,
    name: `Part ${i}`,
    kind: 'detail',
    unit: largest.units[0]?.id ?? '',
    materials: ['steel'],
    place: '',
    heldBy: '',
    massGrams: null,
    removal: {
      minutes: 1 + Math.floor(random() * 9),
      refitMinutes: 1,
      needs:
        i < 12
          ? []
          : Array.from({ length: 1 + Math.floor(random() * 2) }, () =>
              Array.from(
                { length: random() < 0.3 ? 2 + Math.floor(random() * 2) : 1 },
                () => `p${Math.floor(random() * i)}`,
              ),
            ),
      tools: [],
      risk: 0.02,
      replacement: 'order',
      hazards: [],
      leaveAlone: '',
      wayBack: '',
    },
  }))
  const began = performance.now()
  minimalRemoval({ ...largest, parts }, [['p119'], ['p117', 'p118']])
  return performance.now() - began
})
report('way in among 120 parts with alternatives', plans.slice(10), 'ms')

const shop = await TestShop.open('scenario', { durable: true })
const book = openBook(shop.mariadb.address)
const browser = await chromium.launch(browserLaunch)
try {
  await fillJobs(book.database, 20_000)
  const base: JobQuery = { search: '', states: [], station: null, sort: 'newest', page: 1, pageSize: 20 }
  const cases: ReadonlyArray<readonly [string, (i: number) => JobQuery]> = [
    ['a page', (i) => ({ ...base, page: 1 + (i % 40) })],
    ['a page by due date', (i) => ({ ...base, sort: 'due', page: 1 + (i % 40) })],
    [
      'a search of two words',
      (i) => ({ ...base, search: `orrin ${complaintWords[i % complaintWords.length]?.slice(0, 5)}` }),
    ],
    ['a search without a match', (i) => ({ ...base, search: `zzz${i}` })],
    [
      'a filter',
      (i) => ({ ...base, states: [jobStatesDrawn[i % jobStatesDrawn.length] as (typeof jobStatesDrawn)[number]] }),
    ],
    ['a filter by station', () => ({ ...base, station: 'find' })],
  ]
  for (const [name, query] of cases) {
    const times: number[] = []
    for (let i = 0; i < 60; i++) {
      const began = performance.now()
      await listJobs(book.database, query(i))
      times.push(performance.now() - began)
    }
    report(`20 000 jobs: ${name}`, times.slice(5), 'ms')
  }
  await book.database.execute(sql`delete from job where number >= ${FIRST_MADE_UP}`)

  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const page = await context.newPage()
  await page.goto(`${shop.url}/sign-in`)
  await page.request.post(`${shop.url}/api/session`, {
    data: { signInName: 'maren', password: PASSWORD },
    headers: { origin: shop.url },
  })
  const session = await context.newCDPSession(page)
  await session.send('Network.enable')
  await session.send('Network.clearBrowserCache')
  let scriptBytes = 0
  const scripts = new Set<string>()
  session.on('Network.responseReceived', ({ requestId, response }) => {
    if (/javascript/.test(response.mimeType)) scripts.add(requestId)
  })
  session.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    if (scripts.has(requestId)) scriptBytes += encodedDataLength
  })
  const usable: number[] = []
  let firstScripts = 0
  for (let i = 0; i < 7; i++) {
    scriptBytes = 0
    await session.send('Network.clearBrowserCache')
    const began = performance.now()
    await page.goto(`${shop.url}/`, { waitUntil: 'commit' })
    await page.getByRole('button', { name: /Go on with/ }).waitFor()
    usable.push(performance.now() - began)
    if (i === 0) firstScripts = scriptBytes
  }
  console.log(
    `${'first load of the Bench: JavaScript when usable'.padEnd(58)} ${(firstScripts / 1024).toFixed(0)} kB transferred (brotli or gzip)`,
  )
  await page.waitForLoadState('networkidle')
  console.log(
    `${'first load of the Bench: JavaScript with what is fetched ahead'.padEnd(58)} ${(scriptBytes / 1024).toFixed(0)} kB transferred`,
  )
  report('first load of the Bench: usable after, empty cache', usable, 'ms')

  const {
    rows: [engine],
  } = (await (await page.request.get(`${shop.url}/api/engines?search=ridge`)).json()) as { rows: Array<{ id: string }> }
  for (const [name, way] of [
    ['from the list of engines', 'list'],
    ['by its address, empty cache', 'empty'],
    ['by its address, application kept', 'kept'],
  ] as const) {
    const opened: number[] = []
    for (let i = 0; i < 7; i++) {
      if (way === 'empty') await session.send('Network.clearBrowserCache')
      await page.goto(way === 'list' ? `${shop.url}/engines` : 'about:blank', { waitUntil: 'networkidle' })
      const began = performance.now()
      if (way !== 'list') await page.goto(`${shop.url}/engines/${engine?.id}`, { waitUntil: 'commit' })
      else await page.locator(`a[href="/engines/${engine?.id}"]`).first().click()
      await page.locator('.differences').waitFor()
      if (way === 'list') {
        await page.getByRole('link', { name: 'Current path' }).click()
        await page.locator('.says .headline').waitFor()
      }
      opened.push(performance.now() - began)
    }
    report(`an engine’s page${way === 'list' ? ' and its current path' : ''}, ${name}`, opened, 'ms')
  }
} finally {
  await browser.close()
  await book.close()
  await shop.close()
}
