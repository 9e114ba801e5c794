import jsQR from 'jsqr'
import sharp from 'sharp'
import { expect, signIn, signInByForm, takeInQuickly, test } from './shop'

test('taken apart and put together by keys alone, one picture sent by a phone on the way', async ({
  page,
  browser,
  scenario,
}) => {
  test.setTimeout(180_000)
  // By a name that is not this machine's own, as from the network.
  const shop = { ...scenario, url: scenario.url.replace('127.0.0.1', 'bench.localhost') } as typeof scenario
  await signIn(page, scenario)
  const id = await takeInQuickly(page, scenario, 'Key tank')
  await signInByForm(page, shop)
  await page.goto(`${shop.url}/jobs/${id}/strip`)
  await expect(page.getByRole('region', { name: 'Begin' })).toBeVisible()

  // What for: the list is opened by its key, a word is typed, Enter takes it.
  await page.keyboard.press('g')
  await page.keyboard.type('Motor out')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  const planIt = page.getByRole('dialog').getByRole('button', { name: 'Plan it' })
  await expect(async () => {
    await page.keyboard.press('Tab')
    await expect(planIt).toBeFocused({ timeout: 100 })
  }).toPass()
  await page.keyboard.press('Enter')
  const step = page.getByRole('article', { name: /^Step: / })
  const heading = step.getByRole('heading')
  await expect(step).toBeVisible({ timeout: 20_000 })

  // The phone, by the code on the screen.
  const part = ((await heading.textContent()) ?? '').replace(/ off$/, '')
  await page.keyboard.press('h')
  const code = page.getByAltText('Code with the address for the phone')
  await expect(code).toBeVisible()
  const { data, info } = await sharp(await code.screenshot())
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true })
  const address = jsQR(new Uint8ClampedArray(data), info.width, info.height)?.data ?? ''
  await page.keyboard.press('Escape')
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage()
  await phone.goto(address)
  await expect(phone.getByRole('heading', { name: part })).toBeVisible()
  const buffer = await sharp({ create: { width: 640, height: 480, channels: 3, background: '#8d9296' } })
    .jpeg()
    .toBuffer()
  await phone.getByLabel('Photograph it').setInputFiles({ name: 'lid.jpg', mimeType: 'image/jpeg', buffer })
  const here = step.getByRole('list', { name: `Photographs: ${part}` })
  await expect(here.getByRole('listitem')).toHaveCount(1)
  await phone.context().close()

  // Off, one after the other, by the pedal.
  let off = 0
  for (; off < 20 && (await step.count()) > 0; off++) {
    const before = (await heading.textContent()) ?? ''
    await page.keyboard.press('PageDown')
    await expect(page.getByRole('article', { name: `Step: ${before.replace(/ off$/, '')}` })).toHaveCount(0)
  }
  expect(off).toBeGreaterThan(2)
  await expect(page.getByRole('article', { name: 'It lies open' })).toBeVisible()

  // And back: what is fitted, oiled and measured by the pedal, a test of current overruled by its key.
  await page.goto(`${shop.url}/jobs/${id}/rebuild`)
  const back = page.getByRole('article', { name: /^Step back: / })
  await expect(back).toBeVisible({ timeout: 20_000 })
  let done = 0
  for (; done < 60 && (await back.count()) > 0; done++) {
    const before = (await back.getAttribute('aria-label')) ?? ''
    const counted = (await back.locator('header').textContent()) ?? ''
    await page.keyboard.press(/^Step back: Test with/.test(before) ? 'o' : 'PageDown')
    await expect(back.locator('header').filter({ hasText: counted })).toHaveCount(0)
  }
  expect(done).toBeGreaterThan(off)
  await expect(page.getByRole('article', { name: 'Together' })).toBeVisible()
})

test('a thing that follows is drawn by its grip before the others, and stands there on the next visit too', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  const id = await takeInQuickly(page, scenario, 'Bay tank')
  await page.goto(`${scenario.url}/jobs/${id}/strip`)
  await page.getByRole('button', { name: 'Wheel sets out' }).click()
  const rows = page.getByRole('region', { name: 'What follows' }).getByRole('listitem')
  const names = rows.locator('.name')
  await expect(names).toHaveText(['Front axle', 'Rear axle'])
  await rows.nth(1).scrollIntoViewIfNeeded()
  const [grip, above] = [await rows.nth(1).locator('.grip').boundingBox(), await rows.nth(0).boundingBox()]
  if (!grip || !above) throw new Error('both rows are on the screen')
  const x = grip.x + grip.width / 2
  await page.mouse.move(x, grip.y + grip.height / 2)
  await page.mouse.down()
  await page.mouse.move(x, above.y + 4, { steps: 12 })
  await page.mouse.up()
  await expect(names).toHaveText(['Rear axle', 'Front axle'])
  await expect(page.getByText(/waiting for the server/)).toHaveCount(0)
  await page.reload()
  await expect(names).toHaveText(['Rear axle', 'Front axle'])
})
