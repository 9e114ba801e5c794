import { expect, findJob, signIn, takeInQuickly, test } from './shop'

test('from Clean to Lubricate by keys alone: what is dirty, the card with its refusals, a rule overruled by a word, oil point by point', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  const id = await findJob(page, scenario, 'Orrin Seven backwards')
  await page.goto(`${scenario.url}/jobs/${id}/clean`)
  const card = page.getByRole('article', { name: /^Clean: / })
  // Nothing is said yet and nothing likely: one key asks what is dirty, one key a group says it.
  await expect(page.getByRole('article', { name: 'Everything is clean' })).toBeVisible({ timeout: 20_000 })
  await page.keyboard.press('d')
  const list = page.getByRole('region', { name: 'What is dirty with what' })
  await expect(list).toBeVisible({ timeout: 20_000 })
  await page.keyboard.press('1')
  const body = list.getByRole('listitem').filter({ hasText: 'Body and details' })
  for (let step = 0; step < 30 && (await body.getAttribute('aria-current')) !== 'step'; step++)
    await page.keyboard.press('ArrowDown')
  const oil = body.getByRole('button', { name: /oil film/ })
  const key = ((await oil.textContent()) ?? '').trim().charAt(0)
  await page.keyboard.press(key)
  await expect(oil).toHaveAttribute('aria-pressed', 'true')
  await page.keyboard.press('d')

  // Dust first; the pedal goes on.
  await expect(card.getByRole('heading', { level: 2 })).toHaveText('Everything')
  while ((await card.getByRole('heading', { level: 2 }).textContent()) !== 'Body and details') {
    const before = (await card.textContent()) ?? ''
    await page.keyboard.press('PageDown')
    await expect(card).not.toHaveText(before)
  }
  // A printed shell is not wiped with alcohol; the reason stands beside it, and only a word goes past it.
  const never = page.getByRole('region', { name: 'Never here' })
  await expect(never).toContainText('Isopropyl alcohol')
  await expect(never).toContainText(/Painted|Printed/)
  await expect(card).toContainText('Lukewarm soapy water')
  await never.getByRole('button', { name: 'All the same …' }).first().click()
  await never.getByLabel('Why, in a word').fill('the number is to come off')
  await page.keyboard.press('Enter')
  await expect(card).toContainText('Against the rule: “the number is to come off”')
  await page.keyboard.press('PageDown')
  await expect(page.getByText(/waiting for the server/)).toHaveCount(0)

  await page.goto(`${scenario.url}/jobs/${id}/lubricate`)
  const point = page.getByRole('article', { name: /^Oil: / })
  await expect(point).toBeVisible({ timeout: 20_000 })
  await expect(page.getByRole('region', { name: 'None here' })).toContainText('Grease stops the current')
  const first = (await point.getByRole('heading', { level: 2 }).textContent()) ?? ''
  await page.keyboard.press('Space')
  await expect(point.getByRole('heading', { level: 2 })).not.toHaveText(first)
  await page.keyboard.press('u')
  await expect(point.getByRole('heading', { level: 2 })).toHaveText(first)
})

test('finish is done only where it is wanted: what is near mint is left, unless a word says otherwise, and each wait has its timer', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  const id = await findJob(page, scenario, 'Glen half throttle')
  await page.goto(`${scenario.url}/jobs/${id}/mend`)
  const finish = page.getByRole('region', { name: 'Finish and detail' })
  await finish.getByRole('button', { name: 'Wax the gloss' }).click()
  const wax = finish.getByRole('article', { name: 'Wax the gloss' })
  await expect(wax).toContainText('hidden spot')
  await finish.getByLabel('Near mint').check()
  await expect(wax).toContainText('It is near mint')
  await wax.getByRole('button', { name: 'All the same …' }).click()
  await wax.getByLabel('Why all the same, in a word').fill('the owner insists')
  await page.keyboard.press('Enter')
  await expect(wax).toContainText('All the same: “the owner insists”')
  await wax.getByRole('button', { name: 'Done: step 1' }).click()
  await expect(wax).toContainText('step 2 of 2')
  await expect(page.getByText(/trial spot shows/).first()).toBeVisible()
})

test('a show books hours for a roster in one entry, and what is due stands with its day', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  await page.goto(`${scenario.url}/engines/care`)
  const due = page.getByRole('region', { name: 'What is due' })
  await expect(due.getByRole('row', { name: /Peat/ })).toContainText(/of 24 h/)
  const form = page.getByRole('form', { name: 'Book hours' })
  for (const engine of ['Cellar find', 'Old Fjell']) {
    await form.getByLabel('Engines').fill(engine)
    await page.getByRole('option', { name: new RegExp(engine) }).click()
  }
  await page.keyboard.press('Escape')
  await form.getByLabel('Hours each').fill('6,5')
  await form.getByLabel('At which show, if any').fill('Harbour festival')
  await form.getByRole('button', { name: 'Book it' }).click()
  for (const engine of ['Cellar find', 'Old Fjell'])
    await expect(due.getByRole('row', { name: new RegExp(engine) })).toContainText('Harbour festival')
})

test('what the shop does otherwise is entered in words and stands on the next card; what harms is not taken', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  await page.goto(`${scenario.url}/workshop`)
  const panel = page.getByRole('region', { name: 'Cleaned and oiled otherwise here' })
  const harms = panel.getByRole('region', { name: 'What harms here, and what does not' })
  const first = panel.getByRole('region', { name: 'What is taken first' })
  const choose = async (place: typeof panel, label: string, words: string): Promise<void> => {
    const field = place.locator('input').and(place.getByLabel(label, { exact: true }))
    await field.fill(words)
    await page.getByRole('option', { name: words, exact: true }).click()
    await expect(field).toHaveValue(words)
  }
  await choose(harms, 'Agent or tool', 'Isopropyl alcohol')
  await choose(harms, 'On what', 'Commutator and gaps')
  await harms.getByLabel('Because').fill('Ours leaves a film.')
  await harms.getByRole('button', { name: 'Add' }).click()
  await expect(harms.getByRole('listitem').last()).toContainText(/never.*Isopropyl alcohol.*ours leaves a film/)

  await choose(first, 'Against', 'Oxide and tarnish')
  await choose(first, 'On which surface', 'Treads')
  await choose(first, 'Tool', 'Steel wool')
  await first.getByRole('button', { name: 'Add' }).click()
  await expect(panel.getByRole('alert')).toContainText('harms it (Treads)')
  await expect(first.getByText('Steel wool against')).toHaveCount(0)
  await expect(page.getByText(/waiting for the server/)).toHaveCount(0)

  const id = await findJob(page, scenario, 'Orrin Seven backwards')
  await page.goto(`${scenario.url}/jobs/${id}/clean`)
  await expect(page.getByRole('article').first()).toBeVisible({ timeout: 20_000 })
  await page.keyboard.press('d')
  const list = page.getByRole('region', { name: 'What is dirty with what' })
  const gaps = list.getByRole('listitem').filter({ hasText: 'Commutator' })
  await gaps.getByText('Commutator').click()
  await gaps.getByRole('button', { name: /carbon/ }).click()
  await page.keyboard.press('d')
  const never = page.getByRole('region', { name: 'Never here' })
  await expect(never).toContainText(/ours leaves a film/i)
})

test('a finding noted by hand is named from what this engine can have, and has its remedy', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  const id = await takeInQuickly(page, scenario, 'Quay tank')
  await page.goto(`${scenario.url}/jobs/${id}/mend`)
  await expect(page.getByText('Nothing is confirmed yet')).toBeVisible()
  await page.keyboard.press('f')
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('What', { exact: true }).fill('Gear split')
  await dialog.getByRole('radio', { name: 'Confirmed' }).click()
  await dialog.getByRole('button', { name: 'Keep' }).click()
  const card = page.getByRole('article', { name: 'Mend: Gear split' })
  await card.getByRole('group', { name: 'Which is it' }).getByRole('button').first().click()
  await expect(card.getByRole('radiogroup')).toBeVisible()
  await expect(card.getByRole('radio')).toHaveCount(3)
  await expect(card.getByText('this shop’s way')).toBeVisible()

  // Mended by the pedal; that it holds is proved by one act, one key away.
  await page.keyboard.press('PageDown')
  await expect(page.getByRole('region', { name: 'Not proved yet' })).toContainText('one act proves it')
  await page.keyboard.press('r')
  await expect(page).toHaveURL(/\/find$/)
})
