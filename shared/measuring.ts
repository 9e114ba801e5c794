/** How a measuring run stands, as the server tells it to every screen that looks. */
export interface MeasuringState {
  readonly sheetId: string
  readonly jobId: string
  readonly instrumentName: string
  readonly status: 'running' | 'hold' | 'done' | 'stopped' | 'failed'
  /** What it is doing, or why it ended, in a sentence. */
  readonly says: string
  readonly done: number
  readonly of: number
  /** Which hold is asked for; null when none is. */
  readonly hold: { readonly turn: number; readonly of: number } | null
  readonly latest: { readonly volts: number; readonly amps: number; readonly radPerSecond: number | null } | null
  readonly readings: number
}

/** Where to clamp a motor's supply, and what to take off first. */
export interface ClampAdvice {
  readonly red: string
  readonly black: string
  readonly takeOff: readonly string[]
}
