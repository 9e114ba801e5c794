import type { EngineDescription } from '../../core/engine/description-schema'
import type { CasualtyFault } from './faults'
import type { SeededRandom } from './random'

/** A coil that pulls the sequence switch: V across it to pull in, V to let go, s between to count as an interruption. From memory. */
const SEQUENCE_PULL_IN_VOLTS = 6
const SEQUENCE_LET_GO_VOLTS = 2.5
const INTERRUPTION_SECONDS = 0.05
/** A relay that DC pulls and AC must not: its copper ring lets the flux follow only slowly. From memory. */
const RELAY_PULL_IN_VOLTS = 4
const RELAY_LET_GO_VOLTS = 1.6
const RELAY_FLUX_SECONDS = 0.05

interface Relay {
  readonly id: string
  readonly coil: string
  readonly pullInVolts: number
  readonly letGoVolts: number
  flux: number
}

/** What the coils of an AC machine do to its switches: the drum that steps at each interruption, relays that pull in and let go. */
export class Relays {
  private readonly sequence: EngineDescription['switches'][number] | undefined
  private readonly sequenceCoil: string | null
  private readonly sticky: Extract<CasualtyFault, { kind: 'sticky-switch' }> | undefined
  private readonly relays: readonly Relay[]
  private unfedSince: number | null = 0

  constructor(
    description: EngineDescription,
    faults: readonly CasualtyFault[],
    private readonly random: SeededRandom,
  ) {
    this.sequence = description.switches.find((entry) => entry.kind === 'sequence')
    this.sticky = faults.find(
      (fault): fault is Extract<CasualtyFault, { kind: 'sticky-switch' }> => fault.kind === 'sticky-switch',
    )
    const works = (coil: string): boolean =>
      !faults.some((fault) => fault.kind === 'component' && fault.component === coil)
    const coilOf = (id: string): string | undefined =>
      description.components.find(({ kind, of }) => kind === 'relay' && of === id)?.id
    this.relays = description.switches.flatMap((entry) => {
      const coil = coilOf(entry.id)
      if (entry.kind !== 'relay' || coil === undefined || !works(coil)) return []
      const weak = faults.find((fault) => fault.kind === 'sticky-relay' && fault.relay === entry.id) as
        Extract<CasualtyFault, { kind: 'sticky-relay' }> | undefined
      return [
        {
          id: entry.id,
          coil,
          pullInVolts: weak?.pullInVolts ?? RELAY_PULL_IN_VOLTS,
          letGoVolts: weak?.letGoVolts ?? RELAY_LET_GO_VOLTS,
          flux: 0,
        },
      ]
    })
    this.sequenceCoil = (this.sequence && coilOf(this.sequence.id)) ?? null
    if (this.sequenceCoil === null || !works(this.sequenceCoil)) this.sequence = undefined
  }

  /** Whether there is any coil to follow at all. */
  get none(): boolean {
    return this.sequence === undefined && this.relays.length === 0
  }

  /**
   * One step of time.
   *
   * @param coilVolts V across a coil now
   * @param hertz of the supply; 0 is smooth DC
   * @returns switches that have moved, by id
   */
  step(
    switches: Readonly<Record<string, string>>,
    coilVolts: (coil: string) => number,
    hertz: number,
    seconds: number,
    dt: number,
  ): Readonly<Record<string, string>> | null {
    let moved: Readonly<Record<string, string>> | null = null
    for (const relay of this.relays) {
      relay.flux += ((coilVolts(relay.coil) - relay.flux) / RELAY_FLUX_SECONDS) * dt
      const pulled = switches[relay.id] === 'pulled'
      const pull = Math.abs(relay.flux)
      if (pulled ? pull >= relay.letGoVolts : pull < relay.pullInVolts) continue
      moved = withMoved(moved, relay.id, pulled ? 'at-rest' : 'pulled')
    }
    const position = this.sequence
      ? this.stepSequence(switches, Math.abs(coilVolts(this.sequenceCoil ?? '')), hertz, seconds)
      : null
    return position === null ? moved : withMoved(moved, 'sequence', position)
  }

  /** The sequence switch steps each time its coil is fed again after an interruption. */
  private stepSequence(
    switches: Readonly<Record<string, string>>,
    fed: number,
    hertz: number,
    seconds: number,
  ): string | null {
    const { sequence, sticky } = this
    if (!sequence) return null
    const pullInVolts = sticky?.pullInVolts ?? SEQUENCE_PULL_IN_VOLTS
    if (hertz > 0 && fed > 0 && fed < pullInVolts) return null
    if (fed < SEQUENCE_LET_GO_VOLTS) {
      this.unfedSince ??= seconds
      return null
    }
    if (fed < pullInVolts) return null
    let position: string | null = null
    if (
      this.unfedSince !== null &&
      seconds - this.unfedSince > INTERRUPTION_SECONDS &&
      seconds > INTERRUPTION_SECONDS
    ) {
      const at = sequence.positions.findIndex((entry) => entry.id === switches.sequence)
      const luck = sticky ? this.random.between(0, 1) : 1
      const steps = !sticky || luck >= sticky.missedShare + sticky.doubledShare ? 1 : luck < sticky.missedShare ? 0 : 2
      position = sequence.positions[(at + steps) % sequence.positions.length]?.id ?? sequence.rest
    }
    this.unfedSince = null
    return position
  }
}

function withMoved(
  moved: Readonly<Record<string, string>> | null,
  id: string,
  to: string,
): Readonly<Record<string, string>> {
  return { ...(moved ?? {}), [id]: to }
}
