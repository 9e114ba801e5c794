import { expect, signIn, test } from './shop'

test('a motor is followed over the years, and a sheet is judged against its past', async ({ page, scenario }) => {
  await signIn(page, scenario)
  const { rows } = (await (await page.request.get(`${scenario.url}/api/engines?search=orrin seven`)).json()) as {
    rows: Array<{ id: string }>
  }
  await page.goto(`${scenario.url}/engines/${rows[0]?.id}/motor`)
  const history = page.getByRole('region', { name: 'Against its past and the usual' })
  await expect(history).toContainText('What changed most')
  // The demo’s magnet lost a little each year.
  await expect(history.getByRole('listitem').filter({ hasText: 'Magnet' })).toContainText(
    /since \w+ \d{4} −(9\.\d|1\d) %/,
  )
  await expect(page.getByRole('figure')).toHaveCount(4)
  await page
    .getByRole('link', { name: /First run$/ })
    .first()
    .click()
  await expect(page.getByRole('region', { name: 'Against its past and the usual' })).toContainText(
    'drawn towards the class while they are few',
  )
})
