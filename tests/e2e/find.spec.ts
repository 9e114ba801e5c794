import { expect, findJob, signIn, takeInQuickly, test } from './shop'

test('a search goes from test to test by its keys, a suspect is seen, mended and retested, and nothing is lost', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  const id = await findJob(page, scenario, 'Lady of the Vale')
  await page.goto(`${scenario.url}/jobs/${id}/find`)
  const suspects = page.getByRole('region', { name: 'Suspects' })
  const trail = page.getByRole('region', { name: 'How it was found' })
  const card = page.getByRole('article', { name: /^Next test/ })
  const mend = page.getByRole('article', { name: 'Mend now' })
  await expect(card).toBeVisible({ timeout: 30_000 })
  await expect(suspects.getByRole('listitem').first()).toContainText('reads of the tender axles')
  const before = await trail.getByRole('listitem').count()

  // Before the faults, the part of the chain.
  const chances = (
    await page
      .getByRole('list', { name: 'Where in the chain something is wrong' })
      .getByRole('listitem')
      .allTextContents()
  ).map((text) => ({ part: text.replace(/\s*\d+ %\s*$/, ''), chance: Number(/(\d+) %/.exec(text)?.[1]) }))
  const [likeliest] = chances.toSorted((one, other) => other.chance - one.chance)
  expect(likeliest?.part).toBe('Pickup')
  expect(likeliest?.chance).toBeGreaterThan(70)

  // The drawing bears the suspicion by sign and words, not by colour alone.
  await expect(
    page.getByRole('button', { name: /^Tread of the first tender axle, left, suspected with \d\d %$/ }),
  ).toBeVisible()

  // Another test than the one advised.
  await page.keyboard.press('a')
  const chosen = page.getByRole('article').filter({ hasText: 'Test of your choice' })
  const name = await chosen.getByRole('heading').first().textContent()
  await page.keyboard.press('1')
  await expect(trail.getByRole('listitem')).toHaveCount(before + 1)
  await expect(trail.getByRole('listitem').first()).toContainText(name ?? 'nothing')
  await expect(chosen).toHaveCount(0)

  // Another than the advised one, and one that cannot be done.
  await page.keyboard.press('a')
  await expect(page.getByRole('article').getByText('Test of your choice')).toBeVisible()
  const refused = await page.getByRole('article').getByRole('heading').first().textContent()
  await page.keyboard.press('n')
  await expect(trail.getByRole('listitem').first()).toContainText('Could not be done')
  await expect(page.getByText('Test of your choice')).toHaveCount(0)
  await expect(page.getByRole('article').getByRole('heading').first()).not.toHaveText(refused ?? '')

  // Seen beyond doubt: it goes to the ledger and is to be mended, then tested again.
  await suspects
    .getByRole('button', { name: /reads of the tender axles/ })
    .first()
    .click()
  await suspects.getByRole('button', { name: 'It is so' }).first().click()
  await expect(mend).toContainText('Clean treads and wheel backs', { timeout: 20_000 })
  await expect(
    page
      .getByRole('complementary')
      .getByText('on the treads of the tender axles')
      .or(page.getByText('Dirt or oxide on the treads of the tender axles').first())
      .first(),
  ).toBeVisible()
  await mend.getByRole('button', { name: /Mended, now the retest/ }).click()
  await expect(card.getByRole('heading')).toHaveText('Run it on the track', { timeout: 20_000 })
  await expect(card).toContainText('the retest says whether that was it')
  await page.keyboard.press('2')
  await expect(trail.getByRole('listitem').first()).toContainText('Run it on the track: falters or crawls')

  // Struck out, not erased; and all of it is there after a reload.
  await trail.getByRole('listitem').first().getByRole('button').first().click()
  await trail.getByRole('button', { name: 'Strike it out' }).click()
  await expect(card.getByRole('heading')).toHaveText('Run it on the track', { timeout: 20_000 })
  const steps = await trail.getByRole('listitem').count()
  await expect(page.getByText(/waiting for the server/)).toHaveCount(0)
  await page.reload()
  await expect(trail.getByRole('listitem')).toHaveCount(steps, { timeout: 20_000 })
  await trail.getByRole('listitem').nth(1).getByRole('button').first().click()
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
      )?.match(/(\d+) %/)?.[1],
    )
  const before = await chanceOf('reads of the')
  await page.getByText('What is known').click()
  await page.getByLabel('Stored damp').check()
  await expect.poll(() => chanceOf('reads of the'), { timeout: 20_000 }).toBeGreaterThan(before)
  await expect(page.getByRole('region', { name: 'How it was found' })).toContainText('damp store')
})
