/** What has been seen and done with an engine in one job, as the diagnosis takes it. Every entry names the state of the engine it belongs to. */
export interface SearchHistory {
  readonly findings: readonly TestFinding[]
  readonly events: readonly EngineEvent[]
}

export interface TestFinding {
  readonly id: string
  /** Of a bench test, such as leads-ohms@leads.lead.drawbar. */
  readonly test: string
  readonly outcome: string
  /** State of the engine it was made in. */
  readonly state: number
  /** Somebody tells of it who is not at this bench: believed less, and looked at all the same. */
  readonly told?: boolean
}

export type EngineEvent =
  /** Seen beyond doubt. */
  | { readonly kind: 'confirmed'; readonly suspect: string; readonly state: number }
  /** Its remedy was done; with it the engine came into this state. */
  | { readonly kind: 'repaired'; readonly suspect: string; readonly state: number }
  /** Parts were off and are on again: mistakes of assembly can have come in. */
  | {
      readonly kind: 'refitted'
      readonly state: number
      /** Parts that were off or moved; all where not said. What was touched last is suspected first. */
      readonly touched?: readonly string[]
    }
  /** Seen beyond doubt not to be so. */
  | { readonly kind: 'ruled-out'; readonly suspect: string; readonly state: number }

/** The state the engine is in now: the last one anything was seen or done in. */
export function currentState({ findings, events }: SearchHistory): number {
  return Math.max(0, ...findings.map((finding) => finding.state), ...events.map((event) => event.state))
}
