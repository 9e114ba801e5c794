import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { TestShop } from '../support/test-shop'
import { expect, findJob, signIn, takeInQuickly, test } from './shop'

const file = (name: string, contents: unknown) => ({
  name,
  mimeType: 'application/json',
  buffer: Buffer.from(typeof contents === 'string' ? contents : JSON.stringify(contents)),
})

async function openKnowledge(page: Page, shop: TestShop, search: string): Promise<void> {
  const { rows } = (await (await page.request.get(`${shop.url}/api/engines?search=${search}`)).json()) as {
    rows: Array<{ id: string }>
  }
  await page.goto(`${shop.url}/engines/${rows[0]?.id ?? ''}/known`)
  await expect(page.getByRole('tab', { name: /^Faults/ })).toBeVisible()
}

test('a school of practice changes how a remedy is done, and nothing of what is believed', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  const id = await findJob(page, scenario, 'Lady of the Vale')
  const suspects = page.getByRole('region', { name: 'Suspects' })
  const readSuspects = async (): Promise<string[]> => {
    await page.goto(`${scenario.url}/jobs/${id}/find`)
    await suspects.getByRole('button', { name: /^All \d+ above/ }).click({ timeout: 30_000 })
    return suspects.locator('.chance').allTextContents()
  }
  const before = await readSuspects()
  await expect(suspects.getByText('Clean the gears; oil on the teeth').first()).toBeVisible()

  await page.goto(`${scenario.url}/workshop`)
  const question = page.getByRole('radiogroup', { name: 'Grease and oil in a gear train?' })
  await question.getByRole('radio', { name: /^Grease on teeth/ }).click()
  await expect(question.getByRole('radio', { name: /^Grease on teeth/ })).toBeChecked()
  await expect(page.getByText(/waiting for the server/)).toHaveCount(0)
  const after = await readSuspects()
  await expect(suspects.getByText('Clean the gears; grease on the teeth').first()).toBeVisible()
  expect(after).toEqual(before)
})

test('a type’s own copy of the knowledge is changed row by row, and set back', async ({ page, scenario }) => {
  await signIn(page, scenario)
  await openKnowledge(page, scenario, 'kontor')
  const row = page.getByRole('row', { name: /sequence switch sticks/ })
  const word = page.getByRole('searchbox', { name: 'Word' })
  await word.fill('drum')
  await expect(row).toContainText('18 % was 7 %')
  await row.getByRole('button', { name: /sticks/ }).click()
  await page.getByLabel('Chance at one place (%)').fill('120')
  await expect(page.getByText('Chance at one place lies between 0.01 and 50 %.')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Keep', exact: true })).toBeDisabled()
  await page.getByLabel('Chance at one place (%)').fill('9,5')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(row).toContainText('9.5 % was 7 %')
  await page.reload()
  await word.fill('drum')
  await expect(row).toContainText('9.5 % was 7 %')
  await row.getByRole('button', { name: 'As it ships' }).click()
  await expect(row).not.toContainText('was')
  // Of what drags, how often nothing of it shows in the running; kept as it was, the row is not changed.
  await word.fill('hair')
  const hair = page.getByRole('row', { name: /hair/i })
  await hair.getByRole('button').first().click()
  await page.getByLabel(/slight/i).fill('120')
  await expect(page.getByRole('button', { name: 'Keep', exact: true })).toBeDisabled()
  await page.getByLabel(/slight/i).fill('60')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(hair).toBeVisible()
  await expect(hair).not.toContainText('As it ships')
  await word.fill('')
  await page.getByRole('button', { name: 'Set all back to what ships' }).click()
  await page.getByRole('button', { name: 'Set all back', exact: true }).click()
  await page
    .getByRole('group', { name: 'Which of them' })
    .getByRole('button', { name: /^Changed/ })
    .click()
  await expect(page.getByText('Nothing changed')).toBeVisible()
})

test('a knowledge file goes out and comes in, and a bad one is refused row by row', async ({ page, scenario }) => {
  await signIn(page, scenario)
  await openKnowledge(page, scenario, 'moor')
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save as a file' }).click()
  const saved = JSON.parse(readFileSync(await (await download).path(), 'utf8')) as {
    faults: Array<Record<string, unknown>>
    remedies: Array<Record<string, unknown>>
    tests: Array<Record<string, unknown>>
  }
  const bring = page.getByLabel('Read a knowledge file')
  const alert = page.getByRole('alert')
  const changed = <K extends 'faults' | 'remedies' | 'tests'>(
    list: K,
    id: string,
    change: Record<string, unknown>,
  ) => ({ ...saved, [list]: saved[list].map((row) => (row.id === id ? { ...row, ...change } : row)) })

  for (const [contents, sentence] of [
    ['{ "version": 2,', 'no JSON file that can be read'],
    [changed('faults', 'treads-film', { prior: 1.2 }), 'must be at most'],
    [
      changed('faults', 'treads-film', { signs: [{ test: 'crystal-ball', outcome: 'dark', chance: 0.5 }] }),
      'There is no test “crystal-ball”.',
    ],
    [changed('remedies', 'clean-commutator', { after: ['clean-gaps'] }), 'go round in a circle'],
    [
      changed('tests', 'track-run', {
        outcomes: (saved.tests.find((row) => row.id === 'track-run')?.outcomes as unknown[]).slice(0, 3),
      }),
      'is missing',
    ],
    [{ ...saved, version: 99 }, 'newer form'],
  ] as const) {
    await bring.setInputFiles(file('brought.json', contents))
    await expect(alert).toContainText(sentence)
    await expect(page.getByRole('button', { name: 'Take it over' })).toHaveCount(0)
  }

  await bring.setInputFiles(file('brought.json', changed('faults', 'treads-film', { prior: 0.02 })))
  await expect(page.getByText('brought.json differs from what ships in 1 row.')).toBeVisible()
  await page.getByRole('button', { name: 'Take it over' }).click()
  await expect(page.getByRole('row', { name: /dirt or oxide/i })).toContainText('2 % was 12 %')
})

test('the book reckons each step once more by itself, and shows it beside the step', async ({ page }) => {
  const shop = await TestShop.open('workshop', { reckons: true })
  try {
    await signIn(page, shop)
    const id = await takeInQuickly(page, shop, 'Orrin Seven')
    await page.goto(`${shop.url}/jobs/${id}/find`)
    await expect(page.getByRole('article', { name: /^(Next: |Mend now|Search ended)/ })).toBeVisible({
      timeout: 30_000,
    })
    await page.keyboard.press('2')
    const reckoned = async (): Promise<boolean> => {
      const { search } = (await (await page.request.get(`${shop.url}/api/jobs/${id}`)).json()) as {
        search: Array<{ reckoned: { failure: string } | null }>
      }
      return search[0]?.reckoned?.failure === ''
    }
    await expect.poll(reckoned, { timeout: 30_000 }).toBe(true)
    await page.reload()
    const trail = page.getByRole('region', { name: 'How it was found' })
    await trail.getByRole('listitem').first().getByRole('button').first().click({ timeout: 30_000 })
    await expect(
      trail.getByText(/^\s*After it, as the book reckons: .+ [<>]?\d+\s%; nothing else [<>]?\d+\s%\. Next then: /),
    ).toBeVisible()
  } finally {
    await shop.close()
  }
})
