import { seriousFindings } from './screens'
import { expect, test } from './shop'

test('no serious finding on any screen, lamp off: the same pages in other colours, so their contrast', async ({
  page,
  scenario,
}) => {
  test.setTimeout(300_000)
  expect(await seriousFindings(page, scenario, { lamp: 'off', rules: ['color-contrast'] })).toEqual([])
})
