/** What a run does at a sheet. */
export type MeasuringProcedure = 'sweep' | 'step' | 'sequence'

/** What somebody at the bench may be asked to say. */
export type MeasuringAnswer = 'forward' | 'reverse' | 'stands'

/** How a measuring run stands, as the server tells it to every screen that looks. */
export interface MeasuringState {
  readonly sheetId: string
  readonly jobId: string
  readonly procedure: MeasuringProcedure
  readonly instrumentName: string
  readonly status: 'running' | 'hold' | 'asks' | 'done' | 'stopped' | 'failed'
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

/** What a sheet's machine can be measured by. */
export interface MeasuringOutlook {
  /** The run that goes on or has ended; null when there was none since the server started. */
  readonly state: MeasuringState | null
  /** At the motor's terminals; null with a wound field. */
  readonly clamp: ClampAdvice | null
  readonly rails: ClampAdvice
  readonly sequenceSwitch: boolean
}

/** Said for the step of a sequence test when the motor's leads are off, to watch the drum. */
export const LEADS_OFF = 'leads-off'
