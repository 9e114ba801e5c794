import { Casualty } from '../../bench/casualty/casualty'
import { SeededRandom } from '../../bench/casualty/random'
import type { SweepSurroundings } from '../../bench/supply/sweep-steps'
import { SimulatedSupply } from '../../bench/supply/simulated-supply'
import { SupplyClient } from '../../bench/supply/supply-client'
import { SupplyServer } from '../../bench/supply/supply-server'
import type { EngineDescription } from '../../core/engine/description-schema'
import type { Clamp } from '../../core/engine/motor-clamp'
import type { InstrumentRow } from '../../messages/book'
import { addressInShop } from './instrument-address'

/** An engine at the clips of a supply. */
export interface Clamped {
  readonly engineId: string
  readonly description: EngineDescription
  readonly clamp: Clamp
}

/** A supply ready to measure, with time and hands that suit it. */
export interface OpenInstrument {
  readonly client: SupplyClient
  readonly surroundings: Pick<SweepSurroundings, 'pause'>
  /** How many of its seconds pass in one of ours. */
  readonly secondsPerSecond: number
  /** What a hand does at the simulated machine; nothing at a real one. */
  hold(turn: number | null): void
  /** The clips put together, or apart again; by hand at a real one. */
  join(together: boolean): void
  close(): Promise<void>
}

/** Times faster than the wall clock the simulated supply runs where its waits can be shortened; tests set it. */
const testPace = (): number => Math.max(1, Number(process.env.ECHOPPE_BENCH_PACE) || 1)
const realPause = (seconds: number): Promise<void> =>
  new Promise((resolve) => {
    setTimeout(resolve, seconds * 1000)
  })

/**
 * Opens an instrument: the one at its address, or the simulated one with this engine clamped to it, its leads off as
 * the screen asks. Which motor the simulated engine has follows from its id. Nothing is clamped with null. Watched live
 * it runs at the wall's pace always: nothing is shortened by being faster, and two of them keep a processor busy.
 *
 * @throws SupplyProblem when nothing answers
 */
export async function openInstrument(
  instrument: InstrumentRow,
  clamped: Clamped | null,
  watchedLive = false,
): Promise<OpenInstrument> {
  const { host, port, commands } = instrument
  if (instrument.kind === 'network') {
    const client = await SupplyClient.open({
      host: await addressInShop(host, port),
      port,
      commands,
      shownAs: `${host}:${port}`,
      untilIntroduced: true,
    })
    return {
      client,
      surroundings: { pause: realPause },
      secondsPerSecond: 1,
      hold: () => {},
      join: () => {},
      close: () => client.close(),
    }
  }
  const pace = watchedLive ? 1 : testPace()
  let ahead = 0
  const began = Date.now()
  const supply = new SimulatedSupply({
    clock: () => ((Date.now() - began) / 1000) * pace + ahead,
    noise: noiseOf(clamped?.engineId ?? instrument.id),
    leadOhms: instrument.leadOhms,
  })
  if (clamped) supply.clamp(clampedCasualty(clamped))
  const server = new SupplyServer(supply)
  const client = await SupplyClient.open({
    host: '127.0.0.1',
    port: await server.listen(),
    commands,
    patienceMs: 20_000,
  })
  return {
    client,
    surroundings: {
      // Whatever part of the wait the wall clock does not give is given at once.
      async pause(seconds) {
        // What was said before the wait belongs to the time before it.
        await client.carriedOut()
        const waited = Date.now()
        await realPause(seconds / pace)
        ahead += Math.max(0, seconds - ((Date.now() - waited) / 1000) * pace)
      },
    },
    secondsPerSecond: pace,
    join: (together) => supply.joinClips(together),
    hold: (turn) => supply.hold(turn === null ? null : turn * 0.43),
    async close() {
      await client.close()
      await server.close()
    },
  }
}

function clampedCasualty({ description, engineId, clamp }: Clamped): {
  casualty: Casualty
  plus: string
  minus: string
} {
  const off = clamp.open.map((component) => ({ kind: 'component' as const, component, state: 'open' as const }))
  return {
    casualty: new Casualty(description, off, { seed: seedOf(engineId), onStand: true }),
    plus: clamp.plus,
    minus: clamp.minus,
  }
}

const seedOf = (id: string): number => Number.parseInt(id.slice(-7), 16)

function noiseOf(id: string): () => number {
  const random = new SeededRandom(seedOf(id))
  return () => random.normal()
}
