import { chromium, type Page } from '@playwright/test'
import sharp from 'sharp'
import { v7 as newId } from 'uuid'
import { cleaningCard } from '../../core/care/cleaning-card'
import { cleaningGroups } from '../../core/care/cleaning-groups'
import { lubricationCard } from '../../core/care/lubrication-card'
import { constructionPlans, describeConstruction } from '../../core/knowledge/constructions'
import { isRefusedStrip, planStrip } from '../../core/strip/plan-strip'
import { stripGoals } from '../../core/strip/strip-goals'
import { PASSWORD, TestShop } from '../support/test-shop'
import { browserLaunch } from '../support/browser-launch'

/** Measures what the hands wait for at Strip, Clean and Lubricate: `npm run bench:hands`, after a build. */
function report(what: string, values: number[]): void {
  const sorted = [...values].sort((one, other) => one - other)
  const at = (share: number): string =>
    (sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0).toFixed(1)
  console.log(`${what.padEnd(64)} median ${at(0.5)} ms, p95 ${at(0.95)} ms, worst ${at(1)} ms`)
}
function times(count: number, run: () => void): number[] {
  return Array.from({ length: count }, () => {
    const began = performance.now()
    run()
    return performance.now() - began
  })
}

const largest = constructionPlans
  .map(({ id }) => describeConstruction(id))
  .reduce((most, next) => (next.parts.length > most.parts.length ? next : most))
const goals = stripGoals(largest)
  .filter((goal) => goal.kind === 'usual' && !isRefusedStrip(planStrip(largest, [goal.id])))
  .slice(0, 5)
  .map((goal) => goal.id)
report(
  `Plan of ${largest.parts.length} parts with ${goals.length} goals`,
  times(60, () => void planStrip(largest, goals)),
)
const soils = cleaningGroups(largest).map((group) => ({ group: group.id, soil: 'soft-grease' }))
report(
  `Cleaning card of ${soils.length} groups`,
  times(60, () => void cleaningCard(largest, soils, {})),
)
report(
  'Lubrication card',
  times(60, () => void lubricationCard(largest)),
)

async function firstStep(page: Page, url: string): Promise<void> {
  // Asked by the page: only the browser knows the shop by this name.
  const { rows } = await page.evaluate(
    async () => (await (await fetch('/api/jobs?search=Little%20bus')).json()) as { rows: Array<{ id: string }> },
  )
  await page.goto(`${url}/jobs/${rows[0]?.id}/strip`)
  await page.getByRole('article', { name: /^Step: / }).waitFor()
}

/** As text: what runs in the page knows nothing of what the compiler adds to named functions. */
const TICK = `new Promise((resolve) => {
  const heading = () => document.querySelector('article[aria-label^="Step: "] h2')?.textContent
  const [began, words] = [performance.now(), heading()]
  const look = () => (heading() !== words ? resolve(performance.now() - began) : requestAnimationFrame(look))
  document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'PageDown', bubbles: true }))
  requestAnimationFrame(look)
})`

const shop = await TestShop.open('scenario', { durable: true })
const browser = await chromium.launch(browserLaunch)
try {
  const url = shop.url.replace('127.0.0.1', 'bench.localhost')
  const page = await browser.newPage()
  await page.goto(`${url}/sign-in`)
  await page.getByLabel('Name').fill('maren')
  await page.getByLabel('Password').fill(PASSWORD)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.getByRole('navigation', { name: 'Places' }).waitFor()
  await firstStep(page, url)
  const heading = page.getByRole('article', { name: /^Step: / }).getByRole('heading')
  // From the key to the next step drawn, as the page itself sees it.
  const ticks: number[] = []
  for (let step = 0; step < 6; step++) {
    ticks.push(await page.evaluate<number>(TICK))
  }
  report('A tick at Strip, key to the next step drawn', ticks)

  const part = ((await heading.textContent()) ?? '').replace(/ off$/, '')
  const answer = page.waitForResponse(
    (response) => response.url().includes('/phone') && response.request().method() === 'POST',
  )
  await page.keyboard.press('h')
  const { token } = (await (await answer).json()) as { token: string }
  await page.keyboard.press('Escape')
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage()
  await phone.goto(`${url}/phone#${token}`)
  await phone.getByRole('heading', { name: part }).waitFor()
  const noise = sharp({
    create: {
      width: 4000,
      height: 3000,
      channels: 3,
      background: '#777777',
      noise: { type: 'gaussian', mean: 128, sigma: 20 },
    },
  })
  const buffer = await noise.jpeg({ quality: 82 }).toBuffer()
  const here = page.getByRole('list', { name: `Photographs: ${part}` }).getByRole('listitem')
  const arrivals: number[] = []
  for (let picture = 0; picture < 5; picture++) {
    const before = await here.count()
    const began = performance.now()
    await phone.getByLabel('Photograph it').setInputFiles({ name: 'part.jpg', mimeType: 'image/jpeg', buffer })
    await here.nth(before).waitFor()
    arrivals.push(performance.now() - began)
  }
  report(`A 12 MP picture of ${(buffer.length / 1e6).toFixed(1)} MB, phone to bench`, arrivals)
  await phone.context().close()

  const [jobId] = /[0-9a-f-]{36}/.exec(page.url()) ?? []
  const small = await sharp({ create: { width: 1200, height: 900, channels: 3, background: '#8d9296' } })
    .jpeg()
    .toBuffer()
  for (let picture = arrivals.length; picture < 200; picture++) {
    const about = { commandId: newId(), jobId: jobId ?? '', station: 'strip', takenAt: '2026-11-30T09:00:00.000Z' }
    const status = await page.evaluate(
      async ([path, base64]) =>
        (await fetch(path, { method: 'PUT', body: Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0)) }))
          .status,
      [`/api/photographs/${newId()}?${new URLSearchParams(about).toString()}`, small.toString('base64')] as const,
    )
    if (status !== 200) throw new Error(`A photograph was refused: ${status}`)
  }
  const [anew, fromTheList]: [number[], number[]] = [[], []]
  for (let time = 0; time < 7; time++) {
    await page.goto(`${url}/jobs?search=Little%20bus`)
    const tag = page.locator(`a[href^="/jobs/${jobId}/"]`).first()
    await tag.waitFor()
    let began = performance.now()
    await tag.click()
    await page.getByText(/All 2\d\d/).waitFor({ state: 'attached' })
    fromTheList.push(performance.now() - began)
    began = performance.now()
    await page.goto(`${url}/jobs/${jobId}/strip`)
    await page.getByText(/All 2\d\d/).waitFor({ state: 'attached' })
    anew.push(performance.now() - began)
  }
  report('A job with 200 photographs, opened from the list', fromTheList)
  report('The same, the whole application loaded anew', anew)
} finally {
  await browser.close()
  await shop.close()
}
