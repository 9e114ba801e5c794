import { createServer, request, type IncomingMessage } from 'node:http'
import type { AddressInfo } from 'node:net'
import { once } from 'node:events'
import sharp from 'sharp'
import { v7 as newId } from 'uuid'
import { afterAll, beforeAll, describe, expect, it, onTestFinished } from 'vitest'
import { buildWhenChanged } from '../../launcher/build-when-changed'
import { readLimitedBody } from '../../server/read-limited-body'
import { fire, signedInHeaders } from '../support/attack'
import { PASSWORD, TestShop } from '../support/test-shop'

describe('a photograph that breaks off half-way', () => {
  let shop: TestShop
  beforeAll(async () => {
    await buildWhenChanged(process.cwd(), console.log)
    shop = await TestShop.open('scenario')
  }, 240_000)
  afterAll(() => shop.close())

  it('leaves nothing behind, keeps nobody waiting, and stands once when it is sent again whole, twice', async () => {
    const headers = { ...(await signedInHeaders(shop.url, 'maren', PASSWORD)), 'content-type': 'image/jpeg' }
    const read = async <T>(path: string): Promise<T> =>
      JSON.parse((await fire(shop.url, { method: 'GET', path, headers })).text) as T
    const jobId = (await read<{ rows: Array<{ id: string }> }>('/api/jobs')).rows[0]?.id ?? ''
    const kept = async (): Promise<string[]> =>
      (await read<{ photographs: Array<{ id: string }> }>(`/api/jobs/${jobId}?slices=photographs`)).photographs.map(
        (row) => row.id,
      )
    const before = await kept()
    const body = await sharp({ create: { width: 900, height: 700, channels: 3, background: '#a9812f' } })
      .png({ compressionLevel: 0 })
      .toBuffer()
    const id = newId()
    const about = { commandId: newId(), jobId, station: 'strip', takenAt: '2026-11-30T09:00:00.000Z' }
    const path = `/api/photographs/${id}?${new URLSearchParams(about).toString()}`
    const { hostname, port } = new URL(shop.url)
    // More of them than are received side by side.
    for (let i = 0; i < 9; i++) {
      const half = request({
        hostname,
        port,
        path,
        method: 'PUT',
        agent: false,
        headers: { ...headers, 'content-length': body.length },
      }).on('error', () => undefined)
      half.write(body.subarray(0, body.length / 2))
      await once(half, 'socket').then(([socket]) => once(socket as NodeJS.EventEmitter, 'drain').catch(() => undefined))
      half.destroy()
    }
    expect(await kept()).toEqual(before)
    for (const repeated of [false, true]) {
      const hit = await fire(shop.url, { method: 'PUT', path, headers, body })
      expect([hit.status, (JSON.parse(hit.text) as { repeated: boolean }).repeated]).toEqual([200, repeated])
    }
    expect((await kept()).filter((entry) => !before.includes(entry))).toEqual([id])
  })
})

it('a body that falls silent is given up, one that comes in pieces is not', async () => {
  const outcomes: string[] = []
  let outcome = (_: string): void => undefined
  const server = createServer((message: IncomingMessage, answer) => {
    void readLimitedBody(message, 1000, 400).then(
      (bytes) => {
        outcome(String(bytes))
        answer.end()
      },
      (problem: Error) => outcome(problem.message),
    )
  }).listen(0, '127.0.0.1')
  onTestFinished(() => void server.close())
  await once(server, 'listening')
  const { port } = server.address() as AddressInfo
  for (const pieces of [['in pi', 'eces'], ['sil']]) {
    const ended = new Promise<string>((resolve) => (outcome = resolve))
    const sent = request({ port, method: 'PUT', headers: { 'content-length': 9 } }).on('error', () => undefined)
    for (const piece of pieces) await new Promise((resolve) => sent.write(piece, resolve))
    outcomes.push(await ended)
  }
  expect(outcomes).toEqual(['in pieces', expect.stringContaining('broke off')])
})
