import { chromium } from '@playwright/test'
import { v7 as newId } from 'uuid'
import { Casualty } from '../../bench/casualty/casualty'
import { sweepMotor, usualPlan } from '../../bench/supply/motor-sweep'
import { SimulatedSupply } from '../../bench/supply/simulated-supply'
import { SupplyClient } from '../../bench/supply/supply-client'
import { usualCommands } from '../../bench/supply/supply-commands'
import { SupplyServer } from '../../bench/supply/supply-server'
import { describeConstruction } from '../../core/knowledge/constructions'
import { PASSWORD, TestShop } from '../support/test-shop'
import { browserLaunch } from '../support/browser-launch'

/** Measures what is promised of casualty, sweep and live view: `npm run bench:instruments`, after a build. */

const SIMULATED_SECONDS = 10
for (const id of ['tank-open', 'centre-motor', 'split-frame', 'three-rail-single', 'three-rail-twin']) {
  const machine = describeConstruction(id)
  const speeds = [1, 2, 3].map((seed) => {
    const casualty = new Casualty(machine, [], { seed, onStand: true })
    casualty.apply({ ...machine.rails, volts: 12, ohms: 0.1, limitAmps: 3, hertz: machine.power === 'ac' ? 50 : 0 })
    casualty.run(1, 1e-4)
    const began = performance.now()
    casualty.run(SIMULATED_SECONDS, 1e-4)
    return SIMULATED_SECONDS / ((performance.now() - began) / 1000)
  })
  console.log(
    `casualty at 10 kHz, ${id}: ${Math.min(...speeds).toFixed(0)} to ${Math.max(...speeds).toFixed(0)} times real time`,
  )
}

/** A whole sheet over TCP with a clock that jumps over every wait. */
{
  const machine = describeConstruction('tank-open')
  const times: number[] = []
  for (let seed = 1; seed <= 5; seed++) {
    let seconds = 0
    const supply = new SimulatedSupply({ clock: () => seconds })
    supply.clamp({ casualty: new Casualty(machine, [], { seed, onStand: true }), ...machine.rails })
    const server = new SupplyServer(supply)
    const client = await SupplyClient.open({ host: '127.0.0.1', port: await server.listen(), patienceMs: 20_000 })
    const began = performance.now()
    const surroundings = {
      pause: async (more: number) => {
        await client.carriedOut()
        seconds += more
      },
      held: (turn: number) => Promise.resolve(supply.hold(turn * 0.43)),
      free: () => Promise.resolve(supply.hold(null)),
    }
    let readings = 0
    for await (const event of sweepMotor(client, usualPlan(12), surroundings))
      if (event.kind === 'locked' || event.kind === 'running') readings += 1
    times.push((performance.now() - began) / 1000)
    if (readings !== 37) throw new Error(`Only ${readings} readings.`)
    await client.close()
    await server.close()
  }
  console.log(
    `automatic sheet, 37 readings, accelerated: ${Math.min(...times).toFixed(1)} to ${Math.max(...times).toFixed(1)} s`,
  )
}

const shop = await TestShop.open('scenario', { durable: true })
const browser = await chromium.launch(browserLaunch)
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  // Counts what arrives and how long the screen stands still, without touching the product.
  // The runner that compiles this file names its functions by a helper the page does not have.
  await page.addInitScript('globalThis.__name = (value) => value')
  await page.addInitScript(() => {
    const counted = { readings: {} as Record<string, number[]>, frames: [] as number[] }
    Object.assign(globalThis, { counted })
    const Plain = EventSource
    Object.assign(globalThis, {
      EventSource: class extends Plain {
        constructor(url: string) {
          super(url)
          this.addEventListener('message', (event) => {
            const message = JSON.parse(event.data as string) as { kind: string; instrumentId: string; fresh: boolean }
            if (message.kind === 'readings' && !message.fresh)
              (counted.readings[message.instrumentId] ??= []).push(performance.now())
          })
        }
      },
    })
    const tick = (now: number): void => {
      counted.frames.push(now)
      requestAnimationFrame(tick)
    }
    requestAnimationFrame(tick)
  })
  await page.goto(`${shop.url}/sign-in`)
  await page.getByLabel('Name').fill('maren')
  await page.getByLabel('Password').fill(PASSWORD)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.getByRole('navigation', { name: 'Places' }).waitFor()
  const accuracy = { percentOfReading: 0.05, digits: 2, resolution: 0.001 }
  for (const name of ['Third supply', 'Fourth supply']) {
    const fields = {
      name,
      kind: 'simulated',
      host: '',
      port: 5025,
      leadOhms: 0.05,
      commands: { ...usualCommands },
      voltage: accuracy,
      current: accuracy,
      retired: false,
    }
    await page.request.post(`${shop.url}/api/commands/instrument.save`, {
      headers: { origin: shop.url },
      data: { commandId: newId(), capturedAt: new Date().toISOString(), payload: { id: newId(), fields } },
    })
  }
  await page.goto(`${shop.url}/instruments`)
  const rows = (await (await page.request.get(`${shop.url}/api/benches`)).json()) as Array<{ instrumentId: string }>
  const engines = (
    (await (await page.request.get(`${shop.url}/api/engines?search=ridge`)).json()) as { rows: Array<{ id: string }> }
  ).rows
  for (const [index, row] of rows.entries()) {
    const post = (what: string, data: object) =>
      page.request.post(`${shop.url}/api/benches/${row.instrumentId}/${what}`, { headers: { origin: shop.url }, data })
    await post('open', { engineId: engines[index % engines.length]?.id, place: 'motor' })
    await post('set', { volts: 6 + index, on: true })
  }
  await page.waitForTimeout(3000)
  const { readings, frames } = await page.evaluate(async () => {
    const counted = (globalThis as unknown as { counted: { readings: Record<string, number[]>; frames: number[] } })
      .counted
    counted.readings = {}
    counted.frames = []
    await new Promise((resolve) => {
      setTimeout(resolve, 20_000)
    })
    return counted
  })
  const perSecond = Object.values(readings).map((at) => at.length / 20)
  const gaps = Object.values(readings).flatMap((at) => at.slice(1).map((time, index) => time - (at[index] as number)))
  const frameGaps = frames
    .slice(1)
    .map((time, index) => time - (frames[index] as number))
    .sort((first, second) => first - second)
  const share = (values: number[], part: number): number =>
    values[Math.min(values.length - 1, Math.floor(values.length * part))] as number
  console.log(
    `${perSecond.length} benches live for 20 s: ${perSecond.map((rate) => rate.toFixed(1)).join(', ')} readings/s; longest silence ${Math.max(...gaps).toFixed(0)} ms`,
  )
  console.log(
    `screen beside it: ${(frames.length / 20).toFixed(0)} frames/s, median ${share(frameGaps, 0.5).toFixed(0)} ms, p99 ${share(frameGaps, 0.99).toFixed(0)} ms, longest ${share(frameGaps, 1).toFixed(0)} ms, over 50 ms: ${frameGaps.filter((gap) => gap > 50).length}`,
  )
} finally {
  await browser.close()
  await shop.close()
}
