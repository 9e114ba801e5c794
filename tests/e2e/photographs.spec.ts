import type { Page } from '@playwright/test'
import jsQR from 'jsqr'
import sharp from 'sharp'
import { expect, findJob, signIn, signInByForm, test } from './shop'

const picture = async (colour: string) => ({
  name: 'picture.jpg',
  mimeType: 'image/jpeg',
  buffer: await sharp({ create: { width: 800, height: 600, channels: 3, background: colour } })
    .jpeg()
    .toBuffer(),
})

/** What the code on the screen says to a camera. */
async function readCode(page: Page): Promise<string> {
  const { data, info } = await sharp(await page.getByAltText('Code with the address for the phone').screenshot())
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true })
  return jsQR(new Uint8ClampedArray(data), info.width, info.height)?.data ?? ''
}

test('a phone scans the code, its picture stands at the step in hand, and it is shut out when the job is left', async ({
  page,
  browser,
  scenario,
}) => {
  // By a name that is not this machine's own, as from the network.
  const shop = { ...scenario, url: scenario.url.replace('127.0.0.1', 'bench.localhost') } as typeof scenario
  await signIn(page, scenario)
  const id = await findJob(page, scenario, 'Little bus')
  await signInByForm(page, shop)
  await page.goto(`${shop.url}/jobs/${id}/strip`)
  const card = page.getByRole('article', { name: /^Step: / })
  await expect(card).toBeVisible({ timeout: 20_000 })
  const part = ((await card.getByRole('heading').textContent()) ?? '').replace(/ off$/, '')
  const here = card.getByRole('list', { name: `Photographs: ${part}` })
  // Those of the sister engine come a moment later.
  await expect(here.getByRole('button', { name: 'No. 4' })).toBeVisible()
  const before = await here.getByRole('listitem').count()
  await page.keyboard.press('h')
  await expect(page.getByAltText('Code with the address for the phone')).toBeVisible()
  const address = await readCode(page)
  expect(address).toMatch(new RegExp(`^${shop.url}/phone#[\\w-]{43}$`))
  await page.getByRole('button', { name: 'Done' }).click()

  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage()
  await phone.goto(address)
  await expect(phone.getByRole('heading', { name: part })).toBeVisible()
  await phone.getByLabel('Photograph it').setInputFiles(await picture('#8d9296'))
  await expect(phone.getByText('stands at the bench')).toBeVisible()
  await expect(here.getByRole('listitem')).toHaveCount(before + 1)

  // The bench goes on, and so does what the phone's next picture shows.
  await page.keyboard.press('PageDown')
  await expect(card.getByRole('heading')).not.toHaveText(`${part} off`)
  const next = ((await card.getByRole('heading').textContent()) ?? '').replace(/ off$/, '')
  await expect(phone.getByRole('heading', { name: next })).toBeVisible()

  await page.keyboard.press('u')
  await expect(card.getByRole('heading')).toHaveText(`${part} off`)
  await page.goto(`${shop.url}/jobs`)
  await expect(phone.getByText('This code is not good any more', { exact: false })).toBeVisible()
  await phone.context().close()
})

test('a ring with words is put on a photograph and stays; a sister’s photograph is laid over it', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  const id = await findJob(page, scenario, 'Little bus')
  await page.goto(`${scenario.url}/jobs/${id}/strip`)
  const card = page.getByRole('article', { name: /^Step: / })
  const sister = card.getByRole('button', { name: 'No. 4' })
  await expect(sister).toBeVisible({ timeout: 20_000 })
  await card
    .getByRole('list', { name: /^Photographs: / })
    .getByRole('button')
    .first()
    .click()
  const viewer = page.getByRole('dialog')
  await viewer.getByRole('button', { name: 'Put a ring' }).click()
  const box = await viewer.getByRole('figure').boundingBox()
  if (!box) throw new Error('The picture is not on the screen.')
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width * 0.6, box.y + box.height / 2, { steps: 4 })
  await page.mouse.up()
  await viewer.getByLabel('At the ring').fill('washer, dished side up')
  await viewer.getByRole('button', { name: 'Keep and close' }).click()
  await expect(viewer).toHaveCount(0)
  await expect(page.getByText(/waiting for the server/)).toHaveCount(0)

  // Opened before the sister's photographs have come: they can be laid over it all the same.
  let opened = (): void => undefined
  const isOpen = new Promise<void>((resolve) => (opened = resolve))
  await page.route('**/sister-photographs*', async (route) => {
    await isOpen
    await route.continue()
  })
  await page.reload()
  const marked = card.getByRole('button', { name: '1 marked' })
  await expect(marked).toBeVisible({ timeout: 20_000 })
  await marked.click()
  await expect(viewer.getByLabel('At the ring')).toHaveValue('washer, dished side up')
  opened()
  await viewer.getByRole('combobox', { name: 'Lay another over it' }).press('ArrowDown')
  await page
    .getByRole('option', { name: /^No\. 4, job \d+/ })
    .last()
    .click()
  await expect(viewer.getByRole('slider', { name: 'How much of which' })).toBeVisible()
})

test('a timer begun on one screen is there on another, and after a reload; stopped on one it is gone on both', async ({
  page,
  browser,
  scenario,
}) => {
  test.slow()
  await signIn(page, scenario)
  const elsewhere = await (await browser.newContext()).newPage()
  await signIn(elsewhere, scenario)
  for (const screen of [page, elsewhere]) {
    await screen.goto(scenario.url)
    await expect(screen.getByRole('navigation', { name: 'Places' })).toBeVisible()
  }
  await page.keyboard.press('t')
  await page.getByLabel('What for').fill('Bath, second round')
  await page.getByRole('dialog').getByLabel('Minutes').fill('4')
  await page.keyboard.press('Enter')
  const timer = { name: /Bath, second round/ }
  await expect(page.getByRole('button', timer)).toBeVisible()
  await expect(elsewhere.getByRole('button', timer)).toBeVisible({ timeout: 15_000 })
  // It has a row of its own and lies over nothing, scrolled or not.
  const row = await elsewhere.getByLabel('Timers', { exact: true }).boundingBox()
  const screen = await elsewhere.getByRole('heading').first().boundingBox()
  expect(screen?.y ?? 0).toBeGreaterThanOrEqual((row?.y ?? 0) + (row?.height ?? Number.POSITIVE_INFINITY))
  await page.reload()
  await page.getByRole('button', timer).click()
  await expect(page.getByRole('button', timer)).toHaveCount(0)
  await expect(elsewhere.getByRole('button', timer)).toHaveCount(0)
  await elsewhere.context().close()
})
