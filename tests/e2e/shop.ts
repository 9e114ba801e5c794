import { expect, test as base, type Page } from '@playwright/test'
import { PASSWORD, TestShop } from '../support/test-shop'

/** One shop per worker and kind of contents, opened when a test first asks for it. */
export const test = base.extend<object, { scenario: TestShop; workshop: TestShop }>({
  scenario: [
    async ({ playwright: _needed }, use) => {
      const shop = await TestShop.open('scenario')
      await use(shop)
      await shop.close()
    },
    { scope: 'worker', timeout: 120_000 },
  ],
  workshop: [
    async ({ playwright: _needed }, use) => {
      const shop = await TestShop.open('workshop')
      await use(shop)
      await shop.close()
    },
    { scope: 'worker', timeout: 120_000 },
  ],
})

export { expect }

export async function signIn(page: Page, shop: TestShop, name = 'maren'): Promise<void> {
  await page.goto(`${shop.url}/sign-in`)
  await page.getByLabel('Name').fill(name)
  await page.getByLabel('Password').fill(PASSWORD)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('navigation', { name: 'Places' })).toBeVisible()
}

/** The id of the job with this number or these words. */
export async function findJob(page: Page, shop: TestShop, search: string): Promise<string> {
  const answer = await page.request.get(`${shop.url}/api/jobs?search=${encodeURIComponent(search)}&sort=number`)
  const { rows } = (await answer.json()) as { rows: Array<{ id: string }> }
  const id = rows[0]?.id
  if (!id) throw new Error(`No job for “${search}”.`)
  return id
}

/** Takes in an engine of a new owner and type with the fewest words, and stands at First run. */
export async function takeInQuickly(page: Page, shop: TestShop, nickname: string): Promise<string> {
  await page.goto(`${shop.url}/take-in`)
  await page.getByRole('button', { name: 'A new owner' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Ines Carvalhal')
  await page.getByRole('button', { name: 'An engine not in the book yet' }).click()
  await page.getByRole('button', { name: 'A new type' }).click()
  await page.getByLabel('Maker').fill('Kestering')
  await page.getByLabel('Type', { exact: true }).fill('Orrin tank')
  await page.getByLabel('Nickname at the bench').fill(nickname)
  await page.getByLabel('Complaint, in the owner’s words').fill('Hesitates backwards')
  await page.getByRole('button', { name: 'Take it in' }).click()
  await page.waitForURL(/\/jobs\/[0-9a-f-]{36}\/first-run/)
  await expect(page.getByRole('heading', { level: 1, name: nickname })).toBeVisible()
  return /\/jobs\/([0-9a-f-]{36})/.exec(page.url())?.[1] ?? ''
}

/** Types one line of readings into the pad. */
export async function typeReading(page: Page, volts: string, milliamps: string): Promise<void> {
  await page.getByLabel('Volts in V').fill(volts)
  await page.getByLabel('Current in mA').fill(milliamps)
  await page.getByLabel('Current in mA').press('Enter')
}

/** Lines that stand on the sheet. */
export function lines(page: Page) {
  return page.getByRole('list', { name: 'Readings' }).getByRole('listitem')
}
