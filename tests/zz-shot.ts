import { chromium } from '@playwright/test'
const [,, base, out, path, w='1280', h='800', theme='on', ...acts] = process.argv
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox','--disable-gpu','--disable-quic','--no-first-run','--disable-background-networking','--disable-component-update','--disable-sync'] })
const c = await b.newContext({ viewport: { width: +w!, height: +h! }, locale: 'en-GB' })
const p = await c.newPage()
p.on('console', m => { if (['error','warning'].includes(m.type())) console.log('CONSOLE', m.type(), m.text().slice(0,400)) })
p.on('pageerror', e => console.log('PAGEERROR', e.message.slice(0,600)))
if (theme === 'off') await p.addInitScript(() => localStorage.setItem('echoppe.lamp','off'))
await p.goto(base + '/sign-in')
if (path !== '/sign-in') {
  await p.getByLabel('Name').fill('maren'); await p.getByLabel('Password').fill('harbour-festival'); await p.getByRole('button', { name: 'Sign in' }).click()
  await p.waitForURL(u => !u.pathname.startsWith('/sign-in'))
  let target = path!
  const m = /^JOB:(.*?)(\/.*)?$/.exec(path!)
  if (m) { const r = await p.request.get(base + '/api/jobs?sort=number&search=' + encodeURIComponent(m[1]!)); const j = await r.json(); target = '/jobs/' + j.rows[0].id + (m[2] ?? '') }
  const e = /^ENGINE:(.*)$/.exec(path!)
  if (e) { const r = await p.request.get(base + '/api/engines?search=' + encodeURIComponent(e[1]!)); const j = await r.json(); target = '/engines/' + j.rows[0].id }
  await p.goto(base + target)
}
await p.waitForLoadState('networkidle'); await p.evaluate(() => document.fonts.ready)
for (const a of acts) { const [k, ...v] = a.split('='); const val = v.join('='); if (k==='click') await p.getByText(val, { exact: true }).first().click(); if (k==='press') await p.keyboard.press(val); if (k==='type') await p.keyboard.type(val); if (k==='wait') await p.waitForTimeout(+val); if (k==='scroll') await p.evaluate(y => window.scrollTo(0, y), +val) }
await p.waitForTimeout(300)
await p.screenshot({ path: out })
await b.close()
