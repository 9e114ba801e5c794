import type { ComponentState } from '../../engine/description-schema'
import type { ElectricalFault } from './electrical-signature'
import type { Suspect } from '../places/suspects'

/** How a suspect shows itself to the circuit and the drive. */
export interface CircuitSuspect {
  readonly fault: ElectricalFault
  /** Links that do not carry. */
  readonly slips: readonly string[]
  readonly shows: 'always' | 'now-and-then' | 'film'
  /** Two suspects with the same key do the same to the circuit. */
  readonly key: string
}

/** The magnet, winding or drag of which motor a place belongs to; the first where the place is of the whole engine. */
export function circuitSuspectOf(
  { fault: { effect }, place }: Suspect,
  firstMotor: string | null,
): CircuitSuspect | null {
  const motor = place.motor ?? firstMotor
  const always = (fault: ElectricalFault, key: string, slips: readonly string[] = []): CircuitSuspect => ({
    fault,
    slips,
    shows: 'always',
    key,
  })
  switch (effect.kind) {
    case 'component': {
      const states: Record<string, ComponentState> = Object.fromEntries(
        place.components.map((id) => [id, effect.state]),
      )
      return { fault: { states }, slips: [], shows: effect.shows, key: `${effect.state}:${place.components.join()}` }
    }
    case 'magnet':
      return motor ? always({ magnets: { [motor]: effect.strength } }, `magnet:${motor}:${effect.strength}`) : null
    case 'drag':
      return { fault: { drag: effect.times }, slips: [], shows: effect.shows, key: `drag:${effect.times}` }
    case 'winding':
      return motor
        ? always({ armature: { motor, defect: { kind: effect.defect } } }, `${effect.defect}:${motor}`)
        : null
    case 'gap-bridge':
      return motor
        ? always(
            { armature: { motor, defect: { kind: 'gap-bridged', ohms: effect.ohms } } },
            `gap-bridged:${effect.ohms}:${motor}`,
          )
        : null
    case 'slip':
      return always({}, `slip:${place.links[0] ?? ''}`, place.links.slice(0, 1))
    case 'turned':
      return place.turnable ? always({ turned: place.turnable }, `turned:${place.turnable}`) : null
    case 'supply':
      return { fault: { supply: effect.state }, slips: [], shows: effect.shows, key: `supply:${effect.state}` }
    case 'decoder':
      return always({ decoderRunsOn: effect.runsOn }, `decoder:${effect.runsOn.join()}`)
    case 'none':
      return null
  }
}
