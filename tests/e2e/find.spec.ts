import { expect, findJob, signIn, takeInQuickly, test } from './shop'

test('a search goes from act to act by its keys: what is seen is noted a row each, found, mended and proved by one run', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  const id = await findJob(page, scenario, 'Lady of the Vale')
  await page.goto(`${scenario.url}/jobs/${id}/find`)
  const suspects = page.getByRole('region', { name: 'Suspects' })
  const trail = page.getByRole('region', { name: 'How it was found' })
  const card = page.getByRole('article', { name: /^Next: / })
  const rows = card.getByRole('list', { name: 'What can be noted' }).getByRole('listitem')
  const steps = trail.getByRole('listitem')
  // Wheel by wheel and by eye the tender's treads are as good as found: mended, or looked on instead.
  await expect(page.getByRole('article', { name: 'Mend now' })).toContainText('Clean treads', { timeout: 30_000 })
  await page.keyboard.press('a')
  await expect(card).toBeVisible({ timeout: 30_000 })
  await expect(suspects.getByRole('listitem').first()).toContainText('treads')
  const before = await steps.count()

  // Before the faults, the chain from the rails to the wheels: what is left of it, and what is out of it.
  const chain = page.getByRole('list', { name: 'The chain, and what is left of it' })
  await expect(chain.getByRole('listitem').filter({ hasText: /^Treads/ })).toContainText(/9\d\s%tender axles/)
  await expect(chain.getByRole('listitem').filter({ hasText: /^Leads/ })).toHaveText(/out of it|nothing points there/)

  // The drawing bears the suspicion by sign and words, not by colour alone.
  await expect(
    page.getByRole('button', { name: /^Tread of the first tender axle, left, suspected with \d\d %$/ }),
  ).toBeVisible()

  // One row by its key: it is written at once, the card stays, and the next row has the keys.
  const act = await card.getByRole('heading').first().textContent()
  await page.keyboard.press('1')
  await expect(steps).toHaveCount(before + 1)
  await expect(card.getByRole('heading').first()).toHaveText(act ?? '')
  await expect(rows.first().getByRole('button', { pressed: true })).toHaveCount(1)
  await expect(rows.first()).not.toHaveAttribute('aria-current')
  // The pedal backwards takes it back and does not leave the search; noted again, it counts again.
  await page.keyboard.press('Backspace')
  await expect(rows.first().getByRole('button', { pressed: true })).toHaveCount(0)
  await expect(page).toHaveURL(/find$/)
  await expect(rows.first()).toHaveAttribute('aria-current')
  await page.keyboard.press('1')
  await expect(rows.first().getByRole('button', { pressed: true })).toHaveCount(1)
  // Enter: the rest as it should; then something else is next.
  const shown = await rows.count()
  await page.keyboard.press('Enter')
  await expect.poll(() => steps.count()).toBeGreaterThanOrEqual(before + shown)
  await expect(
    page.getByRole('article', { name: new RegExp(`^Next: ${act ?? ''}$`) }).getByRole('button', { pressed: true }),
  ).toHaveCount(0)

  // Something else than advised, and one that cannot be done.
  await expect(page.getByRole('article', { name: /^(Next: |Mend now)/ })).toBeVisible({ timeout: 20_000 })
  await page.keyboard.press('a')
  await expect(page.getByText('Of your choice')).toBeVisible({ timeout: 20_000 })
  await page.keyboard.press('n')
  await expect(steps.first()).toContainText('Could not be done', { timeout: 20_000 })
  await expect(page.getByText('Of your choice')).toHaveCount(0)

  // What is before one's eyes is said by a word, found in the same key, and stands in the ledger.
  await page.keyboard.press('v')
  await page.keyboard.type('tyre missing')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('complementary', { name: 'Ledger' })).toContainText('missing tyre', { timeout: 20_000 })
  const missing = suspects.getByRole('listitem').filter({ hasText: 'A missing tyre' })
  await expect(missing).toContainText('seen', { timeout: 20_000 })
  // Taken back with the finding it made, and said again.
  const ledger = page.getByRole('complementary', { name: 'Ledger' })
  await page.keyboard.press('u')
  await expect(missing.filter({ hasText: 'seen' })).toHaveCount(0, { timeout: 20_000 })
  await expect(ledger).toContainText('Ruled out')
  await page.keyboard.press('v')
  await page.keyboard.type('tyre missing')
  await page.keyboard.press('Enter')
  await expect(missing).toContainText('seen', { timeout: 20_000 })
  await missing.getByRole('button', { name: /Mended/ }).click()
  await expect(card.getByRole('heading').first()).toHaveText('Power on the track, both ways', { timeout: 20_000 })
  // The pedal backwards takes back a repair as well, in the ledger too; mended again it asks for the run once more.
  await expect(ledger).toContainText('Mended')
  await page.keyboard.press('Backspace')
  await expect(missing).toContainText('seen', { timeout: 20_000 })
  await expect(ledger).not.toContainText('Mended')
  await missing.getByRole('button', { name: /Mended/ }).click()
  await expect(card.getByRole('heading').first()).toHaveText('Power on the track, both ways', { timeout: 20_000 })
  await expect(card).toContainText('one run says whether that was it, and whether it was all')

  // Struck out, not erased; and all of it is there after a reload.
  const many = await steps.count()
  await steps.nth(2).getByRole('button').first().click()
  await trail.getByRole('button', { name: 'Strike it out' }).click()
  await expect(page.getByText(/waiting for the server/)).toHaveCount(0)
  await page.reload()
  await expect(steps).toHaveCount(many, { timeout: 20_000 })
  await steps.nth(2).getByRole('button').first().click()
  await expect(trail.getByText(/^Believed until then: /)).toBeVisible()
})

test('what is known of the engine changes the advice, and a generic machine is called one', async ({
  page,
  workshop,
}) => {
  await signIn(page, workshop)
  const id = await takeInQuickly(page, workshop, 'Nobody knows')
  await page.goto(`${workshop.url}/jobs/${id}/find`)
  await expect(page.getByText('a generic machine stands in')).toBeVisible()
  const suspects = page.getByRole('region', { name: 'Suspects' })
  await expect(suspects).toBeVisible({ timeout: 30_000 })
  const chanceOf = async (words: string): Promise<number> =>
    Number(
      (
        await suspects
          .getByRole('button', { name: new RegExp(words) })
          .first()
          .textContent()
      )?.match(/(\d+)\s%/)?.[1],
    )
  const before = await chanceOf('reads of the')
  await page.getByText('What is known').click()
  await page.getByLabel('Stored damp').check()
  await expect.poll(() => chanceOf('reads of the'), { timeout: 20_000 }).toBeGreaterThan(before)
  await expect(page.getByRole('region', { name: 'How it was found' })).toContainText('damp store')
})

test('at the end of a search the pedal backwards takes back its last step and stays there', async ({
  page,
  scenario,
}) => {
  test.slow()
  await signIn(page, scenario)
  const id = await findJob(page, scenario, 'Cellar find')
  await page.goto(`${scenario.url}/jobs/${id}/find`)
  await expect(page.getByRole('article', { name: 'Search ended' })).toBeVisible({ timeout: 60_000 })
  const steps = page.getByRole('region', { name: 'How it was found' }).getByRole('listitem')
  const words = await steps.first().locator('.words').textContent()
  await expect(steps.first()).not.toHaveClass(/struck/)
  await page.keyboard.press('Backspace')
  await expect(steps.filter({ hasText: words ?? '' }).first()).toHaveClass(/struck/)
  await expect(page).toHaveURL(/\/find$/)
  await expect(page.getByText(/waiting for the server/)).toHaveCount(0)
})
