import { mkdirSync } from 'node:fs'
import { chromium, type Page } from '@playwright/test'
import { PASSWORD, TestShop } from '../support/test-shop'
import { browserLaunch } from '../support/browser-launch'

/** Takes the pictures of docs/screenshots/ from the demo scenario: `npm run screenshots`, after a build. */
const views: ReadonlyArray<{
  name: string
  path: string
  job?: string
  engine?: string
  lampOff?: boolean
  size?: { width: number; height: number }
  before?: (page: Page) => Promise<unknown>
  after?: (page: Page) => Promise<unknown>
}> = [
  { name: 'bench', path: '/' },
  {
    name: 'take-in',
    path: '/take-in',
    before: async (page) => {
      await page.getByRole('button', { name: 'A new owner' }).click()
      await page.getByLabel('Name').first().fill('Ilse Brandow')
      await page.getByRole('button', { name: 'An engine not in the book yet' }).click()
      await page.getByRole('button', { name: 'A new type' }).click()
      await page.getByRole('button', { name: 'Axles in the frame, joined by rods, all resist' }).click()
      await page.getByRole('button', { name: 'Wipers on one side, the frame on the other' }).click()
      const questions = page.getByText('Which wheels resist a finger?')
      await questions.evaluate((element) => element.scrollIntoView({ block: 'start' }))
    },
  },
  { name: 'first-run', path: '/first-run', job: 'Orrin Seven backwards' },
  {
    name: 'continuity',
    path: '/find?view=wheels',
    job: 'Lady of the Vale',
    before: (page) => page.getByRole('article', { name: /^Next reading/ }).waitFor({ timeout: 30_000 }),
  },
  { name: 'prove-lamp-off', path: '/prove', job: 'Cellar find', lampOff: true },
  { name: 'hand-back', path: '/hand-back', job: 'Growls' },
  {
    name: 'engine-current-path',
    path: '/path',
    engine: 'Old Fjell',
    before: async (page) => {
      await page.getByRole('button', { name: /^Lead from the front truck, right/ }).press('Enter')
      await page.keyboard.press('2')
    },
  },
  { name: 'strip', path: '/strip', job: 'Little bus', lampOff: true },
  {
    name: 'clean',
    path: '/clean',
    job: 'Glen half throttle',
    before: async (page) => {
      await page.getByRole('article', { name: /^Clean: / }).waitFor()
      await page.keyboard.press('u')
      await page.getByRole('region', { name: 'Never here' }).waitFor()
    },
  },
  {
    name: 'mend',
    path: '/mend',
    job: 'Short circuit now and then',
    before: (page) => page.getByRole('radiogroup').waitFor(),
  },
  {
    name: 'lubricate',
    path: '/lubricate',
    job: 'Thirty-one hours',
    before: (page) => page.getByRole('article', { name: /^Oil: / }).waitFor(),
  },
  { name: 'care-book', path: '/engines/care', before: (page) => page.getByRole('row').nth(2).waitFor() },
  {
    name: 'photographs',
    path: '/strip',
    job: 'Little bus',
    before: async (page) => {
      await page.getByRole('button', { name: 'No. 4' }).waitFor()
      const beside = page.getByRole('list', { name: /^Photographs: / })
      await beside.getByRole('button').first().click()
      await page.getByRole('combobox', { name: 'Lay another over it' }).press('ArrowDown')
      await page
        .getByRole('option', { name: /^Take in|Hair/ })
        .first()
        .click()
      await page.getByRole('slider').waitFor()
    },
  },
  {
    name: 'phone',
    path: '/strip',
    job: 'Little bus',
    size: { width: 390, height: 844 },
    before: async (page) => {
      const address = await page.evaluate(async () => {
        const job = /jobs\/([0-9a-f-]+)/.exec(location.pathname)?.[1]
        const about = { kind: 'part', part: 'motor', moment: 'off' }
        const answer = await fetch(`/api/jobs/${job}/phone`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ station: 'strip', about, words: 'Motor, before it comes off' }),
        })
        return `/phone#${((await answer.json()) as { token: string }).token}`
      })
      await page.goto(new URL(address, page.url()).href)
      await page.getByText('Photograph it').waitFor()
    },
  },
  { name: 'motor-over-the-years', path: '/motor', engine: 'Orrin Seven' },
  { name: 'rebuild', path: '/rebuild', job: 'taken apart by my nephew' },
  {
    name: 'instruments',
    path: '/instruments',
    before: async (page) => {
      for (const [bench, engine, halfVolts] of [
        ['Simulated bench supply', 'ridge', 12],
        ['Simulated supply by the window', 'orrin', 16],
      ] as const) {
        const panel = page.getByRole('region', { name: bench })
        await panel.getByLabel('What lies on this bench').fill(engine)
        await panel
          .getByRole('button', { name: new RegExp(engine, 'i') })
          .first()
          .click()
        await panel.getByRole('button', { name: 'Watch it live' }).click()
        await panel.getByRole('button', { name: /^Output on/ }).click()
        for (let half = 0; half < halfVolts; half++)
          await panel.getByRole('button', { name: 'Half a volt more' }).click()
      }
      await page.waitForTimeout(12_000)
      await page.getByRole('heading', { name: 'Instruments' }).click()
    },
  },
  {
    name: 'find',
    path: '/find',
    job: 'Lady of the Vale',
    before: async (page) => {
      await page.getByRole('article', { name: 'Mend now' }).waitFor({ timeout: 30_000 })
      await page.keyboard.press('a')
      await page.getByRole('article', { name: /^Next: / }).waitFor({ timeout: 30_000 })
      await page.getByRole('region', { name: 'Suspects' }).waitFor({ timeout: 30_000 })
    },
  },
  {
    name: 'search-end',
    path: '/find',
    job: 'Cellar find',
    before: async (page) => {
      const end = page.getByRole('article', { name: 'Search ended' })
      await end.waitFor({ timeout: 60_000 })
      await end.evaluate((element) => element.scrollIntoView({ block: 'start' }))
    },
  },
]

// The simulated supply in some hurry: enough for a sheet, slow enough for a moving chart.
process.env.ECHOPPE_BENCH_PACE ??= '10'
const folder = 'docs/screenshots'
/** `npm run screenshots -- find take-in`: only these. */
const wanted = process.argv.slice(2)
mkdirSync(folder, { recursive: true })
const shop = await TestShop.open('scenario')
const browser = await chromium.launch(browserLaunch)
try {
  for (const view of views.filter(({ name }) => wanted.length === 0 || wanted.includes(name))) {
    const context = await browser.newContext({
      viewport: view.size ?? { width: 1280, height: 800 },
      locale: 'en-GB',
      timezoneId: 'Europe/London',
      reducedMotion: 'reduce',
    })
    const page = await context.newPage()
    if (view.lampOff) await page.addInitScript(() => localStorage.setItem('echoppe.lamp', 'off'))
    await page.goto(`${shop.url}/sign-in`)
    await page.getByLabel('Name').fill('maren')
    await page.getByLabel('Password').fill(PASSWORD)
    await page.getByRole('button', { name: 'Sign in' }).click()
    await page.getByRole('navigation', { name: 'Places' }).waitFor()
    let path = view.path
    if (view.job) {
      const answer = await page.request.get(`${shop.url}/api/jobs?sort=number&search=${encodeURIComponent(view.job)}`)
      const { rows } = (await answer.json()) as { rows: Array<{ id: string }> }
      if (!rows[0]) throw new Error(`The scenario has no job for “${view.job}”.`)
      path = `/jobs/${rows[0].id}${view.path}`
    }
    if (view.engine) {
      const answer = await page.request.get(`${shop.url}/api/engines?search=${encodeURIComponent(view.engine)}`)
      const { rows } = (await answer.json()) as { rows: Array<{ id: string }> }
      if (!rows[0]) throw new Error(`The scenario has no engine “${view.engine}”.`)
      path = `/engines/${rows[0].id}${view.path}`
    }
    await page.goto(`${shop.url}${path}`)
    await page.waitForLoadState('networkidle')
    await view.before?.(page)
    await page.evaluate(() => document.fonts.ready)
    await page.screenshot({ path: `${folder}/${view.name}.png` })
    await view.after?.(page)
    await context.close()
    console.log(`${folder}/${view.name}.png`)
  }
} finally {
  await browser.close()
  await shop.close()
}
