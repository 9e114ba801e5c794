import { seriousFindings, wrongWithScreens } from './screens'
import { expect, test } from './shop'

test('no serious finding on every second screen by either lamp, and each fits a tablet and a phone', async ({
  page,
  scenario,
}) => {
  // Every second screen is opened and gone through by axe in one test.
  test.setTimeout(300_000)
  expect(await wrongWithScreens(page, scenario, 0)).toEqual([])
})

test('no serious finding at the door, by either lamp', async ({ page, scenario }) => {
  for (const lamp of ['on', 'off'] as const) {
    await page.goto(`${scenario.url}/sign-in`)
    await page.evaluate((state) => localStorage.setItem('echoppe.lamp', state), lamp)
    await page.reload()
    await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible()
    expect(await seriousFindings(page, `sign-in, lamp ${lamp}`)).toEqual([])
  }
})
