import { PASSWORD } from '../support/test-shop'
import { expect, signInByForm, test } from './shop'

test('a page may run no code made from text and load nothing from elsewhere', async ({ page, workshop }) => {
  const complaints: string[] = []
  page.on('console', (message) => {
    if (message.type() === 'error') complaints.push(message.text())
  })
  const answer = await page.goto(`${workshop.url}/sign-in`)
  const policy = answer?.headers()['content-security-policy'] ?? ''
  expect(policy).toContain("default-src 'self'")
  expect(policy).not.toContain('unsafe-eval')
  expect(policy.split(';').find((part) => part.trim().startsWith('script-src'))).not.toContain('unsafe-inline')
  await signInByForm(page, workshop)
  expect(complaints.filter((text) => /Content Security Policy/i.test(text))).toEqual([])
})

test('writes from another site are refused, and so is everything without signing in', async ({ request, workshop }) => {
  const command = `${workshop.url}/api/commands/note.add`
  const foreign = await request.post(command, { data: {}, headers: { origin: 'http://elsewhere.example' } })
  expect(foreign.status()).toBe(403)
  const bare = await request.post(command, { data: {} })
  expect(bare.status()).toBe(403)
  const own = await request.post(command, { data: {}, headers: { origin: workshop.url } })
  expect(own.status()).toBe(401)
  expect(own.headers()['content-type']).toContain('application/problem+json')
  expect((await request.get(`${workshop.url}/api/jobs`)).status()).toBe(401)
})

test('signing in is throttled after five wrong passwords, and the cookie is kept from scripts and other sites', async ({
  page,
  request,
  workshop,
}) => {
  const attempt = (password: string) =>
    request.post(`${workshop.url}/api/session`, {
      data: { signInName: 'nobody-here', password },
      headers: { origin: workshop.url },
    })
  for (let i = 0; i < 5; i++) expect((await attempt('wrong-password')).status()).toBe(401)
  const sixth = await attempt('wrong-password')
  expect(sixth.status()).toBe(429)
  expect(await sixth.json()).toMatchObject({ detail: expect.stringMatching(/Too many wrong tries: wait \d min/) })
  await signInByForm(page, workshop)
  const cookie = (await page.context().cookies()).find((one) => one.name === 'echoppe')
  expect(cookie).toMatchObject({ httpOnly: true, sameSite: 'Strict' })
})

test('one’s own new password is taken in the menu, with the one until now', async ({ page, workshop }) => {
  const fresh = 'a nickel silver rail'
  const change = async (old: string, password: string, again = password): Promise<void> => {
    await page.getByRole('button', { name: 'Maren' }).click()
    await page.getByText('New password', { exact: true }).click()
    await page.getByLabel('Password until now').fill(old)
    await page.getByLabel('New password, twelve').fill(password)
    await page.getByLabel('The new one once more').fill(again)
  }
  await signInByForm(page, workshop)
  await change('not mine', 'too short', 'too long')
  await expect(page.getByText('Twelve characters or more; 3 to go.')).toBeVisible()
  await page.getByLabel('New password, twelve').fill(fresh)
  await page.getByLabel('The new one once more').fill(fresh)
  await page.getByRole('button', { name: 'Keep' }).click()
  await expect(page.getByRole('alert')).toContainText('This is not your password until now')
  await page.getByLabel('Password until now').fill(PASSWORD)
  await page.getByRole('button', { name: 'Keep' }).click()
  await expect(page.getByText('Your other devices are signed out')).toBeVisible()
  await page.getByRole('button', { name: 'Close' }).click()
  await change(fresh, PASSWORD)
  await page.getByRole('button', { name: 'Keep' }).click()
  await expect(page.getByText('Your other devices are signed out')).toBeVisible()
})
