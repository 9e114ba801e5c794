import type { ClampAdvice } from './measuring'
import type { SheetStation } from './bench-entries'

/** A bench supply watched live: what it is set to, what it reads, as the server tells it to every screen that looks. */

/** One look at the meter. */
export interface LiveReading {
  /** ms since 1970, of the server's clock. */
  readonly at: number
  readonly volts: number
  readonly amps: number
  /** rad/s reckoned from volts and amps; null where that cannot be said. */
  readonly radPerSecond: number | null
  /** The supply is at its current limit. */
  readonly limited: boolean
}

export interface BenchSettings {
  readonly volts: number
  readonly ampsLimit: number
  readonly reversed: boolean
  readonly on: boolean
}

/** Where an engine is clamped: at its motor's terminals with the leads off, or on the rails. */
export type ClampPlace = 'motor' | 'rails'

export interface LiveBenchState {
  readonly instrumentId: string
  readonly status: 'opening' | 'live' | 'closed' | 'failed'
  /** What it is doing, or why it ended, in a sentence. */
  readonly says: string
  readonly engine: { readonly id: string; readonly name: string } | null
  readonly place: ClampPlace
  /** What to clamp where. */
  readonly clamp: ClampAdvice | null
  readonly settings: BenchSettings
  /** What the speed is reckoned from, in words; null where it is not. */
  readonly speedFrom: string | null
}

/** A supply in the list of benches. */
export interface BenchRow {
  readonly instrumentId: string
  /** Who else has the supply now, in a sentence; null when it is free or live here. */
  readonly takenBy: string | null
  readonly live: LiveBenchState | null
}

/** A live reading that went into a sheet. */
export interface KeptReading {
  readonly readingId: string
  readonly sheetId: string
  readonly jobId: string
  readonly jobNumber: number
  readonly station: SheetStation
  readonly kind: 'running' | 'locked'
  readonly direction: 'forward' | 'reverse'
  readonly volts: number
  readonly amps: number
}

/** One message of the stream all screens listen to. */
export type BenchMessage =
  | { readonly kind: 'state'; readonly state: LiveBenchState }
  /** `fresh`: the last minute so far; otherwise only what is new. */
  | {
      readonly kind: 'readings'
      readonly instrumentId: string
      readonly fresh: boolean
      readonly readings: readonly LiveReading[]
    }

/** Seconds of readings every screen can look back on. */
export const RING_SECONDS = 60
/** Looks at the meter a second. */
export const READINGS_PER_SECOND = 20
export const SAFE_START: BenchSettings = { volts: 0, ampsLimit: 0.5, reversed: false, on: false }
