import { everyScreen, openScreen } from './screens'
import { expect, signIn, test } from './shop'

/** By how many pixels the page is too wide; drawings may take a few frames to follow their window. */
async function widerThanItsWindow(): Promise<number> {
  const over = (): number => document.documentElement.scrollWidth - window.innerWidth
  for (let frame = 0; frame < 60 && over() > 0; frame++) await new Promise((resolve) => requestAnimationFrame(resolve))
  return over()
}

test('every screen fits a tablet and a phone without sideways scrolling', async ({ page, scenario }) => {
  test.setTimeout(300_000)
  await signIn(page, scenario)
  const wide: string[] = []
  for (const [name, address] of await everyScreen(page, scenario)) {
    await page.setViewportSize({ width: 1024, height: 768 })
    await openScreen(page, scenario, address)
    for (const viewport of [
      { width: 1024, height: 768 },
      { width: 390, height: 844 },
    ]) {
      await page.setViewportSize(viewport)
      const over = await page.evaluate(widerThanItsWindow)
      if (over > 0) wide.push(`${name} at ${viewport.width}: ${over} px too wide`)
    }
  }
  expect(wide).toEqual([])
})
