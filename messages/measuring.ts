import type { ComponentKind } from '../core/engine/description-schema'

/** What a run does at a sheet. */
export const measuringProcedures = ['sweep', 'step', 'sequence', 'relay'] as const
export type MeasuringProcedure = (typeof measuringProcedures)[number]

/** What somebody at the bench may be asked to say. */
export const measuringAnswers = ['forward', 'reverse', 'stands', 'clicks', 'silent', 'always-on'] as const
export type MeasuringAnswer = (typeof measuringAnswers)[number]

/** An answer that says which way it turns; null for none, or one to another question. */
export function turnsOf(answer: MeasuringAnswer | null): 'forward' | 'reverse' | 'stands' | null {
  return answer === 'forward' || answer === 'reverse' || answer === 'stands' ? answer : null
}

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

/** Where to clamp a supply, and what to take off or keep apart first. */
export interface ClampAdvice {
  readonly red: string
  readonly black: string
  readonly takeOff: readonly string[]
  /** Contacts kept apart by a slip of paper. */
  readonly paperUnder: readonly string[]
}

/** A piece of circuit as it is drawn between the clips. */
export interface ClampPiece {
  readonly kind: ComponentKind
  readonly name: string
}

/** What lies between red and black, and what is cut off beside either clip. */
export interface ClampDrawing {
  readonly through: readonly ClampPiece[]
  readonly cutAtRed: readonly ClampPiece[]
  readonly cutAtBlack: readonly ClampPiece[]
}

/** What a sheet's machine can be measured by. */
export interface MeasuringOutlook {
  /** The run that goes on or has ended; null when there was none since the server started. */
  readonly state: MeasuringState | null
  /** What the supply can do at this sheet, the usual first. */
  readonly procedures: readonly MeasuringProcedure[]
  /** The motor alone, and what the current then runs through. */
  readonly motor: ClampAdvice
  readonly motorDrawing: ClampDrawing
  readonly woundField: boolean
  readonly rails: ClampAdvice
  /** By its rails with the leads of every motor off. */
  readonly railsMotorsOff: ClampAdvice
}

/** Said for the step of a sequence test when the motor's leads are off, to watch the drum. */
export const LEADS_OFF = 'leads-off'
