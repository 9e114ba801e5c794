import { expect, test as base, type Page } from '@playwright/test'
import { v7 as newId } from 'uuid'
import { emptyEngine, emptyJob, emptyOwner, emptyType } from '../../app/forms/empty-entries'
import type { CommandPayload } from '../../messages/commands'
import { PASSWORD, TestShop } from '../support/test-shop'

/** One shop per worker and kind of contents, opened when a test first asks for it. */
export const test = base.extend<object, { scenario: TestShop; workshop: TestShop }>({
  scenario: [
    async ({ playwright: _needed }, use) => {
      const shop = await TestShop.open('scenario')
      await use(shop)
      await shop.close()
    },
    { scope: 'worker', timeout: 300_000 },
  ],
  workshop: [
    async ({ playwright: _needed }, use) => {
      const shop = await TestShop.open('workshop')
      await use(shop)
      await shop.close()
    },
    { scope: 'worker', timeout: 300_000 },
  ],
})

export { expect }

/** Signs in as a person does, and stands at the Bench. */
export async function signInByForm(page: Page, shop: TestShop, path = '/sign-in'): Promise<void> {
  await page.goto(`${shop.url}${path}`)
  await page.getByLabel('Name').fill('maren')
  await page.getByLabel('Password').fill(PASSWORD)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('navigation', { name: 'Places' })).toBeVisible()
}

/** Signs in by the request the form makes, with no screen loaded yet: most tests begin somewhere else. */
export async function signIn(page: Page, shop: TestShop): Promise<void> {
  const answer = await page.request.post(`${shop.url}/api/session`, {
    data: { signInName: 'maren', password: PASSWORD },
    headers: { origin: shop.url },
  })
  expect(answer.status()).toBe(200)
}

/** The id of the job with this number or these words. */
export async function findJob(page: Page, shop: TestShop, search: string): Promise<string> {
  const answer = await page.request.get(`${shop.url}/api/jobs?search=${encodeURIComponent(search)}&sort=number`)
  const { rows } = (await answer.json()) as { rows: Array<{ id: string }> }
  const id = rows[0]?.id
  if (!id) throw new Error(`No job for “${search}”.`)
  return id
}

/** Takes in an engine of a new owner and type by the request the form makes, and stands at First run. */
export async function takeInQuickly(page: Page, shop: TestShop, nickname: string): Promise<string> {
  const jobId = newId()
  const payload: CommandPayload<'job.take-in'> = {
    jobId,
    owner: { made: { id: newId(), fields: { ...emptyOwner(), name: 'Ines Carvalhal' } } },
    type: { made: { id: newId(), fields: { ...emptyType(), maker: 'Kestering', name: 'Orrin tank' } } },
    engine: { made: { id: newId(), fields: { ...emptyEngine(), nickname } } },
    job: { ...emptyJob(), complaint: 'Hesitates backwards' },
  }
  const answer = await page.request.post(`${shop.url}/api/commands/job.take-in`, {
    data: { commandId: newId(), capturedAt: new Date().toISOString(), payload },
    headers: { origin: shop.url },
  })
  expect(answer.status(), await answer.text()).toBe(200)
  await page.goto(`${shop.url}/jobs/${jobId}/first-run`)
  await expect(page.getByRole('heading', { level: 1, name: nickname })).toBeVisible()
  return jobId
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
