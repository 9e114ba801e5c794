import { Circuit } from './circuit'
import type { EngineDescription } from './description-schema'
import { operatingPoint } from './operating-point'

/** One place where the engine can touch the track. */
export interface PickupPoint {
  readonly id: string
  readonly unit: string
  readonly truck: string | null
  /** Distance from the front of its unit, mm. */
  readonly xMm: number
  readonly side: 'left' | 'right' | 'centre'
  readonly rail: 'plus' | 'minus' | null
  readonly component: string | null
  readonly insulated: boolean
  readonly tyre: boolean
  /** A motor would run on this point alone for its rail. */
  readonly collects: boolean
}

/** A motor that takes less than this share of its usual current is not fed. */
const FED_SHARE = 0.2

/**
 * Which wheels, rollers and shoes bring current to a motor: each is asked alone, all others of its rail lifted.
 *
 * @param description the engine; switches at a position in which it runs
 * @param running switch positions in which it runs
 * @example pickupMap(describeConstruction('tank-can')).filter(({ collects }) => collects).length // 6
 */
export function pickupMap(
  description: EngineDescription,
  running: Readonly<Record<string, string>> = runningPositions(description),
): PickupPoint[] {
  const circuit = new Circuit(description)
  const { plus, minus } = description.rails
  const points = touchingPoints(description)
  const railOf = (component: string | null): 'plus' | 'minus' | null => {
    const ends = description.components.find((entry) => entry.id === component)
    return !ends
      ? null
      : ends.from === plus || ends.to === plus
        ? 'plus'
        : ends.from === minus || ends.to === minus
          ? 'minus'
          : null
  }
  const motorAmps = (open: readonly string[]): number => {
    const states = Object.fromEntries(open.map((id) => [id, 'open' as const]))
    const point = operatingPoint(circuit, { states, switches: running }, { plus, minus, volts: 12 })
    return point.motors.reduce((sum, motor) => sum + Math.abs(motor.amps), 0)
  }
  const usual = motorAmps([])
  return points.map((point) => {
    const rail = railOf(point.component)
    const others = points.flatMap((other) =>
      other !== point && other.component && railOf(other.component) === rail ? [other.component] : [],
    )
    return { ...point, rail, collects: point.component !== null && usual > 0 && motorAmps(others) > FED_SHARE * usual }
  })
}

/**
 * Positions of the switches in which the motors run: the first that lets current through, tried in order.
 *
 * @example runningPositions(describeConstruction('three-rail-single')) // { sequence: 'forward' }
 */
export function runningPositions(description: EngineDescription): Record<string, string> {
  const positions = Object.fromEntries(description.switches.map((entry) => [entry.id, entry.rest]))
  if (description.motors.length === 0) return positions
  const circuit = new Circuit(description)
  const amps = (switches: Record<string, string>): number =>
    operatingPoint(
      circuit,
      { switches },
      { plus: description.rails.plus, minus: description.rails.minus, volts: 12 },
    ).motors.reduce((sum, motor) => sum + Math.abs(motor.amps), 0)
  let best = { amps: amps(positions), positions }
  for (const entry of description.switches) {
    for (const { id } of entry.positions) {
      const tried = { ...best.positions, [entry.id]: id }
      const found = amps(tried)
      if (found > best.amps * 1.05) best = { amps: found, positions: tried }
    }
  }
  return best.positions
}

/** The touching point of a wheel: “driver-1.left”. */
export const wheelPoint = (wheelSet: string, side: 'left' | 'right'): string => `${wheelSet}.${side}`

function touchingPoints(description: EngineDescription): Array<Omit<PickupPoint, 'rail' | 'collects'>> {
  const wheels = description.wheelSets.flatMap((wheelSet) =>
    (['left', 'right'] as const).map((side) => ({
      id: wheelPoint(wheelSet.id, side),
      unit: wheelSet.unit,
      truck: wheelSet.truck,
      xMm: wheelSet.xMm,
      side,
      component: wheelSet[side].tread,
      insulated: wheelSet[side].insulated,
      tyre: wheelSet[side].tyre,
    })),
  )
  const centre = description.centrePickups.map((pickup) => ({
    id: pickup.id,
    unit: pickup.unit,
    truck: null,
    xMm: pickup.xMm,
    side: 'centre' as const,
    component: pickup.tread,
    insulated: false,
    tyre: false,
  }))
  return [...wheels, ...centre]
}
