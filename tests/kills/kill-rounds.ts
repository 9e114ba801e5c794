import { v7 as newId } from 'uuid'
import { freePort } from '../../launcher/free-port'
import { fire, signedInHeaders } from '../support/attack'
import { sampleMessages } from '../support/sample-messages'
import { RunningShop, type Part } from './running-shop'

const PASSWORD = 'harbour-festival'
const WRITERS = 4

export interface KillOutcome {
  readonly acknowledged: number
  readonly lost: number
  readonly doubled: number
}

/**
 * Kills each part of a running shop so many times while four browsers write, starts it again each time, and sends
 * again what was not acknowledged; at the end what is in the book is held against what was acknowledged.
 */
export async function killRounds(
  folder: string,
  rounds: Readonly<Record<Part, number>>,
  say: (line: string) => void,
): Promise<KillOutcome> {
  const shop = new RunningShop(folder, await freePort())
  await shop.start()
  await fire(shop.url, {
    method: 'POST',
    path: '/api/first-owner',
    headers: { origin: shop.url, 'content-type': 'application/json' },
    body: JSON.stringify({
      code: shop.firstOwnerCode,
      workshopName: 'Kill bench',
      name: 'Maren',
      signInName: 'maren',
      password: PASSWORD,
    }),
  })
  const headers = await signedInHeaders(shop.url, 'maren', PASSWORD)
  const jobId = newId()
  const taken = await fire(shop.url, {
    method: 'POST',
    path: '/api/commands/job.take-in',
    headers,
    body: envelope({
      ...sampleMessages({
        jobId,
        engineId: jobId,
        ownerId: jobId,
        typeId: jobId,
        sheetId: jobId,
        findingId: jobId,
        photographId: jobId,
        personId: jobId,
      })['job.take-in'],
      jobId,
    }),
  })
  if (taken.status !== 200) throw new Error(taken.text)

  const acknowledged: string[] = []
  let going = true
  const writer = async (): Promise<void> => {
    while (going) {
      const text = newId()
      const body = envelope({ id: newId(), jobId, fields: { station: 'find', text, minutes: 1, supersedesId: null } })
      // What the browser's queue does: the same entry again until it is acknowledged.
      for (;;) {
        const hit = await fire(shop.url, { method: 'POST', path: '/api/commands/note.add', headers, body }).catch(
          () => null,
        )
        if (hit?.status === 200) break
        if (hit && hit.status >= 400 && hit.status < 500) throw new Error(hit.text)
        await new Promise((resolve) => setTimeout(resolve, 25))
      }
      acknowledged.push(text)
    }
  }
  const writing = Promise.all(Array.from({ length: WRITERS }, writer))
  for (const [part, times] of Object.entries(rounds) as Array<[Part, number]>) {
    for (let round = 1; round <= times; round++) {
      const before = acknowledged.length
      while (acknowledged.length < before + 12 + 7 * (round % 5)) await new Promise((resolve) => setImmediate(resolve))
      await shop.kill(part)
      await shop.start()
      say(`${part} killed, ${round} of ${times}: ${acknowledged.length} writes acknowledged so far`)
    }
  }
  going = false
  await writing
  const { notes } = JSON.parse((await fire(shop.url, { method: 'GET', path: `/api/jobs/${jobId}`, headers })).text) as {
    notes: Array<{ text: string }>
  }
  await shop.stop()
  const kept = notes.map(({ text }) => text)
  return {
    acknowledged: acknowledged.length,
    lost: acknowledged.filter((text) => !kept.includes(text)).length,
    doubled: kept.length - new Set(kept).size,
  }
}

const envelope = (payload: unknown): string =>
  JSON.stringify({ commandId: newId(), capturedAt: new Date().toISOString(), payload })
