import { expect, findJob, signIn, test } from './shop'

test('a key costs one request, and another screen at the same job learns of it by itself', async ({
  page,
  browser,
  scenario,
}) => {
  await signIn(page, scenario)
  const id = await findJob(page, scenario, 'Orrin Seven backwards')
  const elsewhere = await (await browser.newContext()).newPage()
  await signIn(elsewhere, scenario)
  for (const screen of [page, elsewhere]) {
    await screen.goto(`${scenario.url}/jobs/${id}/find`)
    await expect(screen.getByRole('region', { name: 'How it was found' })).toBeVisible({ timeout: 30_000 })
  }
  await expect(page.getByRole('article', { name: /^(Next: |Mend now|Search ended)/ })).toBeVisible({ timeout: 30_000 })

  const asked: string[] = []
  page.on('request', (request) => {
    const { pathname } = new URL(request.url())
    // The shop's waits are asked for every ten seconds, whatever is pressed.
    if (pathname.startsWith('/api/') && pathname !== '/api/timers') asked.push(`${request.method()} ${pathname}`)
  })
  await page.keyboard.press('f')
  await page.getByRole('dialog').getByLabel('What', { exact: true }).fill('Lead rubs on the flywheel')
  await page.keyboard.press('Enter')
  await expect(elsewhere.getByRole('complementary', { name: 'Ledger' })).toContainText('Lead rubs on the flywheel')
  await expect(page.getByText(/waiting for the server/)).toHaveCount(0)
  await expect(page.getByRole('complementary', { name: 'Ledger' })).toContainText('Lead rubs on the flywheel')
  expect(asked).toEqual(['POST /api/commands/finding.save'])
  await elsewhere.context().close()
})
