import { scaleLinear } from 'd3-scale'
import { tyreOf } from '~~/core/engine/tyre-of'
import type { EngineDescription, Part, PartKind } from '~~/core/engine/description-schema'
import { partsOfMotor } from '~~/core/engine/parts-of-motor'
import { trainLayout } from '~~/core/engine/train-layout'
import { DRAWING, type PartShape } from './engine-parts-layout'

/** Where the wheels of the left and the right side lie; turned over, the right one is at the bottom. */
const LEFT_Y = 96
const RIGHT_Y = 234
const MIDDLE_Y = (LEFT_Y + RIGHT_Y) / 2
const WHEEL_WIDTH = 20
/** A strip lies so much further in than the wipers it carries. */
const CARRIER_STEP = 11

/** Kinds that are seen, and worked at, from below. */
export const seenFromBelow: ReadonlySet<PartKind> = new Set([
  'axle',
  'wheel',
  'tyre',
  'pickup',
  'gear',
  'shaft',
  'rod',
  'chassis',
])

/**
 * The engine turned over in its cradle, front at the left: wheels, axles, what collects at them, gears and motor
 * between, plates and frames across. Schematic: enough to point at the thing in hand.
 *
 * @param only of one unit; all of them where it is null
 */
export function layOutFromBelow(whole: EngineDescription, only: string | null = null): PartShape[] {
  const units = whole.units.filter((unit) => only === null || unit.id === only)
  const description = { ...whole, units: units.length > 0 ? units : whole.units }
  const train = trainLayout(description)
  const end = train.reduce((most, unit) => Math.max(most, unit.startMm + unit.lengthMm), 0)
  const across = scaleLinear([0, end], [20, DRAWING.width - 20])
  return train.flatMap(({ unit, startMm, lengthMm }) => {
    const own = whole.parts.filter((part) => part.unit === unit)
    const at = (mm: number): number => across(startMm + mm)
    const [left, right] = [across(startMm), across(startMm + lengthMm)]
    return [
      ...platesOf(own, left, right),
      ...motorsOf(whole, unit, at, left, right),
      ...axlesOf(whole, unit, at, across(1) - across(0)),
      ...collectorsOf(whole, own, unit, at),
      ...rodsOf(whole, own, unit, at),
    ]
  })
}

function shape(
  key: string,
  parts: readonly string[],
  label: string,
  [x, y, width, height]: readonly [number, number, number, number],
  out: PartShape['out'] = 'down',
): PartShape {
  return { key, parts, label, layer: 'running-gear', shape: { kind: 'box', x, y, width, height }, out }
}

/** Frames and plates lie across everything, one inside the other; what holds them stands along the middle. */
function platesOf(own: readonly Part[], left: number, right: number): PartShape[] {
  const frames = own.filter((part) => part.kind === 'chassis')
  const plates = frames.map((part, index) => {
    const inset = Math.min(10 + 14 * index, (right - left) / 2 - 20)
    return shape(part.id, [part.id], part.name, [
      left + inset,
      42 + 9 * index,
      right - left - 2 * inset,
      2 * (MIDDLE_Y - 42 - 9 * index),
    ])
  })
  const held = own.filter((part) => part.kind === 'fastener')
  const heads = held.map((part, index) =>
    shape(part.id, [part.id], part.name, [left + ((index + 0.5) * (right - left)) / held.length - 6, 50, 12, 12]),
  )
  return [...plates, ...heads]
}

function motorsOf(
  description: EngineDescription,
  unit: string,
  at: (mm: number) => number,
  left: number,
  right: number,
): PartShape[] {
  const motors = description.motors.filter(
    (motor) => description.parts.find((part) => part.id === motor.part)?.unit === unit,
  )
  const sets = description.wheelSets.filter((wheelSet) => wheelSet.unit === unit)
  const middle = sets.length > 0 ? at(sets.reduce((sum, { xMm }) => sum + xMm, 0) / sets.length) : (left + right) / 2
  const width = Math.min(120, (right - left) * 0.24)
  const step = motors.length > 1 ? (right - left) * 0.42 : 0
  const gears = description.parts.filter(
    (part) => part.unit === unit && (part.kind === 'gear' || part.kind === 'shaft'),
  )
  return [
    ...motors.map((motor, index) =>
      shape(
        motor.id,
        [...partsOfMotor(description, motor)],
        motor.name,
        [middle - width / 2 + step * (index - (motors.length - 1) / 2), MIDDLE_Y - 28, width, 56],
        'up',
      ),
    ),
    ...gears.map((part, index) =>
      shape(part.id, [part.id], part.name, [
        middle + (index - (gears.length - 1) / 2) * 30 - 11,
        MIDDLE_Y + 34,
        22,
        16,
      ]),
    ),
  ]
}

function axlesOf(description: EngineDescription, unit: string, at: (mm: number) => number, perMm: number): PartShape[] {
  return description.wheelSets
    .filter((wheelSet) => wheelSet.unit === unit)
    .flatMap((wheelSet) => {
      const x = at(wheelSet.xMm)
      const length = Math.min(70, Math.max(22, wheelSet.diameterMm * perMm))
      const axle = description.rotors.find((rotor) => rotor.id === wheelSet.rotor)?.part ?? wheelSet.id
      const wheel = (side: 'left' | 'right') => {
        const y = side === 'left' ? LEFT_Y : RIGHT_Y
        const { part, tyre } = wheelSet[side]
        const tyrePart = tyreOf(description, wheelSet[side])
        return [
          shape(`${wheelSet.id}.${side}`, [part, axle], `${wheelSet.name}, ${side}`, [
            x - length / 2,
            y - WHEEL_WIDTH / 2,
            length,
            WHEEL_WIDTH,
          ]),
          ...(tyre
            ? [
                shape(
                  `${wheelSet.id}.${side}.tyre`,
                  tyrePart ? [tyrePart.id] : [],
                  `Tyre of the ${wheelSet.name}, ${side}`,
                  [x - length / 2, y - 4, length, 8],
                ),
              ]
            : []),
        ]
      }
      return [
        shape(wheelSet.id, [axle], wheelSet.name, [x - 3, LEFT_Y, 6, RIGHT_Y - LEFT_Y]),
        ...wheel('left'),
        ...wheel('right'),
      ].filter((entry) => entry.parts.length > 0)
    })
}

/** What touches the wheels of one side reaches from the first to the last of them. */
function collectorsOf(
  description: EngineDescription,
  own: readonly Part[],
  unit: string,
  at: (mm: number) => number,
): PartShape[] {
  const rimSide = new Map<string, { readonly x: number; readonly side: 'left' | 'right' }>()
  for (const wheelSet of description.wheelSets.filter((entry) => entry.unit === unit))
    for (const side of ['left', 'right'] as const) {
      const tread = description.components.find((component) => component.id === wheelSet[side].tread)
      if (tread) rimSide.set(tread.to, { x: at(wheelSet.xMm), side })
    }
  const centres = new Map(description.centrePickups.map((entry) => [entry.part, at(entry.xMm)]))
  return own
    .filter((part) => part.kind === 'pickup')
    .flatMap((part): PartShape[] => {
      const centre = centres.get(part.id)
      if (centre !== undefined) return [shape(part.id, [part.id], part.name, [centre - 22, MIDDLE_Y - 9, 44, 18])]
      const own = description.components.filter((component) => component.part === part.id)
      const rims = (components: typeof own) =>
        components.flatMap((component) => rimSide.get(component.from) ?? rimSide.get(component.to) ?? [])
      const direct = rims(own)
      // A strip that touches no wheel itself carries the wipers that lead to it.
      const nodes = new Set(own.flatMap(({ from, to }) => [from, to]))
      const carried = direct.length > 0 ? [] : rims(description.components.filter(({ to }) => nodes.has(to)))
      const inwards = direct.length > 0 ? 0 : CARRIER_STEP
      return (['left', 'right'] as const).flatMap((side) => {
        const here = [...direct, ...carried].filter((entry) => entry.side === side).map(({ x }) => x)
        if (here.length === 0) return []
        const [from, to] = [Math.min(...here) - 16, Math.max(...here) + 16]
        const y = side === 'left' ? LEFT_Y + WHEEL_WIDTH / 2 + 4 + inwards : RIGHT_Y - WHEEL_WIDTH / 2 - 12 - inwards
        return [shape(`${part.id}.${side}`, [part.id], part.name, [from, y, to - from, 8])]
      })
    })
}

/** Rods lie outside the wheels, on both sides. */
function rodsOf(
  description: EngineDescription,
  own: readonly Part[],
  unit: string,
  at: (mm: number) => number,
): PartShape[] {
  return own
    .filter((part) => part.kind === 'rod')
    .flatMap((part) => {
      const rotors = new Set(
        description.links.filter((link) => link.part === part.id).flatMap((link) => [link.from, link.to]),
      )
      const sets = description.wheelSets.filter((wheelSet) => wheelSet.unit === unit)
      const linked = sets.filter((wheelSet) => rotors.has(wheelSet.rotor))
      // Valve gear drives nothing: it hangs beside all of them.
      const coupled = linked.length > 0 ? linked : sets
      if (coupled.length === 0) return []
      const places = coupled.map(({ xMm }) => at(xMm))
      const [from, to] = [Math.min(...places) - 8, Math.max(...places) + 8]
      return [LEFT_Y - 22, RIGHT_Y + 14].map((y, index) =>
        shape(`${part.id}.${index}`, [part.id], part.name, [from, y, to - from, 8], 'side'),
      )
    })
}
