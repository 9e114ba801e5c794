import { v7 as newId } from 'uuid'
import { usualCommands } from '../../bench/supply/supply-commands'
import { writeFileSync } from 'node:fs'
import { expect, lines, signIn, takeInQuickly, test, typeReading } from './shop'
import { OutsideSupply } from '../support/outside-supply'
import { PASSWORD, TestShop } from '../support/test-shop'

test.describe('bad input at the sheet', () => {
  test('each gets a clear sentence, and nothing already entered is lost', async ({ page, workshop }) => {
    await signIn(page, workshop)
    await takeInQuickly(page, workshop, 'Skua')
    await page.getByRole('button', { name: 'With a meter', exact: true }).click()
    const message = page.locator('#pad-message')
    await page.getByLabel('Volts in V').fill('12')
    for (const [typed, sentence] of [
      ['3o0', '“3o0” is not a number: type the current in digits'],
      ['abc', '“abc” is not a number'],
      ['-120', 'A minus sign means the meter leads are the other way round'],
      ['12 V', '“V” is not a unit of current: use A, mA'],
      ['1.234,5', 'more than one separator'],
    ] as const) {
      await page.getByLabel('Current in mA').fill(typed)
      await page.getByLabel('Current in mA').press('Enter')
      await expect(message).toContainText(sentence)
      await expect(page.getByLabel('Volts in V')).toHaveValue('12')
    }
    await expect(page.getByText('No readings yet')).toBeVisible()

    await typeReading(page, '12', '350 mA')
    await expect(lines(page).first()).toContainText('350 mA')
    await expect(page.getByText('One reading alone says nothing about the motor')).toBeVisible()
    await typeReading(page, '12,0', '0,35A')
    await expect(lines(page).first()).toContainText('350 mA')
    await typeReading(page, '12', '351')
    await expect(page.getByText('All 3 readings were taken at about 12.0 V: they repeat one point')).toBeVisible()

    await typeReading(page, '40', '300')
    await expect(page.getByText('40.0 V on a 12.0 V motor would burn it: is it 4.00 V?')).toBeVisible()
    await expect(page.getByText('All 3 readings were taken')).toBeVisible()
    await lines(page).first().getByRole('button', { name: 'Correct' }).click()
    await page.getByLabel('Volts in V').fill('4')
    await page
      .getByRole('button', { name: /^Correct/ })
      .first()
      .click()
    await expect(lines(page).first()).toContainText('4 V')
    await expect(lines(page)).toHaveCount(4)
    await lines(page).nth(1).getByRole('button', { name: 'Strike' }).click()
    await expect(lines(page).locator('.values', { hasText: '351 mA' })).toHaveCSS(
      'text-decoration-line',
      'line-through',
    )
  })
})

test('a tab closed amid a line comes back as it was typed', async ({ context, workshop }) => {
  const page = await context.newPage()
  await signIn(page, workshop)
  const jobId = await takeInQuickly(page, workshop, 'Petrel')
  await page.getByRole('button', { name: 'With a meter', exact: true }).click()
  await typeReading(page, '6', '120')
  await page.getByLabel('Volts in V').fill('8,5')
  await page.getByLabel('Current in mA').fill('13')
  await page.close({ runBeforeUnload: false })
  const again = await context.newPage()
  await again.goto(`${workshop.url}/jobs/${jobId}/first-run`)
  await expect(again.getByLabel('Volts in V')).toHaveValue('8,5')
  await expect(again.getByLabel('Current in mA')).toHaveValue('13')
  await expect(lines(again)).toHaveCount(1)
})

test('two people editing one job see both versions and choose; both edits of different fields survive', async ({
  browser,
  workshop,
}) => {
  const open = async () => {
    const page = await (await browser.newContext()).newPage()
    await signIn(page, workshop)
    return page
  }
  const [first, second] = [await open(), await open()]
  const jobId = await takeInQuickly(first, workshop, 'Gannet')
  for (const page of [first, second]) {
    await page.goto(`${workshop.url}/jobs/${jobId}/take-in`)
    await page.getByRole('button', { name: 'Change', exact: true }).click()
  }
  await first.getByLabel('What the owner wants').fill('Quieter')
  await first.getByRole('button', { name: 'Keep' }).click()
  await expect(first.getByText('Quieter', { exact: true })).toBeVisible()
  await expect
    .poll(async () => (await (await first.request.get(`${workshop.url}/api/jobs/${jobId}`)).json()).job.wanted)
    .toBe('Quieter')
  await second.getByLabel('Estimate (minutes)').fill('75')
  await second.getByRole('button', { name: 'Keep' }).click()
  const dialog = second.getByRole('dialog')
  await expect(dialog.getByText('Somebody changed this job while you were writing')).toBeVisible()
  await expect(dialog.getByRole('row', { name: /Wanted/ })).toContainText('Quieter')
  await dialog.getByRole('button', { name: 'Write what is chosen' }).click()
  await expect(dialog).toBeHidden()
  await expect
    .poll(async () => {
      const { job } = (await (await second.request.get(`${workshop.url}/api/jobs/${jobId}`)).json()) as {
        job: { wanted: string; estimateMinutes: number }
      }
      return [job.wanted, job.estimateMinutes]
    })
    .toEqual(['Quieter', 75])
})

test('a session that ran out with three notes waiting: they are sent after signing in again, in order, once', async ({
  page,
  context,
  workshop,
}) => {
  await signIn(page, workshop)
  const jobId = await takeInQuickly(page, workshop, 'Dunlin')
  await page.goto(`${workshop.url}/jobs/${jobId}/find`)
  await expect(page.getByRole('heading', { name: 'Notes and minutes' })).toBeVisible()
  await context.clearCookies()
  for (const words of ['first', 'second', 'third']) {
    await page.getByLabel('Note', { exact: true }).fill(words)
    await page.getByLabel('Note', { exact: true }).press('Enter')
  }
  await expect(page.getByText('You are signed out. 3 notes waiting, kept on this device.')).toBeVisible()
  await page.getByRole('link', { name: 'Sign in again' }).click()
  await page.getByLabel('Name').fill('maren')
  await page.getByLabel('Password').fill(PASSWORD)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect
    .poll(async () => {
      const answer = await page.request.get(`${workshop.url}/api/jobs/${jobId}`)
      return answer.ok()
        ? ((await answer.json()) as { notes: Array<{ text: string }> }).notes.map((note) => note.text)
        : []
    })
    .toEqual(['first', 'second', 'third'])
})

test('photographs: a text named .jpg and a 60 MB file are refused with a sentence and kept to look at', async ({
  page,
  workshop,
}, info) => {
  await signIn(page, workshop)
  await takeInQuickly(page, workshop, 'Knot')
  const [letter, huge] = [info.outputPath('letter.jpg'), info.outputPath('huge.jpg')]
  writeFileSync(letter, 'Dear Maren, the engine squeals.')
  writeFileSync(huge, Buffer.alloc(60 * 1024 * 1024, 1))
  await page.getByLabel('Photographs', { exact: true }).setInputFiles(letter)
  await expect(page.getByText('1 note refused by the server, kept here')).toBeVisible()
  await page.getByLabel('Photographs', { exact: true }).setInputFiles(huge)
  await expect(page.getByText('2 notes refused by the server, kept here')).toBeVisible({ timeout: 30_000 })
  await page.getByRole('button', { name: 'Look and mend' }).click()
  await expect(page.getByText('This file is not a photograph, whatever its name says')).toBeVisible()
  await expect(page.getByText('This photograph has 60 MB; at most 25 MB are kept')).toBeVisible()
})

test.describe('with a shop of its own', () => {
  let shop: TestShop
  test.beforeAll(async () => {
    shop = await TestShop.open('workshop')
  })
  test.afterAll(() => shop.close())

  const standing = async (page: import('@playwright/test').Page, jobId: string): Promise<number[]> => {
    const answer = await page.request.get(`${shop.url}/api/jobs/${jobId}`)
    if (!answer.ok()) return []
    const { sheets } = (await answer.json()) as {
      sheets: Array<{ readings: Array<{ quantities: { voltage: { value: number } } }> }>
    }
    return sheets.flatMap((sheet) => sheet.readings.map((reading) => reading.quantities.voltage.value))
  }

  test('the server is killed with -9 while readings are typed: they wait, are judged meanwhile, and arrive once each', async ({
    page,
  }) => {
    await signIn(page, shop)
    const jobId = await takeInQuickly(page, shop, 'Fulmar')
    await page.getByRole('button', { name: 'With a meter', exact: true }).click()
    await typeReading(page, '4', '100')
    await typeReading(page, '5', '104')
    process.kill(shop.server.pid, 'SIGKILL')
    await shop.server.ended
    for (const volts of [6, 8, 10, 12]) await typeReading(page, String(volts), String(98 + volts))
    await expect(lines(page)).toHaveCount(6)
    await expect(page.getByText(/notes? waiting for the server, kept on this device/)).toBeVisible()
    await expect(page.getByRole('region', { name: 'What the readings say' })).toContainText('Free at 12 V, draws')
    await shop.startServer()
    await expect.poll(() => standing(page, jobId), { timeout: 30_000 }).toEqual([4, 5, 6, 8, 10, 12])
    await expect(page.getByText('waiting for the server')).toBeHidden()
  })

  test('the server is killed with -9 in mid-strip: every thing taken off meanwhile is off once it is back, each once', async ({
    page,
  }) => {
    await signIn(page, shop)
    const jobId = await takeInQuickly(page, shop, 'Shearwater')
    await page.goto(`${shop.url}/jobs/${jobId}/strip`)
    await page.getByRole('button', { name: 'Motor out' }).click()
    const heading = page.getByRole('article', { name: /^Step: / }).getByRole('heading')
    const off: string[] = []
    const takeOff = async (): Promise<void> => {
      const step = ((await heading.textContent()) ?? '').replace(/ off$/, '')
      await page.keyboard.press('PageDown')
      await expect(page.getByRole('article', { name: `Step: ${step}` })).toHaveCount(0)
      off.push(step)
    }
    await takeOff()
    await expect(page.getByText(/waiting for the server/)).toHaveCount(0)
    process.kill(shop.server.pid, 'SIGKILL')
    await shop.server.ended
    await takeOff()
    await takeOff()
    await expect(page.getByText(/waiting for the server, kept on this device/)).toBeVisible()
    await shop.startServer()
    const kept = async (): Promise<string[]> => {
      const answer = await page.request.get(`${shop.url}/api/jobs/${jobId}`)
      if (!answer.ok()) return []
      const { strip } = (await answer.json()) as { strip: Array<{ entry: { kind: string; words?: string } }> }
      return strip.flatMap(({ entry }) => (entry.kind === 'off' ? [entry.words ?? ''] : []))
    }
    await expect.poll(kept, { timeout: 30_000 }).toEqual(off)
  })

  test('a supply on the network: the clamp falls off, then the server is killed with the output on; it goes off, and what was read stays', async ({
    page,
  }) => {
    const supply = await OutsideSupply.start()
    await signIn(page, shop)
    const accuracy = { percentOfReading: 0.05, digits: 2, resolution: 0.001 }
    const fields = {
      name: 'Supply at the wall',
      kind: 'network',
      host: '127.0.0.1',
      port: supply.port,
      leadOhms: 0,
      commands: { ...usualCommands },
      voltage: accuracy,
      current: accuracy,
      retired: false,
    }
    const entered = await page.request.post(`${shop.url}/api/commands/instrument.save`, {
      headers: { origin: shop.url },
      data: { commandId: newId(), capturedAt: new Date().toISOString(), payload: { id: newId(), fields } },
    })
    expect(await entered.json()).toMatchObject({ result: { version: 1 } })
    const jobId = await takeInQuickly(page, shop, 'Gannet')
    await page.getByRole('button', { name: 'With a meter', exact: true }).click()
    const panel = page.getByRole('region', { name: 'Measure with the supply' })
    const begin = async (): Promise<void> => {
      await page.getByRole('button', { name: 'Measure with the supply' }).click()
      await expect(panel).toContainText('Take off')
      await page.keyboard.press('PageDown')
      await expect(panel.getByRole('status')).toContainText('1 of 12', { timeout: 20_000 })
    }
    await begin()
    await page.keyboard.press('PageDown')
    await expect(panel.getByRole('status')).toContainText('2 of 12', { timeout: 20_000 })
    await supply.say('unclamp')
    await page.keyboard.press('PageDown')
    await expect(panel.getByRole('status')).toContainText('Nothing flows any more: a clamp fell off', {
      timeout: 20_000,
    })
    await expect.poll(() => standing(page, jobId)).toHaveLength(2)
    await panel.getByRole('button', { name: 'Back to the sheet' }).click()

    await supply.say('clamp')
    await begin()
    await page.keyboard.press('PageDown')
    await expect.poll(() => supply.isOn(), { intervals: [20] }).toBe(true)
    process.kill(shop.server.pid, 'SIGKILL')
    await shop.server.ended
    await expect.poll(() => supply.isOn()).toBe(false)
    await expect(panel).toContainText('The connection to the server is cut')
    await shop.startServer()
    await expect.poll(async () => (await standing(page, jobId)).length, { timeout: 30_000 }).toBeGreaterThanOrEqual(2)
    supply.close()
  })

  test('the database is stopped for a while: the screen goes on, and everything arrives once it is back', async ({
    page,
  }) => {
    await signIn(page, shop)
    const jobId = await takeInQuickly(page, shop, 'Shearwater')
    await page.getByRole('button', { name: 'With a meter', exact: true }).click()
    await typeReading(page, '4', '100')
    await expect.poll(() => standing(page, jobId)).toEqual([4])
    const stoppedAt = Date.now()
    await shop.mariadb.stop()
    for (const volts of [8, 12]) await typeReading(page, String(volts), '110')
    await expect(lines(page)).toHaveCount(3)
    await expect(
      page.getByText('2 notes waiting for the server, kept on this device and sent by themselves'),
    ).toBeVisible()
    const refused = await page.request.get(`${shop.url}/api/bench`)
    expect(refused.status()).toBe(503)
    expect(await refused.json()).toMatchObject({
      detail: expect.stringContaining('The book cannot be reached at the moment'),
    })
    await expect.poll(() => Date.now() - stoppedAt, { timeout: 30_000, intervals: [500] }).toBeGreaterThan(6_000)
    await shop.startDatabase()
    await expect.poll(() => standing(page, jobId), { timeout: 30_000 }).toEqual([4, 8, 12])
  })
})

test('an empty workshop makes its owner’s account only with the code from the terminal', async ({ page }) => {
  const shop = await TestShop.open('empty', { firstOwnerCode: 'a1b2c3d4' })
  try {
    await page.goto(`${shop.url}/`)
    await expect(page.getByRole('heading', { name: 'Open the workshop' })).toBeVisible()
    await page.getByLabel('Code from the terminal').fill('wrong')
    await page.getByLabel('Name of the workshop').fill('Quay Bench')
    await page.getByLabel('Your name').fill('Noor Haddadin')
    await page.getByLabel('Sign-in name').fill('noor')
    await page.getByLabel('Password').fill('twelve-characters')
    await page.getByRole('button', { name: 'Open the workshop' }).click()
    await expect(page.getByRole('alert').filter({ hasText: 'not the code that was printed' })).toBeVisible()
    await page.getByLabel('Code from the terminal').fill('a1b2c3d4')
    await page.getByRole('button', { name: 'Open the workshop' }).click()
    await expect(page.getByRole('heading', { name: 'The bench is clear' })).toBeVisible()
  } finally {
    await shop.close()
  }
})
