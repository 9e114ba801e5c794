import { expect, findJob, signIn, test } from './shop'

test('a job that goes home adds what was found to what the shop knows, and it can be taken back and set back', async ({
  page,
  scenario,
}) => {
  await signIn(page, scenario)
  const id = await findJob(page, scenario, 'Cellar find')
  await page.goto(`${scenario.url}/jobs/${id}/hand-back`)
  const learn = page.getByRole('region', { name: 'Add to what we know' })
  await expect(learn.getByText('Counted so far:')).toBeVisible()
  const offered = learn.getByRole('checkbox')
  const count = await offered.count()
  expect(count).toBeGreaterThan(1)
  await offered.first().uncheck()
  await learn.getByLabel(/^To be noted of every/).fill('The trailing wipers go green first.')
  await learn.getByRole('button', { name: 'Add it' }).click()
  await expect(learn).toContainText(`Counted: ${count - 1} fault`)
  await expect(learn.getByText('Counted besides it:')).toBeVisible()
  await expect(page.getByRole('region', { name: 'Noted of the type' })).toContainText(
    'The trailing wipers go green first.',
  )
  await learn.getByRole('button', { name: 'Take it back' }).click()
  await expect(learn.getByRole('button', { name: 'Add it' })).toBeVisible()
  await expect(page.getByText(/waiting for the server/)).toHaveCount(0)
  await page.reload()
  await expect(learn.getByRole('button', { name: 'Add it' })).toBeVisible()

  // What is noted of a type stands beside the search of every engine of it, and with the type itself, where it is mended.
  await page.goto(`${scenario.url}/jobs/${await findJob(page, scenario, 'Lady of the Vale')}/find`)
  await expect(page.getByRole('region', { name: 'Noted of the type' })).toContainText(
    'Drawbar pin oxidises: measure across it first.',
  )
  await page.getByRole('link', { name: 'Lady of the Vale', exact: true }).click()
  await page.getByRole('button', { name: 'Change the type' }).click()
  await page
    .getByLabel('To be noted of every one, a line each')
    .fill('Drawbar pin oxidises.\nThe tender screw is blind.')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByText('The tender screw is blind.')).toBeVisible()

  // What years of jobs taught is there to be read: found at how many places, as shipped, and now.
  await page.goto(`${scenario.url}/workshop`)
  const panel = page.getByRole('region', { name: 'What the shop has learned' })
  await panel.getByRole('button', { name: /^Diesel, side-brush/ }).click()
  await expect(panel.getByRole('row', { name: /tyre/i })).toContainText(/\d of \d+/)
  await expect(panel.getByRole('img', { name: /^said \d.* was so \d+ of \d+$/ }).first()).toBeVisible()
  await panel.getByRole('button', { name: 'Set back to what ships' }).click()
  await panel.getByRole('button', { name: 'Set back', exact: true }).click()
  await expect(panel.getByRole('button', { name: /^Diesel, side-brush/ })).toHaveCount(0)
  await expect(panel.getByRole('button', { name: /^Tank engine/ }).first()).toBeVisible()
})
