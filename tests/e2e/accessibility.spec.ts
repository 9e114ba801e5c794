import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import type { TestShop } from '../support/test-shop'
import { expect, findJob, signIn, test } from './shop'

// Every screen is opened and gone through by axe in one test.
test.setTimeout(480_000)

const engineViews = ['', '/path', '/drive', '/pickups', '/parts', '/motor', '/known']

async function engineAddress(page: Page, shop: TestShop): Promise<string> {
  const answer = await page.request.get(`${shop.url}/api/engines?search=saltmark%20230`)
  const { rows } = await answer.json() as { rows: Array<{ id: string }> }
  return `/engines/${rows[0]?.id}`
}

const screens: ReadonlyArray<readonly [name: string, path: string, job?: string]> = [
  ['bench', '/'], ['jobs', '/jobs'], ['take-in', '/take-in'], ['engines and owners', '/engines'], ['instruments', '/instruments'], ['workshop', '/workshop'],
  ['job, take in', '/take-in', 'Cellar find'], ['job, first run', '/first-run', 'Orrin Seven backwards'], ['job, find', '/find', 'Lady of the Vale'], ['job, strip', '/strip', 'Little bus'],
  ['job, mend', '/mend', 'Orrin Seven backwards'], ['job, rebuild', '/rebuild', 'taken apart by my nephew'], ['job, sequence switch', '/first-run', 'will not change over'], ['job, prove', '/prove', 'Cellar find'], ['job, hand back', '/hand-back', 'Cellar find'],
]

for (const lamp of ['on', 'off'] as const) {
  test(`no serious finding on any screen, lamp ${lamp}`, async ({ page, scenario }) => {
    await page.addInitScript((state) => localStorage.setItem('echoppe.lamp', state), lamp)
    await page.goto(`${scenario.url}/sign-in`)
    await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible()
    const serious = async (name: string): Promise<string[]> => {
      const { violations } = await new AxeBuilder({ page }).analyze()
      return violations.filter((violation) => violation.impact === 'serious' || violation.impact === 'critical')
        .map((violation) => `${name}: ${violation.id} ${violation.nodes.map((node) => node.target.join(' ')).slice(0, 3).join(' | ')}`)
    }
    const found = await serious('sign-in')
    await signIn(page, scenario)
    for (const [name, path, job] of screens) {
      const to = job ? `/jobs/${await findJob(page, scenario, job)}${path}` : path
      await page.goto(`${scenario.url}${to}`)
      await page.waitForLoadState('networkidle')
      await expect(page.locator('h1').first()).toBeVisible()
      found.push(...await serious(name))
    }
    const engine = await engineAddress(page, scenario)
    const { owner } = await (await page.request.get(`${scenario.url}/api${engine}`)).json() as { owner: { id: string } }
    for (const to of [...engineViews.map((view) => engine + view), `/owners/${owner.id}`]) {
      await page.goto(`${scenario.url}${to}`)
      await expect(page.locator('h1').first()).toBeVisible()
      found.push(...await serious(to.replace(/[0-9a-f-]{36}/, '')))
    }
    expect(found).toEqual([])
  })
}

test('every screen fits a tablet and a phone without sideways scrolling', async ({ page, scenario }) => {
  await signIn(page, scenario)
  const wide: string[] = []
  for (const viewport of [{ width: 1024, height: 768 }, { width: 390, height: 844 }]) {
    await page.setViewportSize(viewport)
    for (const [name, path, job] of screens) {
      const to = job ? `/jobs/${await findJob(page, scenario, job)}${path}` : path
      await page.goto(`${scenario.url}${to}`)
      await page.waitForLoadState('networkidle')
      const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
      if (over > 0) wide.push(`${name} at ${viewport.width}: ${over} px too wide`)
    }
    const engine = await engineAddress(page, scenario)
    for (const view of engineViews) {
      await page.goto(`${scenario.url}${engine}${view}`)
      await expect(page.locator('h1').first()).toBeVisible()
      const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
      if (over > 0) wide.push(`engine${view} at ${viewport.width}: ${over} px too wide`)
    }
  }
  expect(wide).toEqual([])
})
