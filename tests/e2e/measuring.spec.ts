import { expect, lines, signIn, takeInQuickly, test } from './shop'

test('a motor is measured into its sheet by the simulated supply, a hand is asked for, and the readings are judged', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  await takeInQuickly(page, scenario, 'Measured one')
  await page.getByRole('button', { name: 'With a meter', exact: true }).click()
  await page.getByRole('button', { name: 'Measure with the supply' }).click()
  const panel = page.getByRole('region', { name: 'Measure with the supply' })
  await expect(panel).toContainText('Red to the motor, plus terminal')
  await page.keyboard.press('PageDown')
  const says = panel.getByRole('status')
  for (let turn = 1; turn <= 12; turn++) {
    await expect(says).toContainText(`${turn} of 12`, { timeout: 30_000 })
    await page.keyboard.press('PageDown')
  }
  await expect(says).toContainText('Done: 37 readings are in the sheet', { timeout: 30_000 })
  await panel.getByRole('button', { name: 'Back to the sheet' }).click()
  await expect(lines(page)).toHaveCount(37)
  await expect(lines(page).first()).toContainText('measured')
  const judged = page.getByRole('region', { name: 'What the readings say' })
  await expect(judged).toContainText('Winding')
  await expect(judged).toContainText('Ω')
})

test('Escape stops it with the output off; what was read stays, and a second screen saw the same', async ({
  page,
  context,
  scenario,
}) => {
  await signIn(page, scenario)
  const jobId = await takeInQuickly(page, scenario, 'Stopped one')
  await page.getByRole('button', { name: 'With a meter', exact: true }).click()
  await page.getByRole('button', { name: 'Measure with the supply' }).click()
  const panel = page.getByRole('region', { name: 'Measure with the supply' })
  await expect(panel).toContainText('Take off')
  await page.keyboard.press('PageDown')
  await expect(panel.getByRole('status')).toContainText('1 of 12', { timeout: 20_000 })

  const other = await context.newPage()
  await other.goto(`${scenario.url}/jobs/${jobId}/first-run`)
  await other.getByRole('button', { name: 'Measure with the supply' }).click()
  await expect(other.getByRole('status').filter({ hasText: '1 of 12' })).toBeVisible()

  await page.keyboard.press('PageDown')
  await expect(panel.getByRole('status')).toContainText('2 of 12', { timeout: 20_000 })
  await page.keyboard.press('Escape')
  for (const screen of [page, other])
    await expect(screen.getByRole('status').filter({ hasText: 'Stopped. The output is off' })).toBeVisible({
      timeout: 20_000,
    })
  await page.reload()
  await expect(lines(page)).toHaveCount(2)
})

test('a supply that does not answer is said in a sentence', async ({ page, workshop }) => {
  await signIn(page, workshop)
  await page.goto(`${workshop.url}/workshop`)
  await page.getByRole('button', { name: 'New supply' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('combobox', { name: 'It is' }).press('ArrowDown')
  await page.getByRole('option', { name: 'One on the shop’s network' }).click()
  await expect(dialog).toContainText('Its address in the shop’s network is needed')
  await dialog.getByLabel('Name').fill('Bench supply by the window')
  await dialog.getByLabel('Address').fill('127.0.0.1')
  await dialog.getByLabel('Port').fill('9')
  await dialog.getByRole('button', { name: 'Keep' }).click()
  await expect(page.getByText('Bench supply by the window')).toBeVisible()
  await takeInQuickly(page, workshop, 'Unreached')
  await page.getByRole('button', { name: 'With a meter', exact: true }).click()
  await page.getByRole('button', { name: 'Measure with the supply' }).click()
  await expect(page.getByRole('region', { name: 'Measure with the supply' })).toContainText('Take off')
  await page.keyboard.press('PageDown')
  await expect(page.getByText('Nothing answers at 127.0.0.1:9: is the supply on, and the address right?')).toBeVisible()
})
