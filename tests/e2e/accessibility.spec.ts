import { seriousFindings } from './screens'
import { expect, test } from './shop'

test('no serious finding on any screen, lamp on', async ({ page, scenario }) => {
  // Every screen is opened and gone through by axe in one test.
  test.setTimeout(300_000)
  expect(await seriousFindings(page, scenario, { lamp: 'on' })).toEqual([])
})
