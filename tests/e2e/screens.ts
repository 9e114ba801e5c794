import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import type { TestShop } from '../support/test-shop'
import { expect, findJob, signIn } from './shop'

const engineViews = ['', '/path', '/drive', '/pickups', '/parts', '/motor', '/known']
const screens: ReadonlyArray<readonly [name: string, path: string, job?: string]> = [
  ['bench', '/'],
  ['jobs', '/jobs'],
  ['take-in', '/take-in'],
  ['engines and owners', '/engines'],
  ['instruments', '/instruments'],
  ['workshop', '/workshop'],
  ['job, take in', '/take-in', 'Cellar find'],
  ['job, first run', '/first-run', 'Orrin Seven backwards'],
  ['job, find', '/find', 'Lady of the Vale'],
  ['job, strip', '/strip', 'Little bus'],
  ['job, clean', '/clean', 'Glen half throttle'],
  ['job, lubricate', '/lubricate', 'Thirty-one hours'],
  ['care book', '/engines/care'],
  ['job, mend', '/mend', 'Orrin Seven backwards'],
  ['job, rebuild', '/rebuild', 'taken apart by my nephew'],
  ['job, sequence switch', '/first-run', 'will not change over'],
  ['job, prove', '/prove', 'Cellar find'],
  ['job, hand back', '/hand-back', 'Cellar find'],
]

/** Every screen of the demo shop, by name and address. */
async function everyScreen(page: Page, shop: TestShop): Promise<Array<readonly [name: string, address: string]>> {
  const found: Array<readonly [string, string]> = []
  for (const [name, path, job] of screens)
    found.push([name, job ? `/jobs/${await findJob(page, shop, job)}${path}` : path])
  const { rows } = (await (await page.request.get(`${shop.url}/api/engines?search=saltmark%20230`)).json()) as {
    rows: Array<{ id: string }>
  }
  const parcels = (await (await page.request.get(`${shop.url}/api/parcels`)).json()) as Array<{ id: string }>
  const engine = `/engines/${rows[0]?.id}`
  const { owner } = (await (await page.request.get(`${shop.url}/api${engine}`)).json()) as { owner: { id: string } }
  return [
    ...found,
    ...engineViews.map((view) => [`engine${view}`, engine + view] as const),
    ['owner', `/owners/${owner.id}`],
    ['parcel', `/parcels/${parcels[0]?.id}`],
  ]
}

/** What axe finds serious on the screen as it stands; by all rules, or by those that are named. */
export async function seriousFindings(page: Page, name: string, rules?: string[]): Promise<string[]> {
  // What passes need not be listed element by element: that is most of its time.
  const builder = new AxeBuilder({ page }).options({ resultTypes: ['violations'] })
  const { violations } = await (rules ? builder.withRules(rules) : builder).analyze()
  return violations
    .filter((violation) => violation.impact === 'serious' || violation.impact === 'critical')
    .map(
      (violation) =>
        `${name}: ${violation.id} ${violation.nodes
          .map((node) => node.target.join(' '))
          .slice(0, 3)
          .join(' | ')}`,
    )
}

/** By how many pixels the page is too wide; drawings may take a few frames to follow their window. */
async function widerThanItsWindow(): Promise<number> {
  const over = (): number => document.documentElement.scrollWidth - window.innerWidth
  for (let frame = 0; frame < 60 && over() > 0; frame++) await new Promise((resolve) => requestAnimationFrame(resolve))
  return over()
}

async function colourSettled(): Promise<void> {
  await Promise.allSettled(
    document
      .getAnimations()
      .filter(({ effect }) => Number.isFinite(effect?.getComputedTiming().endTime))
      .map(({ finished }) => finished),
  )
}

/**
 * What is wrong with every second screen, from the first or the second on, each opened once: by axe with all rules,
 * once more for contrast with the lamp off, and what does not fit a tablet or a phone.
 */
export async function wrongWithScreens(page: Page, shop: TestShop, from: 0 | 1): Promise<string[]> {
  await signIn(page, shop)
  await page.addInitScript(() => localStorage.setItem('echoppe.lamp', 'on'))
  const found: string[] = []
  for (const [name, address] of (await everyScreen(page, shop)).filter((_, place) => place % 2 === from)) {
    await page.setViewportSize({ width: 1280, height: 800 })
    await page.goto(`${shop.url}${address}`)
    await page.waitForLoadState('networkidle')
    await expect(page.locator('h1').first()).toBeVisible()
    found.push(...(await seriousFindings(page, name)))
    await page.getByRole('button', { name: 'Lamp off (dark)' }).click()
    await page.evaluate(colourSettled)
    found.push(...(await seriousFindings(page, `${name}, lamp off`, ['color-contrast'])))
    for (const viewport of [
      { width: 1024, height: 768 },
      { width: 390, height: 844 },
    ]) {
      await page.setViewportSize(viewport)
      const over = await page.evaluate(widerThanItsWindow)
      if (over > 0) found.push(`${name} at ${viewport.width}: ${over} px too wide`)
    }
  }
  return found
}
