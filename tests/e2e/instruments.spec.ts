import { expect, signIn, test } from './shop'

test('two supplies are watched live at once, a second screen sees the same, Escape turns all off', async ({
  page,
  context,
  scenario,
}) => {
  await signIn(page, scenario)
  await page.goto(`${scenario.url}/instruments`)
  const bench = page.getByRole('region', { name: 'Simulated bench supply' })
  const other = page.getByRole('region', { name: 'Simulated supply by the window' })
  for (const [panel, engine] of [
    [bench, 'orrin seven'],
    [other, 'glen'],
  ] as const) {
    await panel.getByLabel('What lies on this bench').fill(engine)
    await panel
      .getByRole('button', { name: new RegExp(engine, 'i') })
      .first()
      .click()
    await panel.getByRole('button', { name: 'Watch it live' }).click()
    await expect(panel).toContainText('Output off')
  }
  // What is refused stays to be read.
  await bench.getByRole('heading').click()
  await page.keyboard.press('m')
  const refused = page.getByRole('alert').filter({ hasText: 'The output is off: there is nothing to keep.' })
  await expect(refused).toBeVisible()
  await bench.getByLabel('Volts to set').fill('40')
  await expect(refused).toBeVisible()
  await bench.getByLabel('Volts to set').press('Enter')
  await expect(bench.getByRole('alert')).toHaveText('Volts are a number from 0 to 24.')
  await bench.getByLabel('Volts to set').fill('6,0')
  await bench.getByLabel('Volts to set').press('Enter')
  await bench.getByRole('button', { name: /^Output on/ }).click()
  for (let half = 0; half < 4; half++) await other.getByRole('button', { name: 'Half a volt more' }).click()
  await other.getByRole('button', { name: /^Output on/ }).click()
  const volts = (panel: typeof bench) => panel.locator('.big').first()
  await expect(volts(bench)).toHaveText(/^(5\.9|6\.0)/)
  await expect(volts(other)).toHaveText(/^(1\.9|2\.0)/)
  await expect(bench.locator('.big').nth(1)).toHaveText(/^\d+(\.\d)?$/)

  // What it reads goes into the sheet of its open job, and may be struck there and then.
  const kept = bench.getByRole('status').filter({ hasText: 'Kept in job' })
  await expect(async () => {
    // While it runs up the current still wanders, and what wanders is not kept.
    await bench.getByRole('button', { name: 'Running' }).click()
    await expect(kept).toContainText(/(5\.9|6\.0)\d V, \d+(\.\d)? mA, forward/, { timeout: 2000 })
  }).toPass({ timeout: 20_000 })
  await kept.getByRole('button', { name: 'Strike' }).click()
  await expect(kept).toBeHidden()

  const second = await context.newPage()
  await second.goto(`${scenario.url}/instruments`)
  await expect(volts(second.getByRole('region', { name: 'Simulated bench supply' }))).toHaveText(/^(5\.9|6\.0)/)
  await page.getByRole('heading', { name: 'Instruments' }).click()
  await page.keyboard.press('Escape')
  for (const screen of [page, second]) {
    for (const name of ['Simulated bench supply', 'Simulated supply by the window'])
      await expect(screen.getByRole('region', { name }).locator('header')).toContainText('Output off')
  }
  await bench.getByRole('button', { name: 'Close', exact: true }).click()
  await expect(second.getByRole('region', { name: 'Simulated bench supply' }).getByRole('status')).toHaveText(
    'Closed. The output is off.',
  )

  await bench.getByRole('button', { name: 'Zero the leads' }).click()
  await page.getByRole('button', { name: 'Together: measure' }).click()
  await expect(page.getByRole('dialog')).toContainText(/(4[6-9]|5[0-4]) mΩ, give or take/)
  await page.getByRole('button', { name: 'Leave' }).click()
})
