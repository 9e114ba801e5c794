import { expect, findJob, signIn, test } from './shop'

test('an engine is taken apart by the pedal: each thing into its cell, what broke into the ledger, undone by one key', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  const id = await findJob(page, scenario, 'Little bus')
  await page.goto(`${scenario.url}/jobs/${id}/strip`)
  const card = page.getByRole('article', { name: /^Step: / })
  await expect(card).toBeVisible({ timeout: 20_000 })
  const first = (await card.getByRole('heading').textContent()) ?? ''
  const tray = page.getByRole('figure').filter({ hasText: 'Steel tray' })
  await expect(tray.getByRole('button', { name: 'A3: the next goes here' })).toBeVisible()

  await page.keyboard.press('PageDown')
  await expect(tray.getByRole('button', { name: `A3: ${first.replace(/ off$/, '')}` })).toBeVisible()
  await expect(card.getByRole('heading')).not.toHaveText(first)

  // Not as planned: two keys, and the owner will hear of it.
  const second = ((await card.getByRole('heading').textContent()) ?? '').replace(/ off$/, '')
  await page.keyboard.press('x')
  await card.getByRole('button', { name: 'Broke here' }).click()
  await expect(page.getByRole('complementary', { name: 'Ledger' })).toContainText(`${second}: broke here`)
  await expect(page.getByRole('region', { name: 'Not as planned' })).toContainText(second)

  await page.keyboard.press('u')
  await expect(page.getByRole('region', { name: 'Not as planned' })).toHaveCount(0)
  await page.keyboard.press('u')
  await expect(card.getByRole('heading')).toHaveText(first)
  // Greasy hands press twice before anything is seen: nothing is sent that the server has to refuse.
  const settle = async (): Promise<number> => {
    // Loaded anew it shows all that was taken, and nothing is still on its way from the keys.
    await page.reload()
    await expect(card).toBeVisible({ timeout: 20_000 })
    await expect(page.getByText(/waiting for the server/)).toHaveCount(0)
    await expect(page.getByText(/refused by the server/)).toHaveCount(0)
    return (await tray.getByRole('button', { name: /^A\d+: (?!empty$|the next goes here$)/ }).count()) - 2
  }
  for (const key of ['PageDown', 'PageDown']) await page.keyboard.press(key)
  await expect(tray.getByRole('button', { name: `A3: ${first.replace(/ off$/, '')}` })).toBeVisible()
  const taken = await settle()
  expect([1, 2]).toContain(taken)
  for (let more = 0; more < taken; more++) await page.keyboard.press('u')
  await expect(card.getByRole('heading')).toBeVisible()
  for (let left = await settle(); left > 0; left--) {
    await page.keyboard.press('u')
    await expect(tray.getByRole('button', { name: /^A\d+: (?!empty$|the next goes here$)/ })).toHaveCount(left + 1)
  }
  await expect(tray.getByRole('button', { name: 'A3: the next goes here' })).toBeVisible()
  await expect(card.getByRole('heading')).toHaveText(first)

  // What holds it otherwise is taught in place, for every one of the type; what lies over it comes off first.
  await page.keyboard.press('x')
  await card.getByRole('button', { name: 'Hidden under a detail' }).click()
  await card.getByLabel('What lies over it').fill('Roof vent')
  await card.getByLabel('What holds that').fill('a push fit')
  await card.getByRole('button', { name: /^On every / }).click()
  await expect(page.getByRole('region', { name: 'What follows' })).toContainText(
    new RegExp(`Roof vent.*${first.replace(/ off$/, '')}`),
  )

  // The search knows what is off.
  await expect(page.getByText(/waiting for the server/)).toHaveCount(0)
  await page.goto(`${scenario.url}/jobs/${id}/find`)
  await expect(page.getByText(/\d parts off/)).toBeVisible({ timeout: 30_000 })
})

test('the way back: each step with its cell, and a test that asks for too much stops it with its usual causes', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  const id = await findJob(page, scenario, 'Taken apart by my nephew')
  await page.goto(`${scenario.url}/jobs/${id}/rebuild`)
  const card = page.getByRole('article', { name: /^Step back: / })
  await expect(card).toBeVisible({ timeout: 20_000 })
  const heading = card.getByRole('heading')
  for (let step = 0; step < 14 && !/^Test with/.test((await heading.textContent()) ?? ''); step++) {
    const before = (await card.textContent()) ?? ''
    await page.keyboard.press('PageDown')
    await expect(card).not.toHaveText(before)
  }
  await expect(heading).toHaveText(/^Test with/)
  await expect(card).toContainText('Expected')
  const name = ((await heading.textContent()) ?? '').replace('Test with ', '')
  await page.getByLabel('Step just done').fill(name.charAt(0).toUpperCase() + name.slice(1))
  await page.getByRole('button', { name: 'Type the current' }).click()
  await page.getByLabel('Volts', { exact: true }).fill('4')
  await page.getByLabel('Current, mA').fill('900')
  await page.getByRole('button', { name: 'forward' }).click()
  await expect(card).toContainText('More than this step may add')
  await expect(card).toContainText('Usual causes here')

  // Prove says what is still in the tray.
  await page.goto(`${scenario.url}/jobs/${id}/prove`)
  await expect(page.getByRole('region', { name: 'Left over' })).toContainText(/things are not back in place/)
})

test('at Prove what is provisional or lies in the tray stops in red, and goes on only by a word', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  const id = await findJob(page, scenario, 'Glen half throttle')
  await page.goto(`${scenario.url}/jobs/${id}/prove`)
  const left = page.getByRole('region', { name: 'Left over' })
  await expect(left).toContainText('Clip lead from the rear bogie', { timeout: 20_000 })
  await left.getByLabel('Why it goes on all the same').fill('only to try the sound')
  await page.keyboard.press('Enter')
  await expect(left).toContainText('Signed off: “only to try the sound”')
  await expect(page.getByText(/waiting for the server/)).toHaveCount(0)
  const labels = await page.request.get(`${scenario.url}/api/jobs/${id}/tray-labels`)
  expect(labels.headers()['content-type']).toBe('application/pdf')
})
