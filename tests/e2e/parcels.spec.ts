import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { expect, findJob, signIn, test } from './shop'

/** Keeps what is written in the parcel from the server until it is let go. */
async function heldBack(page: Page): Promise<() => void> {
  let letGo = (): void => {}
  const held = new Promise<void>((resolve) => (letGo = resolve))
  await page.route('**/api/commands/parcel.save', async (route) => {
    await held
    await route.fallback()
  })
  return () => letGo()
}

test('a parcel: its engines and bags, one more taken out of it, packed with a word on what stays, and the list to print', async ({
  page,
  scenario,
}, info) => {
  await signIn(page, scenario)
  await page.goto(`${scenario.url}/take-in`)
  await page.getByRole('link', { name: /^Kwame Asantegra, / }).click()
  const lines = page.getByRole('list', { name: 'What came in it' }).getByRole('listitem')
  await expect(lines).toHaveCount(5)
  await expect(lines.filter({ hasText: 'Tender of another engine' })).toContainText('borrowed')

  const answered: string[] = []
  page.on('response', (response) => {
    if (response.url().endsWith('/api/commands/parcel.save')) answered.push(response.url())
  })
  await page.getByLabel('What', { exact: true }).fill('Small box')
  await page.getByLabel('What it held').fill('two buffers')
  await page.getByRole('button', { name: 'Add it' }).click()
  await expect(lines).toHaveCount(6)

  // All but one go back: refused without a word, done with it. What is typed stays when what was sent before comes back late.
  const early = await heldBack(page)
  for (const line of (await lines.all()).slice(0, 5)) await line.getByRole('checkbox').check()
  await expect(page.getByText('1 thing is not packed.')).toBeVisible()
  await page.getByRole('button', { name: 'Sent back today' }).click()
  await expect(page.getByRole('alert')).toContainText('Not packed yet: Small box')
  await page.getByLabel('Why something stays behind').fill('The buffers go on at the next visit')
  early()
  await expect.poll(() => answered.length).toBe(6)
  await expect(page.getByLabel('Why something stays behind')).toHaveValue('The buffers go on at the next visit')
  // While it is on its way the list waits for it.
  const letGo = await heldBack(page)
  const printed: string[] = []
  page.context().on('request', (request) => {
    if (request.url().endsWith('/packing-list')) printed.push(request.url())
  })
  await page.getByRole('button', { name: 'Sent back today' }).click()
  await expect(page.getByText(/^Sent back \d/)).toBeVisible()
  const list = page.getByRole('link', { name: 'Packing list (PDF)' })
  await list.press('Enter')
  await expect(page.getByText('the paper would lack it')).toBeVisible()
  expect(printed).toEqual([])
  await list.press('Enter')
  letGo()
  await expect.poll(() => printed.length).toBe(1)

  const href = await list.getAttribute('href')
  const pdf = info.outputPath('packing-list.pdf')
  writeFileSync(pdf, await (await page.request.get(`${scenario.url}${href}`)).body())
  const text = execFileSync('pdftotext', ['-layout', pdf, '-'], { encoding: 'utf8' })
  for (const words of [
    'Packing list',
    'Kwame Asantegra',
    'Glen, job',
    'Tender of another engine (borrowed)',
    'held two buffers',
    'Stays behind: The buffers go on at the next visit',
  ])
    expect(text).toContain(words)
})

test('what the owner takes home says when, what and how much, what never, and about the track', async ({
  page,
  scenario,
}, info) => {
  await signIn(page, scenario)
  const id = await findJob(page, scenario, 'Glen half throttle')
  const pdf = info.outputPath('leaflet.pdf')
  writeFileSync(pdf, await (await page.request.get(`${scenario.url}/api/jobs/${id}/leaflet`)).body())
  const text = execFileSync('pdftotext', ['-layout', pdf, '-'], { encoding: 'utf8' })
  for (const words of ['When', 'every 8 hours', 'every 24 hours', 'drops in all', 'Never', 'Steel wool', 'The track'])
    expect(text).toContain(words)
  // What must stay dry stands among what is never oiled, and not among the drops.
  expect(text.slice(text.indexOf('Never'))).toMatch(/commutator/i)
  expect(text.slice(text.indexOf('What, and how much'), text.indexOf('Never'))).not.toMatch(/^ *(commutator|brush)/im)
})

test('a key held moves the mechanism on by pulses, and letting go ends them', async ({ page, scenario }) => {
  await signIn(page, scenario)
  const id = await findJob(page, scenario, 'Taken apart by my nephew')
  await page.goto(`${scenario.url}/jobs/${id}/rebuild`)
  const held = page.getByRole('button', { name: /^Hold to jog/ })
  await expect(held).toBeVisible({ timeout: 20_000 })
  await page.keyboard.down('j')
  await expect(held).toHaveAttribute('aria-pressed', 'true')
  await expect(page.getByText(/pulses of \d\.\d V/)).toBeVisible()
  await page.keyboard.up('j')
  await expect(held).toHaveAttribute('aria-pressed', 'false')
})
