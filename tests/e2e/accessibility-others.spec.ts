import { wrongWithScreens } from './screens'
import { expect, test } from './shop'

test('no serious finding on the other screens by either lamp, and each fits a tablet and a phone', async ({
  page,
  scenario,
}) => {
  test.setTimeout(300_000)
  expect(await wrongWithScreens(page, scenario, 1)).toEqual([])
})
