import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import sharp from 'sharp'
import { expect, lines, signIn, signInByForm, takeInQuickly, test, typeReading } from './shop'

test('one job from take-in to hand-back, on typed readings, ends in a printed sheet', async ({
  page,
  workshop,
}, info) => {
  await signInByForm(page, workshop)
  await page
    .getByRole('link', { name: /Take in an engine/ })
    .first()
    .click()

  await page.getByRole('button', { name: 'A new owner' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Yuki Hoshigaki')
  await page.getByRole('button', { name: 'An engine not in the book yet' }).click()
  await page.getByRole('button', { name: 'A new type' }).click()
  await page.getByLabel('Maker').fill('Wexmoor')
  await page.getByLabel('Type', { exact: true }).fill('Saltmark diesel')
  await page.getByLabel('Nickname at the bench').fill('Gull')
  await page.getByLabel('Complaint, in the owner’s words').fill('Draws too much and squeals in reverse')
  await page.getByLabel('The same as a trial').fill('Ten starts backwards at 4 V')
  await page.getByLabel('What', { exact: true }).fill('Front coupling')
  await page.getByLabel('What', { exact: true }).press('Enter')
  const picture = info.outputPath('gull.jpg')
  writeFileSync(
    picture,
    await sharp({ create: { width: 900, height: 600, channels: 3, background: '#1f4d3a' } })
      .jpeg()
      .toBuffer(),
  )
  await page
    .getByLabel(/^Photographs/)
    .first()
    .setInputFiles(picture)
  await page.getByRole('button', { name: 'Take it in' }).click()

  await expect(page.getByRole('heading', { level: 1, name: 'Gull' })).toBeVisible()
  await expect(
    page.getByRole('complementary', { name: 'Ledger' }).getByRole('img', { name: /Photograph/ }),
  ).toBeVisible()
  await page.getByRole('button', { name: 'With a meter', exact: true }).click()
  for (const [volts, milliamps] of [
    ['4', '150 mA'],
    ['8', '0,170 A'],
    ['12,0', '190'],
  ] as const)
    await typeReading(page, volts, milliamps)
  await page.getByRole('radio', { name: /Reverse/ }).click()
  for (const [volts, milliamps] of [
    ['4', '225'],
    ['8', '245'],
    ['12', '265'],
  ] as const)
    await typeReading(page, volts, milliamps)
  await page.getByRole('radio', { name: /Held/ }).click()
  for (const volts of [1, 1.2, 1.4, 1.6, 1.8, 2]) {
    await page.getByLabel('Volts in V').fill(String(volts))
    await page.getByLabel('Current in mA').fill((volts / 0.022).toFixed(0))
    await page.getByLabel('Armature at in °').press('Enter')
  }
  await expect(lines(page)).toHaveCount(12)
  const judged = page.getByRole('region', { name: 'What the readings say' })
  await expect(judged).toContainText('Reverse draws more at 12.0 V: 190 mA forward, 265 mA reverse')
  await expect(judged).toContainText(/Winding, brushes.*2[12]\.\d+ ± .* Ω/)
  await expect(judged).toContainText('Without a speed the magnet cannot be told from the drag')

  await page.keyboard.press('PageDown')
  await page.waitForURL(/\/find$/)
  await page.getByRole('heading', { name: 'How it was found' }).click()
  await page.keyboard.press('f')
  await page.getByRole('dialog').getByLabel('What', { exact: true }).fill('Worm shaft dry')
  await page.getByRole('dialog').getByRole('radio', { name: 'Found inside' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Keep' }).click()
  await page.getByRole('button', { name: 'It is so' }).click()
  await page.getByRole('link', { name: 'Mend' }).click()
  await page.getByRole('button', { name: 'Mended' }).click()
  await expect(page.getByText('Everything confirmed is settled')).toBeVisible()
  await page.getByLabel('Minutes', { exact: true }).fill('25')
  await page.getByLabel('Note', { exact: true }).fill('Bearing oiled, one drop')
  await page.getByLabel('Note', { exact: true }).press('Enter')

  await page.getByRole('link', { name: 'Prove' }).click()
  await page.getByRole('button', { name: 'With a meter', exact: true }).click()
  for (const volts of [4, 8, 12]) await typeReading(page, String(volts), String(130 + volts))
  await page.getByRole('radio', { name: /Reverse/ }).click()
  for (const volts of [4, 8, 12]) await typeReading(page, String(volts), String(132 + volts))
  const against = page.locator('.against')
  await expect(against.getByText('Current at 12 V, reverse')).toBeVisible()
  await expect(against.locator('.row', { hasText: 'Current at 12 V, reverse' })).toContainText('better')

  await page.getByRole('link', { name: 'Hand back' }).click()
  await page.getByLabel('Left undone, and why').fill('Front coupling out of stock')
  await page.getByLabel(/^Price/).fill('42,50')
  await page.getByLabel('Lubricants used').fill('Light oil')
  await page.getByRole('button', { name: /Hand back and close/ }).click()
  await expect(page.locator('header .sign--sound', { hasText: 'Handed back' })).toBeVisible()

  const href = await page.getByRole('link', { name: 'Printed sheet (PDF)' }).getAttribute('href')
  await expect
    .poll(async () => (await page.request.get(`${workshop.url}${href}`)).text().then((text) => text.length))
    .toBeGreaterThan(5000)
  const pdf = info.outputPath('sheet.pdf')
  writeFileSync(pdf, await (await page.request.get(`${workshop.url}${href}`)).body())
  const text = execFileSync('pdftotext', ['-layout', pdf, '-'], { encoding: 'utf8' })
  for (const words of [
    'Test bench',
    'Yuki Hoshigaki',
    'Gull',
    'Draws too much and squeals in reverse',
    'Worm shaft dry',
    'mended',
    'Front coupling out of stock',
    'Before and after',
    'Current at 12 V, reverse',
    'better',
    '£42.50',
    'Light oil',
  ])
    expect(text).toContain(words)
  expect(text).toMatch(/265 ± \d+ mA\s+144 ± \d+ mA/)
})

test('without a meter: dead before, runs after, and the sheet says so', async ({ page, workshop }) => {
  await signIn(page, workshop)
  const jobId = await takeInQuickly(page, workshop, 'Puffin')
  await page.getByRole('button', { name: 'Without a meter', exact: true }).click()
  await page.getByRole('radio', { name: 'Dead' }).click()
  await page.getByRole('button', { name: /^Enter/ }).click()
  await expect(page.getByText('It does nothing on the track')).toBeVisible()
  await page.goto(`${workshop.url}/jobs/${jobId}/prove`)
  await page.getByRole('button', { name: 'Without a meter', exact: true }).click()
  await page.getByLabel('Distance in mm').fill('1 m')
  await page.getByLabel('Time in s').fill('7,5')
  await page.getByLabel('Time in s').press('Enter')
  await page.getByRole('radio', { name: 'Stops' }).click()
  await page.getByLabel('Stops in ×').fill('0')
  await page.getByLabel('in laps in ×').fill('5')
  await page.getByLabel('in laps in ×').press('Enter')
  await expect(page.getByRole('region', { name: 'What the readings say' })).toContainText(
    /Timed run, forward\s*13\d.* mm\/s\s*.*km\/h full size/,
  )
  await expect(page.locator('.against')).toContainText('Dead before, runs now.')
})
