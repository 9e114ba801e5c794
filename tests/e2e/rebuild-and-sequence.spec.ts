import { expect, signIn, test } from './shop'

test('a step of the rebuild is tested at the press of a key, and held against the one before', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  const { rows } = (await (
    await page.request.get(`${scenario.url}/api/jobs?search=${encodeURIComponent('taken apart by my nephew')}`)
  ).json()) as { rows: Array<{ id: string }> }
  await page.goto(`${scenario.url}/jobs/${rows[0]?.id}/rebuild`)
  const tested = page.getByRole('region', { name: 'Steps tested' })
  await expect(tested.getByRole('listitem').filter({ hasText: 'Rear truck with the cracked muff' })).toContainText(
    /Up by 4\d % with/,
  )
  await page.getByRole('button', { name: 'Test with the supply' }).click()
  await expect(page.getByRole('alert')).toHaveText('Say which step was just done.')
  await page.getByLabel('Step just done').fill('Rear truck, new muff')
  await page.getByRole('button', { name: 'Test with the supply' }).click()
  await expect(page.getByText('Red to the five-pole motor, plus terminal')).toBeVisible()
  await page.keyboard.press('PageDown')
  await expect(page.getByRole('status').filter({ hasText: 'Which way does it turn?' })).toBeVisible({ timeout: 20_000 })
  await page.keyboard.press('2')
  const step = tested.getByRole('listitem').filter({ hasText: 'Rear truck, new muff' })
  await expect(step).toContainText('It turns the other way since “Rear truck, new muff”', { timeout: 20_000 })

  // The same by hand, from any meter.
  await page
    .getByRole('region', { name: 'Test: Rear truck, new muff' })
    .getByRole('button', { name: 'Back to the sheet' })
    .click()
  await page.getByLabel('Step just done').fill('Leads the right way')
  await page.getByRole('button', { name: 'Type the current' }).click()
  await page.getByRole('button', { name: 'forward' }).click()
  await expect(page.getByRole('alert')).toHaveText('Type the volts as well.')
  await page.getByRole('button', { name: 'Leave' }).click()
  await page.getByLabel('Step just done').fill('Leads the right way')
  await page.getByRole('button', { name: 'Type the current' }).click()
  // Opened, it has the keys at once; whoever goes on to the second field is not pulled back out of it.
  await page.getByLabel('Current, mA').pressSequentially('eighty', { delay: 30 })
  await expect(page.getByLabel('Current, mA')).toHaveValue('eighty')
  await page.getByLabel('Volts').fill('4')
  await page.getByRole('button', { name: 'forward' }).click()
  await expect(page.getByRole('alert')).toBeVisible()
  await page.getByLabel('Current, mA').fill('80')
  await page.getByRole('button', { name: 'forward' }).click()
  await expect(tested.getByRole('listitem').filter({ hasText: 'Leads the right way' })).toContainText('forward, typed')
})

test('a sequence switch is tested, its missed steps named, a wound field told by AC and DC together', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  const { rows } = (await (
    await page.request.get(`${scenario.url}/api/jobs?search=${encodeURIComponent('will not change over')}`)
  ).json()) as { rows: Array<{ id: string }> }
  await page.goto(`${scenario.url}/jobs/${rows[0]?.id}/first-run`)
  await expect(page.getByRole('region', { name: 'Sequence switch' })).toContainText(
    'Of 8 interruptions 2 moved nothing.',
  )
  await page.getByRole('button', { name: 'Sheet 3 meter' }).click()
  const figures = page.getByRole('region', { name: 'What the readings say' })
  await expect(figures).toContainText('Reactance on AC')
  await expect(figures).toContainText(/Stalled at 16 V AC/)

  await page.getByRole('button', { name: 'Test the sequence switch' }).click()
  await expect(page.getByText(/^Black to the/)).toBeVisible()
  await page.keyboard.press('PageDown')
  const says = page.getByRole('region', { name: 'Test the sequence switch' }).getByRole('status')
  await expect(says).toContainText('as it was found', { timeout: 20_000 })
  await page.keyboard.press('3')
  await expect(says).toContainText('Interruption 1: what does it do?', { timeout: 20_000 })
  await page.keyboard.press('Escape')
  await expect(page.getByRole('status').filter({ hasText: 'Stopped. The output is off' })).toBeVisible({
    timeout: 20_000,
  })

  // The first sheet of a station offers what this machine can as soon as the server has it.
  await page.goto(`${scenario.url}/jobs/${rows[0]?.id}/prove`)
  await page.getByRole('button', { name: 'With a meter', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Test the sequence switch' })).toBeVisible()
})

test('a relay is tested from its sheet, and a wound field measured alone: what to take off and to keep apart is said', async ({
  page,
  scenario,
}) => {
  // The supply goes at the wall’s pace through rises, falls and AC; on a slow hour that has taken over a minute.
  test.setTimeout(240_000)
  await signIn(page, scenario)
  const { rows } = (await (
    await page.request.get(`${scenario.url}/api/jobs?search=${encodeURIComponent('left its glass case')}`)
  ).json()) as { rows: Array<{ id: string }> }
  await page.goto(`${scenario.url}/jobs/${rows[0]?.id}/first-run`)
  const relay = page.getByRole('region', { name: 'Relay', exact: true })
  await expect(relay).toContainText('its pivot sticks')
  await page.getByRole('button', { name: 'Test the relay' }).click()
  await expect(
    page.getByText('Take off: lead to the brush of the front motor and lead to the brush of the rear motor.'),
  ).toBeVisible()
  await page.keyboard.press('PageDown')
  await expect(
    page.getByRole('status').filter({ hasText: /It pulls in at 4\.\d\d ± 0\.\d\d V and lets go at 1\.\d\d/ }),
  ).toBeVisible({ timeout: 150_000 })
  await expect(relay).toContainText('It pulls in and lets go as it should')
  await page.getByRole('region', { name: 'Test the relay' }).getByRole('button', { name: 'Back to the sheet' }).click()

  await page.getByRole('button', { name: 'Measure with the supply' }).click()
  await expect(page.getByText('a slip of paper under: sequence switch: supply to the field, forward')).toBeVisible()
  await page.keyboard.press('PageDown')
  const says = page.getByRole('region', { name: 'Measure with the supply' }).getByRole('status')
  for (let turn = 1; turn <= 6; turn++) {
    await expect(says).toContainText(`${turn} of 6`, { timeout: 60_000 })
    await page.keyboard.press('PageDown')
  }
  await expect(says).toContainText('readings are in the sheet', { timeout: 60_000 })
})
