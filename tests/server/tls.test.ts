import { readFileSync, rmSync } from 'node:fs'
import { request } from 'node:https'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { buildWhenChanged } from '../../launcher/build-when-changed'
import { ownCertificate, type OwnCertificate } from '../../launcher/own-certificate'
import { fire } from '../support/attack'
import { PASSWORD, TestShop } from '../support/test-shop'
import { throwAwayFolder } from '../support/throw-away-folder'

const folder = throwAwayFolder('tls')
const now = new Date()
const DAY_MS = 86_400_000

describe('https with the shop’s own certificate', () => {
  let certificate: OwnCertificate
  let shop: TestShop
  beforeAll(async () => {
    await buildWhenChanged(process.cwd(), console.log)
    certificate = await ownCertificate(folder, ['127.0.0.1', 'localhost'], now)
    shop = await TestShop.open('workshop', { certificate })
  }, 240_000)
  afterAll(async () => {
    await shop.close()
    rmSync(folder, { recursive: true, force: true })
  })

  function signIn(): Promise<{ status: number; cookies: string[] }> {
    const url = new URL(shop.url)
    return new Promise((resolve, reject) => {
      const body = JSON.stringify({ signInName: 'maren', password: PASSWORD })
      const origin = `https://127.0.0.1:${url.port}`
      request(
        {
          host: '127.0.0.1',
          port: url.port,
          path: '/api/session',
          method: 'POST',
          ca: readFileSync(certificate.certificateFile),
          headers: { origin, 'content-type': 'application/json', 'content-length': body.length },
        },
        (answer) => {
          answer.resume()
          resolve({ status: answer.statusCode ?? 0, cookies: answer.headers['set-cookie'] ?? [] })
        },
      )
        .on('error', reject)
        .end(body)
    })
  }

  it('lets people in over an encrypted connection whose certificate holds, keeps the cookie to it, and says nothing in the clear', async () => {
    const { status, cookies } = await signIn()
    expect(status).toBe(200)
    expect(cookies.length).toBeGreaterThan(0)
    for (const cookie of cookies) expect(cookie).toMatch(/;\s*Secure/i)
    expect(
      (await fire(`http://127.0.0.1:${new URL(shop.url).port}`, { method: 'GET', path: '/api/health' })).status,
    ).toBe(0)
  })

  it('keeps its certificate until a new name is wanted or it is about to end', async () => {
    const again = (hosts: string[], at: Date) => ownCertificate(folder, hosts, at)
    expect((await again(['localhost'], now)).fingerprint).toBe(certificate.fingerprint)
    const named = await again(['localhost', '127.0.0.1', '192.168.7.7'], now)
    expect(named.fingerprint).not.toBe(certificate.fingerprint)
    expect((await again(['192.168.7.7'], new Date(now.getTime() + 300 * DAY_MS))).fingerprint).toBe(named.fingerprint)
    expect((await again(['192.168.7.7'], new Date(now.getTime() + 380 * DAY_MS))).fingerprint).not.toBe(
      named.fingerprint,
    )
  })
})
