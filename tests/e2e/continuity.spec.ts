import { expect, findJob, signIn, test } from './shop'

test('wheel by wheel: three keys and a pedal fill the sheet, and what it says reaches the search by itself', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  const id = await findJob(page, scenario, 'Old Fjell')
  await page.goto(`${scenario.url}/jobs/${id}/find`)
  await expect(page.getByRole('article', { name: /^(Next: |Mend now|Search ended)/ })).toBeVisible({ timeout: 45_000 })
  await page.keyboard.press('w')
  const card = page.getByRole('article', { name: /^Next reading/ })
  await expect(card.getByRole('heading')).toHaveText(/both probes on its rim$/)
  const cell = (name: string) => page.getByRole('button', { name })

  // The pedal says closed; the rims of the front truck are six.
  const first = await card.getByRole('heading').textContent()
  for (let rim = 0; rim < 6; rim++) {
    const heading = await card.getByRole('heading').textContent()
    await page.keyboard.press('PageDown')
    await expect(card.getByRole('heading')).not.toHaveText(heading ?? '')
  }
  await expect(card.getByRole('heading')).toHaveText(/to its own lead$/)
  // A number that is none gets a sentence, then one that is.
  await page.keyboard.press('3')
  await page.getByLabel('Resistance in ohms').fill('abc')
  await page.keyboard.press('Enter')
  await expect(card.getByText('“abc” is not a number')).toBeVisible()
  await page.getByLabel('Resistance in ohms').fill('0,7')
  await page.keyboard.press('Enter')
  await expect(card.getByText('Carries to its lead.')).toBeVisible()
  for (const key of ['2', '1', '1', '1', '1']) {
    const heading = await card.getByRole('heading').textContent()
    await page.keyboard.press(key)
    await expect(card.getByRole('heading')).not.toHaveText(heading ?? '')
  }
  await expect(page.getByRole('button', { name: /Own lead: open, open$/ })).toBeVisible()
  // Back over the last one and corrected; all stays after a reload.
  await page.keyboard.press('Backspace')
  await expect(page.getByRole('article', { name: /to its own lead$/ })).toContainText('Reading of your choice')
  await page.keyboard.press('1')
  await expect(page.getByText(/waiting for the server/)).toHaveCount(0)
  await page.reload()
  await expect(page.getByRole('button', { name: /Own lead: open, open$/ })).toBeVisible()
  await expect(cell(`${first?.replace(': both probes on its rim', '')}, Rim: closed, sound`)).toBeVisible()

  await page.keyboard.press('s')
  const sheets = page.getByRole('region', { name: 'Told and measured' })
  await expect(sheets).toContainText('Wheel by wheel: treads of the front truck: some of them, 5 of 6 carry', {
    timeout: 30_000,
  })
})

test('over dead track: the engine is pushed along, a contact is said to be dirty, and the remedies are compared', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  const id = await findJob(page, scenario, 'Glen half throttle')
  await page.goto(`${scenario.url}/jobs/${id}/find?view=stall`)
  const verdict = page.getByRole('status').filter({ hasText: /live metal|rides/ })
  await expect(verdict).toContainText('contacts that do not touch')
  const remedies = page.getByRole('table')
  await expect(remedies.getByRole('row', { name: /Clean treads, wheel backs/ })).toContainText('£')
  await expect(remedies.getByRole('row', { name: /Stay-alive capacitor/ })).toContainText('£')
  await expect(page.getByText(/^Cheapest that is enough: clean treads/)).toBeVisible()

  // Where the front stands decides what stands on live metal.
  const reading = page.locator('svg .reading')
  const before = await reading.textContent()
  await page.getByLabel('Where the front of the engine stands').press('Home')
  await expect(reading).not.toHaveText(before ?? '')
  await expect(reading).toContainText('4 and 4 points on live metal')

  // All bright by hand: it rides through, and one press brings back what was measured.
  for (let left = 20; left > 0; left--) {
    const poor = page.getByRole('button', { name: /: (dirty|never touches|dull), / }).first()
    if ((await poor.count()) === 0) break
    await poor.click()
  }
  await expect(verdict).toContainText('rides through')
  await expect(page.getByText('Nothing is needed here.')).toBeVisible()
  await page.getByRole('button', { name: 'Back to what was measured' }).click()
  await expect(verdict).toContainText('contacts that do not touch')
  // A length that is none is taken for the preset’s.
  await page.getByRole('spinbutton').fill('-5')
  await page.getByRole('spinbutton').press('Enter')
  await expect(page.getByRole('spinbutton')).toHaveValue('77')
})
