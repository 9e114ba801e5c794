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
export async function everyScreen(
  page: Page,
  shop: TestShop,
): Promise<Array<readonly [name: string, address: string]>> {
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

export async function openScreen(page: Page, shop: TestShop, address: string): Promise<void> {
  await page.goto(`${shop.url}${address}`)
  await page.waitForLoadState('networkidle')
  await expect(page.locator('h1').first()).toBeVisible()
}

/** What axe finds serious on any screen, by one lamp; by all rules, or by those that are named. */
export async function seriousFindings(
  page: Page,
  shop: TestShop,
  { lamp, rules }: { lamp: 'on' | 'off'; rules?: string[] },
): Promise<string[]> {
  await page.addInitScript((state) => localStorage.setItem('echoppe.lamp', state), lamp)
  await page.goto(`${shop.url}/sign-in`)
  await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible()
  const serious = async (name: string): Promise<string[]> => {
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
  const found = await serious('sign-in')
  await signIn(page, shop)
  for (const [name, address] of await everyScreen(page, shop)) {
    await openScreen(page, shop, address)
    found.push(...(await serious(name)))
  }
  return found
}
