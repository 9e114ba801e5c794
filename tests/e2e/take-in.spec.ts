import { expect, signIn, test } from './shop'

test('a machine nobody knows is recognised by three drawings, and what is told and wanted goes on to search and strip', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  await page.goto(`${scenario.url}/take-in`)
  await page.getByRole('button', { name: 'A new owner' }).click()
  await page.getByLabel('Name').first().fill('Ilse Brandow')
  await page.getByRole('button', { name: 'An engine not in the book yet' }).click()
  await page.getByRole('button', { name: 'A new type' }).click()
  await page.getByLabel('Maker').fill('Unknown maker')
  await page.getByLabel('Type', { exact: true }).fill('Dock tank')

  // Two answers leave three machines; what tells them apart stands on each.
  await page.getByRole('button', { name: 'Axles in the frame, joined by rods, all resist' }).click()
  await page.getByRole('button', { name: 'Wipers on one side, the frame on the other' }).click()
  await expect(page.getByText('3 are so')).toBeVisible()
  await page.getByRole('button', { name: /^Tank engine with an open-frame motor .*Its brushes are to be seen/ }).click()

  // What is told is tapped; of two answers to one question the last counts. Its past is read from the words.
  await page.getByLabel(/^Complaint/).fill('Ten years in a damp cellar, now it does not go')
  const does = page.getByRole('group', { name: 'What it does, as told' })
  await does.getByRole('button', { name: 'Falters, stops and starts' }).click()
  await does.getByRole('button', { name: 'Does not move' }).click()
  await expect(does.getByRole('button', { pressed: true })).toHaveText(['Does not move'])
  await page
    .getByRole('group', { name: 'What is seen over the counter' })
    .getByRole('button', { name: 'Wheels black' })
    .click()
  await expect(page.getByRole('group', { name: 'Its past' }).getByRole('button', { pressed: true })).toHaveText([
    'Stored damp',
    'Idle ten years or more',
  ])
  await page.getByLabel('What the owner wants').fill('Decoder and sound')
  await page.getByRole('button', { name: /^Take it in/ }).click()
  await expect(page).toHaveURL(/\/jobs\/[^/]+\/first-run/)
  await expect(page.getByText(/waiting for the server/)).toHaveCount(0)
  const job = page.url().replace('/first-run', '')

  await page.goto(`${job}/find`)
  const told = page.getByRole('region', { name: 'Told and measured' })
  await expect(told).toContainText('Does not move', { timeout: 30_000 })
  await expect(told).toContainText('Seen at take-in')
  await expect(page.getByRole('region', { name: 'Suspects' }).getByRole('listitem').first()).toContainText('treads')

  // The wish is a goal by one key; what follows is put in another order by dragging, and by its arrow.
  await page.goto(`${job}/strip`)
  await page
    .getByRole('region', { name: 'The job asks for' })
    .getByRole('button', { name: /Fit a decoder/ })
    .click()
  const rows = page.getByRole('region', { name: 'What follows' }).getByRole('listitem')
  const card = page.getByRole('article', { name: /^Step: / })
  await expect(card).toBeVisible()
  const first = (await card.getByRole('heading').textContent()) ?? ''
  await page.keyboard.press('n')
  await expect(card.getByRole('heading')).not.toHaveText(first)
  await expect(rows.first()).toContainText(first.replace(/ off$/, ''))
})

test('a closed motor that opens is said where the search stands, and its commutator can be looked at', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  const { rows } = (await (await page.request.get(`${scenario.url}/api/jobs?pageSize=100`)).json()) as {
    rows: Array<{ id: string; station: string }>
  }
  expect(rows.length).toBeGreaterThan(10)
  for (const row of rows.filter((entry) => entry.station === 'find')) {
    await page.goto(`${scenario.url}/jobs/${row.id}/find`)
    await expect(page.getByRole('region', { name: 'Suspects' })).toBeVisible({ timeout: 30_000 })
    if ((await page.getByRole('button', { name: 'This one opens' }).count()) > 0) break
  }
  await page.getByRole('button', { name: 'This one opens' }).click()
  await expect(page.getByRole('button', { name: 'This one opens' })).toHaveCount(0)
  await page.keyboard.press('v')
  await page.keyboard.type('commutator black')
  await expect(page.getByRole('option').first()).toContainText('Look at the commutator')
})

test('what is too long or too large is said at its field, and nothing leaves the form before it is put right', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  await page.goto(`${scenario.url}/take-in`)
  await page.getByRole('button', { name: 'A new owner' }).click()
  await page.getByLabel('Name').first().fill('Ottilie Farnsworthy')
  await page.getByLabel('Telephone').fill('1'.repeat(61))
  await page.getByRole('button', { name: 'An engine not in the book yet' }).click()
  await page.getByRole('button', { name: 'A new type' }).click()
  await page.getByLabel('Maker').fill('Unknown maker')
  await page.getByLabel('Type', { exact: true }).fill('Harbour tank')
  await page.getByLabel('Driven wheel diameter (mm)').fill('-3')
  await page.getByLabel('Motor turns per wheel turn').fill('some twenty')
  await page.getByLabel(/^Complaint/).fill('Growls')
  await expect(page.getByText('“some twenty” cannot be read here: it is left out.')).toBeVisible()
  const takeIn = page.getByRole('button', { name: /^Take it in/ })
  await takeIn.click()
  await expect(page.getByText('This is longer than 60 characters.')).toBeVisible()
  await expect(page.getByText('This must be above 0.')).toBeVisible()
  await expect(page).toHaveURL(/\/take-in$/)

  // The check is a file like any other: when it cannot be had the server refuses, and every word comes back.
  await page.route('**/_nuxt/*.js', async (route) => {
    const answer = await route.fetch()
    const isTheCheck = (await answer.text()).includes('#/properties/owner/anyOf')
    await (isTheCheck ? route.abort() : route.fulfill({ response: answer }))
  })
  await page.reload()
  await expect(page.getByLabel('Telephone')).toHaveValue('1'.repeat(61))
  await takeIn.click()
  await page.getByRole('button', { name: 'Look and mend' }).click()
  await expect(page.getByText('“phone” is longer than 60 characters.')).toBeVisible()
  await page.getByRole('button', { name: 'Put it back in its form' }).click()
  await expect(page).toHaveURL(/\/take-in$/)
  await expect(page.getByLabel('Telephone')).toHaveValue('1'.repeat(61))
  await page.unrouteAll({ behavior: 'ignoreErrors' })
  await page.getByLabel('Telephone').fill('0102 334455')
  await page.getByLabel('Driven wheel diameter (mm)').fill('14,2')
  await takeIn.click()
  await expect(page).toHaveURL(/\/jobs\/[^/]+\/first-run/)
  await expect(page.getByText('Growls').first()).toBeVisible()
  await expect(page.getByText(/refused by the server/)).toHaveCount(0)
})

test('a second press while the form is still being checked takes nothing in twice', async ({ page, workshop }) => {
  await signIn(page, workshop)
  await page.goto(`${workshop.url}/take-in`)
  await page.getByRole('button', { name: 'A new owner' }).click()
  await page.getByLabel('Name').first().fill('Perpetua Lindqvist-Oda')
  await page.getByRole('button', { name: 'An engine not in the book yet' }).click()
  await page.getByRole('button', { name: 'A new type' }).click()
  await page.getByLabel('Maker').fill('Unknown maker')
  await page.getByLabel('Type', { exact: true }).fill('Quarry tank')
  await page.getByLabel(/^Complaint/).fill('Ticks')
  let letGo = (): void => {}
  const held = new Promise<void>((resolve) => (letGo = resolve))
  await page.route('**/_nuxt/*.js', async (route) => {
    const answer = await route.fetch()
    if ((await answer.text()).includes('#/properties/owner/anyOf')) await held
    await route.fulfill({ response: answer })
  })
  const takeIn = page.getByRole('button', { name: /^Take it in/ })
  await takeIn.click()
  await takeIn.click()
  letGo()
  await expect(page).toHaveURL(/\/jobs\/[^/]+\/first-run/)
  await expect(page.getByText(/waiting for the server|refused by the server/)).toHaveCount(0)
  const { rows } = (await (await page.request.get(`${workshop.url}/api/jobs?search=Quarry`)).json()) as {
    rows: unknown[]
  }
  expect(rows).toHaveLength(1)
  await page.unrouteAll({ behavior: 'ignoreErrors' })
})
