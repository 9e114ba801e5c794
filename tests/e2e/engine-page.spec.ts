import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import type { TestShop } from '../support/test-shop'
import { expect, signIn, signInByForm, takeInQuickly, test } from './shop'

async function openEngine(page: Page, shop: TestShop, search: string, view = ''): Promise<string> {
  const answer = await page.request.get(`${shop.url}/api/engines?search=${encodeURIComponent(search)}`)
  const { rows } = (await answer.json()) as { rows: Array<{ id: string }> }
  const id = rows[0]?.id ?? ''
  await page.goto(`${shop.url}/engines/${id}${view ? `/${view}` : ''}`)
  await expect(page.getByRole('navigation', { name: 'Views of this engine' })).toBeVisible()
  return id
}

test('the current path answers what if, and what a meter should read', async ({ page, scenario }) => {
  await signIn(page, scenario)
  await openEngine(page, scenario, 'Orrin Seven', 'path')
  const says = page.locator('.says')
  await expect(says).toContainText('Runs forward')
  await page.getByRole('button', { name: /^Pickup lead, right/ }).press('Enter')
  await page.getByRole('button', { name: '2 open' }).click()
  await expect(says).toContainText('Nothing: no current')
  await expect(says).toContainText('Front lamp: dark')

  // The same by keys, and the meter on both sides of the break.
  await page.keyboard.press('1')
  await expect(says).toContainText('Runs forward')
  await page.keyboard.press('2')
  await page.getByRole('button', { name: /^Probe at Wiper strip, right/ }).press('Enter')
  await page.getByRole('button', { name: /^Probe at Frame/ }).press('Enter')
  await expect(page.locator('.numeral')).toHaveText('12.00 V')
  await page.getByRole('button', { name: 'ohms' }).click()
  await expect(page.locator('.numeral')).toHaveText('open')
  await expect(page.getByText('Wiper strip, right, reached as it stands')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(says).toContainText('Runs forward')

  await page.getByRole('button', { name: 'plus on the right rail' }).click()
  await expect(says).toContainText('Runs in reverse')
  await page.getByLabel('What if').selectOption({ label: 'Insulating plate between wiper strip and frame' })
  await page.getByRole('button', { name: /shorted/ }).click()
  await expect(says).toContainText('Short: the supply limits at 3.0 A')
})

test('a page asked for by its address reads its book once, while the server still says who is there', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  const id = await openEngine(page, scenario, 'Orrin Seven')
  let [reads, begun] = [0, (): void => undefined]
  const isRead = new Promise<void>((resolve) => (begun = resolve))
  await page.route(`**/api/engines/${id}`, async (route) => {
    reads++
    begun()
    await route.continue()
  })
  await page.route('**/api/session', async (route) => {
    await isRead
    await route.continue()
  })
  await page.reload()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Orrin Seven')
  expect(reads).toBe(1)

  // Whoever is signed in no more is asked who he is, and then sees it.
  await page.unroute('**/api/session')
  await page.context().clearCookies()
  await signInByForm(page, scenario, `/engines/${id}`)
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Orrin Seven')
})

test('drive, pickups and the way in follow the same description', async ({ page, scenario }) => {
  await signIn(page, scenario)
  await openEngine(page, scenario, 'saltmark 230', 'pickups')
  // Two wipers were added on the left of the trailing bogie: two points more than the type has.
  await expect(page.getByRole('heading', { name: 'Left rail' }).locator('..')).toContainText('4 points collect')
  await page.getByRole('link', { name: 'Drive' }).click()
  await expect(page.getByRole('row', { name: /Motor bogie, first axle/ })).toContainText('1/14.8')
  await page.getByLabel('What if one link slipped').selectOption({ label: 'Mesh of the first reduction gear' })
  await expect(page.locator('.says')).toContainText('Nothing is driven')
  await page.getByRole('link', { name: 'Parts and way in' }).click()
  await page.getByRole('textbox', { name: 'Find a part, a material, a place' }).fill('phenolic resin')
  await expect(page.getByRole('row')).toHaveCount(3)
  await expect(page.getByText('Springs and clips fly')).toBeVisible()
  await page.getByRole('button', { name: 'Back together' }).click()
  await expect(page.getByRole('listitem').filter({ hasText: 'Cap of the plus brush' })).toContainText('never by force')
  await page.getByRole('combobox', { name: 'Went back like this' }).press('ArrowDown')
  await page.getByRole('option', { name: /^Magnet of the side-brush motor/ }).click()
  await page.keyboard.press('Escape')
  const otherWay = page.locator('.assembly')
  await expect(otherWay).toContainText('It runs the wrong way')
  await expect(otherWay.getByRole('listitem').filter({ hasText: 'Undo: magnet of the' })).toContainText(
    'min with getting there and back',
  )
})

test('a difference is noted by choosing, can be undone and redone, and is there after a reload', async ({
  page,
  workshop,
}) => {
  await signIn(page, workshop)
  await takeInQuickly(page, workshop, 'Stray')
  await openEngine(page, workshop, 'Stray')
  await expect(page.getByText('Nobody has said how this type is made')).toBeVisible()
  await page.getByRole('button', { name: 'Note a difference' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('combobox', { name: 'What' }).press('ArrowDown')
  await page.getByRole('option', { name: 'Weight added or taken out' }).click()
  await dialog.getByLabel('Grams').fill('-900')
  await dialog.getByLabel('Where').fill('everywhere')
  await expect(dialog.getByRole('alert')).toHaveText('Locomotive does not weigh that much.')
  await expect(dialog.getByRole('button', { name: 'Keep it for this example' })).toBeDisabled()
  await dialog.getByLabel('Grams').fill('25')
  await dialog.getByLabel('Where').fill('over the rear axle')
  await dialog.getByRole('button', { name: 'Keep it for this example' }).click()
  // The passing message says it too, with a full stop.
  const noted = page.getByText('25 g added, over the rear axle', { exact: true })
  await expect(noted).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(noted).toHaveCount(0)
  await page.getByRole('button', { name: 'Redo' }).click()
  await expect(noted).toBeVisible()
  await page.reload()
  await expect(noted).toBeVisible()
  await page.getByRole('button', { name: 'Take back: 25 g added' }).click()
  await expect(page.getByText('Nothing differs from that')).toBeVisible()
})

test('a construction goes out as a file, comes in again, and a bad one is refused with its place', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  await openEngine(page, scenario, 'Heather')
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save the construction as a file' }).click()
  const path = await (await download).path()
  const given = JSON.parse(readFileSync(path, 'utf8')) as { name: string; links: Array<{ teethTo: number | null }> }
  const bring = (name: string, text: string) =>
    page
      .getByLabel('Construction file')
      .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) })
  const dialog = page.getByRole('dialog')

  await bring('letter.json', 'Dear sir')
  await expect(dialog).toContainText('This is not JSON')
  await dialog.getByRole('button', { name: 'Leave' }).click()
  await bring(
    'toothless.json',
    JSON.stringify({
      ...given,
      links: given.links.map((link) => ({ ...link, teethTo: link.teethTo === null ? null : 0 })),
    }),
  )
  await expect(dialog).toContainText('must be above 0')
  await expect(dialog.getByRole('button', { name: 'Bring it in for this type' })).toBeDisabled()
  await dialog.getByRole('button', { name: 'Leave' }).click()

  await bring('mine.json', JSON.stringify({ ...given, name: 'Peat and Heather, as measured' }))
  await expect(dialog).toContainText('It is sound')
  await dialog.getByRole('button', { name: 'Bring it in for this type' }).click()
  await expect(page.getByText('Peat and Heather, as measured, the shop’s own')).toBeVisible()
  await page.getByRole('button', { name: 'The shop’s own' }).click()
  await page.getByRole('button', { name: 'Back to the one that ships' }).click()
  await expect(page.getByText('Narrow gauge, exposed gears', { exact: false }).first()).toBeVisible()
})
