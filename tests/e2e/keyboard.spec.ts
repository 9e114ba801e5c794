import { expect, lines, test } from './shop'
import { PASSWORD } from '../support/test-shop'

test('the whole path by keyboard alone: sign in, take in, readings, finding, minutes, hand back', async ({
  page,
  workshop,
}) => {
  const key = (name: string) => page.keyboard.press(name)
  const type = (text: string) => page.keyboard.type(text)
  /** Tabs on until the focus is on something whose name or label holds these words. */
  async function tabTo(words: string | RegExp): Promise<void> {
    const wanted = typeof words === 'string' ? new RegExp(words.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')) : words
    const passed: string[] = []
    for (let i = 0; i < 120; i++) {
      const name = await page.evaluate(() => {
        const at = document.activeElement as HTMLInputElement | null
        if (!at || at === document.body) return ''
        const label = at.labels?.[0]?.textContent ?? ''
        return `${at?.getAttribute('aria-label') ?? ''} ${label} ${at?.tagName === 'INPUT' ? '' : (at?.textContent ?? '')}`.trim()
      })
      if (wanted.test(name)) return
      passed.push(name)
      await key('Tab')
    }
    throw new Error(`Nothing named ${String(words)} can be reached by Tab; passed: ${[...new Set(passed)].join(' / ')}`)
  }

  // A form that opens puts the focus into its first field; typing begins there.
  await page.goto(`${workshop.url}/sign-in`)
  await expect(page.getByLabel('Name')).toBeFocused()
  await type('maren')
  await key('Tab')
  await type(PASSWORD)
  await key('Enter')
  await expect(page.getByRole('navigation', { name: 'Places' })).toBeVisible()

  await page.locator('body').focus()
  await key('n')
  await page.waitForURL(/take-in/)
  await tabTo('A new owner')
  await key('Enter')
  await expect(page.getByLabel('Name', { exact: true })).toBeFocused()
  await type('Lars Ekedahl-Roth')
  await tabTo('An engine not in the book yet')
  await key('Enter')
  await expect(page.getByLabel('Nickname at the bench')).toBeFocused()
  await tabTo('A new type')
  await key('Enter')
  await expect(page.getByLabel('Maker')).toBeFocused()
  await type('Lunadorf')
  await tabTo(/^Type/)
  await type('Ridge diesel')
  await tabTo('Nickname at the bench')
  await type('Tern')
  await tabTo('Complaint, in the owner')
  await type('Slow and hot')
  await key('PageDown')
  await page.waitForURL(/first-run/)
  await expect(page.getByRole('heading', { level: 1, name: 'Tern' })).toBeVisible()

  await tabTo(/^With a meter/)
  await key('Enter')
  await expect(page.getByLabel('Volts in V')).toBeVisible()
  await key('m')
  await expect(page.getByLabel('Volts in V')).toBeFocused()
  for (const [volts, milliamps] of [
    ['4', '90'],
    ['8', '100'],
    ['12', '110'],
  ] as const) {
    await type(volts)
    await key('Enter')
    await type(milliamps)
    await key('Enter')
  }
  await type('r')
  await type('12')
  await key('Enter')
  await type('112')
  await key('Enter')
  await expect(lines(page)).toHaveCount(4)
  await expect(page.getByText('No measurable difference between directions')).toBeVisible()

  await key('PageDown')
  await page.waitForURL(/find$/)
  // The address changes before the pad is gone: until then what is typed goes into it.
  await expect(page.getByRole('region', { name: 'Find' })).toBeVisible()
  await expect(page.getByLabel('Volts in V')).toHaveCount(0)
  await key('f')
  await expect(page.getByRole('dialog')).toBeVisible()
  await expect(page.getByRole('dialog').getByLabel('What', { exact: true })).toBeFocused()
  await type('Bearing dry')
  await key('Enter')
  await expect(page.getByRole('dialog')).toBeHidden()
  await tabTo('It is so')
  await key('Enter')
  await expect(page.getByRole('region', { name: 'Noted by hand' })).toHaveCount(0)

  await page.evaluate(() => (document.activeElement as HTMLElement).blur())
  // The pedal does not leave a search while a test is asked; the line of stations does.
  await expect(page.getByRole('article', { name: /^(Next: |Mend now|Search ended)/ })).toBeVisible({ timeout: 30_000 })
  await key('PageDown')
  await expect(page).toHaveURL(/find$/)
  await tabTo(/^Strip/)
  await key('Enter')
  await page.waitForURL(/strip$/)
  await page.evaluate(() => (document.activeElement as HTMLElement).blur())
  for (const station of ['clean', 'mend', 'lubricate', 'rebuild', 'prove', 'hand-back']) {
    // The pedal does what a station still has to do, point by point, before it goes on to the next.
    const there = new RegExp(`/${station}$`)
    await expect(async () => {
      if (!there.test(page.url())) await key('PageDown')
      await page.waitForURL(there, { timeout: 1000 })
    }).toPass({ timeout: 60_000 })
  }
  await key('Backspace')
  await page.waitForURL(/prove$/)
  await key(' ')
  await page.waitForURL(/hand-back$/)
  await expect(page.getByRole('heading', { name: 'For the owner' })).toBeVisible()
  await key('PageDown')
  await expect(page.locator('header .sign--sound', { hasText: 'Handed back' })).toBeVisible()
})
