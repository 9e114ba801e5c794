import type { EngineDescription } from '../../engine/description-schema'
import { driveTrain } from '../../engine/drive-train'
import type { ElectricalFault, ShownState } from './electrical-signature'
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

/** Of the turns of a coil, where only some are shorted: from memory. */
const SOME_TURNS = 0.4

/**
 * The magnet, winding or drag of the motor a place belongs to; of the first where the place is of the whole engine.
 *
 * @returns null where neither circuit nor drive see anything of it
 */
export function circuitSuspectOf(
  { fault: { effect }, place }: Suspect,
  description: EngineDescription,
  how: 'usual' | 'light' = 'usual',
): CircuitSuspect | null {
  const motor = place.motor ?? description.motors[0]?.id ?? null
  const light = how === 'light'
  const always = (fault: ElectricalFault, key: string, slips: readonly string[] = []): CircuitSuspect => ({
    fault,
    slips,
    shows: 'always',
    key,
  })
  switch (effect.kind) {
    case 'component': {
      const state: ShownState = light && effect.state === 'high-resistance' ? 'some-resistance' : effect.state
      const states: Record<string, ShownState> = Object.fromEntries(place.components.map((id) => [id, state]))
      return { fault: { states }, slips: [], shows: effect.shows, key: `${state}:${place.components.join()}` }
    }
    case 'magnet':
      return motor ? always({ magnets: { [motor]: effect.strength } }, `magnet:${motor}:${effect.strength}`) : null
    case 'drag':
      return { fault: { drag: effect.times }, slips: [], shows: effect.shows, key: `drag:${effect.times}` }
    case 'winding': {
      const defect = { kind: effect.defect, ...(light ? { share: SOME_TURNS } : {}) }
      return motor ? always({ armature: { motor, defect } }, `${effect.defect}:${defect.share ?? 1}:${motor}`) : null
    }
    case 'gap-bridge':
      return motor
        ? always(
            { armature: { motor, defect: { kind: 'gap-bridged', ohms: effect.ohms } } },
            `gap-bridged:${effect.ohms}:${motor}`,
          )
        : null
    case 'slip': {
      const slips = place.links.slice(0, 1)
      return always({ relieved: relievedBy(description, slips) }, `slip:${slips[0] ?? ''}`, slips)
    }
    case 'turned':
      return place.turnable ? always({ turned: place.turnable }, `turned:${place.turnable}`) : null
    case 'supply':
      return { fault: { supply: effect.state }, slips: [], shows: effect.shows, key: `supply:${effect.state}` }
    case 'decoder':
      return always(
        { decoderRunsOn: effect.runsOn, ...(effect.functions ? { functionsObey: true } : {}) },
        `decoder:${effect.runsOn.join()}:${effect.functions ?? ''}`,
      )
    case 'function-dark':
      return always({ functionDark: effect.chance }, `function-dark:${effect.chance}`)
    case 'none':
      return null
  }
}

/** Motors that turn no wheel any more and run light. */
function relievedBy(description: EngineDescription, slips: readonly string[]): string[] {
  const { turning } = driveTrain(description, new Set(slips))
  const driving = new Set(description.wheelSets.map(({ rotor }) => turning.get(rotor)?.motor))
  return description.motors.flatMap(({ id }) => (driving.has(id) ? [] : [id]))
}
