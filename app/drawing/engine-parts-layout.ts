import { scaleLinear } from 'd3-scale'
import { tyreOf } from '~~/core/engine/tyre-of'
import type { EngineDescription, Part } from '~~/core/engine/description-schema'
import { partsOfMotor } from '~~/core/engine/parts-of-motor'
import { trainLayout } from '~~/core/engine/train-layout'

/** Which way a thing leaves the engine. */
export type WayOut = 'up' | 'down' | 'side'

/** One shape of the drawing, and the parts it stands for. */
export interface PartShape {
  readonly key: string
  readonly parts: readonly string[]
  readonly label: string
  readonly layer: 'lid' | 'inside' | 'running-gear'
  readonly shape: {
    readonly kind: 'box' | 'wheel'
    readonly x: number
    readonly y: number
    readonly width: number
    readonly height: number
  }
  readonly out: WayOut
}

export const DRAWING = { width: 1100, height: 330, railY: 284 } as const
const FRAME_Y = 178
const FRAME_HEIGHT = 16
const BODY_TOP = 44

/**
 * The engine from the side, schematic: shells over a frame over wheels, what is inside where its kind usually sits.
 * No maker's drawing and no scale but that of the wheels along the frame: enough to point at the thing in hand.
 */
export function layOutParts(whole: EngineDescription, only: string | null = null): PartShape[] {
  const units = whole.units.filter((unit) => only === null || unit.id === only)
  const description = { ...whole, units: units.length > 0 ? units : whole.units }
  const train = trainLayout(description)
  const end = train.reduce((most, unit) => Math.max(most, unit.startMm + unit.lengthMm), 0)
  const across = scaleLinear([0, end], [20, DRAWING.width - 20])
  return description.units.flatMap((unit) => {
    const place = train.find((entry) => entry.unit === unit.id)
    const left = across(place?.startMm ?? 0)
    const right = across((place?.startMm ?? 0) + (place?.lengthMm ?? 0))
    const at = (mm: number): number => across((place?.startMm ?? 0) + mm)
    const own = description.parts.filter((part) => part.unit === unit.id)
    const wheels = wheelShapes(description, unit.id, at, across(1) - across(0))
    return [
      ...lidShapes(own, left, right),
      ...frameShapes(own, left, right),
      ...insideShapes(description, own, left, right, wheels),
      ...wheels,
    ]
  })
}

const idsOf = (parts: readonly Part[], ...kinds: Part['kind'][]): string[] =>
  parts.filter((part) => kinds.includes(part.kind)).map((part) => part.id)

function box(
  key: string,
  parts: readonly string[],
  label: string,
  layer: PartShape['layer'],
  [x, y, width, height]: readonly number[],
  out: WayOut,
): PartShape[] {
  if (parts.length === 0) return []
  return [
    {
      key,
      parts,
      label,
      layer,
      shape: { kind: 'box', x: x ?? 0, y: y ?? 0, width: width ?? 0, height: height ?? 0 },
      out,
    },
  ]
}

function lidShapes(own: readonly Part[], left: number, right: number): PartShape[] {
  const bodies = own.filter((part) => part.kind === 'body')
  const width = right - left
  const shells = bodies.flatMap((part, index) =>
    box(
      part.id,
      [part.id],
      part.name,
      'lid',
      [left + (width / bodies.length) * index, BODY_TOP, width / bodies.length, FRAME_Y - BODY_TOP],
      'up',
    ),
  )
  const fasteners = own.filter((part) => part.kind === 'fastener')
  const heads = fasteners.flatMap((part, index) =>
    box(
      part.id,
      [part.id],
      part.name,
      'lid',
      [left + ((index + 0.5) * width) / fasteners.length - 7, FRAME_Y + FRAME_HEIGHT + 2, 14, 12],
      'down',
    ),
  )
  const details = own.filter((part) => part.kind === 'detail')
  const trim = details.flatMap((part, index) =>
    box(
      part.id,
      [part.id],
      part.name,
      'lid',
      [left + ((index + 0.5) * width) / details.length - 18, BODY_TOP - 14, 36, 12],
      'up',
    ),
  )
  const couplings = own.filter((part) => part.kind === 'coupling')
  const hooks = couplings.flatMap((part, index) =>
    box(
      part.id,
      [part.id],
      part.name,
      'running-gear',
      [index % 2 === 0 ? right - 4 : left - 14, FRAME_Y + 2, 18, 12],
      'side',
    ),
  )
  return [...shells, ...trim, ...heads, ...hooks]
}

function frameShapes(own: readonly Part[], left: number, right: number): PartShape[] {
  const frames = own.filter((part) => part.kind === 'chassis')
  return frames.flatMap((part, index) =>
    box(
      part.id,
      [part.id],
      part.name,
      'running-gear',
      [
        left + 6,
        FRAME_Y + (index === 0 ? 0 : FRAME_HEIGHT + 12 + 11 * (index - 1)),
        right - left - 12,
        index === 0 ? FRAME_HEIGHT : 8,
      ],
      'down',
    ),
  )
}

/** What sits inside, row over row: weight, board and lamps above, the motor in the middle of what it drives. */
function insideShapes(
  description: EngineDescription,
  own: readonly Part[],
  left: number,
  right: number,
  wheels: readonly PartShape[],
): PartShape[] {
  const width = right - left
  const centre =
    wheels.length > 0
      ? wheels.reduce((sum, { shape }) => sum + shape.x + shape.width / 2, 0) / wheels.length
      : (left + right) / 2
  const motors = description.motors.filter((motor) => own.some((part) => part.id === motor.part))
  const motorParts = idsOf(own, 'motor', 'motor-part')
  const motorWidth = Math.min(150, width * 0.3)
  const spread = motors.length > 1 ? width * 0.44 : 0
  const motorShapes = (motors.length > 0 ? motors : [null]).flatMap((motor, index) =>
    box(
      motor?.id ?? `${left}-motor`,
      motor && motors.length > 1 ? [...partsOfMotor(description, motor)] : motorParts,
      motor?.name ?? 'Motor',
      'inside',
      [
        Math.min(right - motorWidth - 8, Math.max(left + 8, centre - motorWidth / 2 - spread / 2 + spread * index)),
        112,
        motorWidth,
        60,
      ],
      'up',
    ),
  )
  return [
    ...box(
      `${left}-weight`,
      idsOf(own, 'weight'),
      'Weight',
      'inside',
      [left + width * 0.06, 66, width * 0.34, 26],
      'up',
    ),
    ...box(
      `${left}-board`,
      idsOf(own, 'board', 'switch'),
      'Board and switch',
      'inside',
      [left + width * 0.62, 66, width * 0.26, 20],
      'up',
    ),
    ...box(`${left}-leads`, idsOf(own, 'lead'), 'Leads', 'inside', [left + width * 0.44, 74, width * 0.14, 6], 'up'),
    ...box(`${left}-lamps`, idsOf(own, 'lamp'), 'Lamps', 'inside', [left + 8, 112, 16, 20], 'up'),
    ...motorShapes,
    ...box(
      `${left}-gears`,
      idsOf(own, 'gear', 'shaft'),
      'Worm, gears, shafts',
      'inside',
      [Math.max(left + 8, centre - motorWidth * 0.25), FRAME_Y + FRAME_HEIGHT, motorWidth * 0.5, 22],
      'down',
    ),
    ...box(`${left}-rods`, idsOf(own, 'rod'), 'Rods', 'running-gear', rodsBox(wheels, left, width), 'side'),
  ]
}

function rodsBox(wheels: readonly PartShape[], left: number, width: number): number[] {
  const middles = wheels.map(({ shape }) => shape.x + shape.width / 2)
  const from = middles.length > 0 ? Math.min(...middles) : left
  const to = middles.length > 0 ? Math.max(...middles) : left + width
  return [from, DRAWING.railY - 30, Math.max(20, to - from), 8]
}

function wheelShapes(
  description: EngineDescription,
  unit: string,
  at: (mm: number) => number,
  perMm: number,
): PartShape[] {
  return description.wheelSets
    .filter((wheelSet) => wheelSet.unit === unit)
    .map((wheelSet): PartShape => {
      const size = Math.min(74, Math.max(26, wheelSet.diameterMm * perMm))
      const axle = description.rotors.find((rotor) => rotor.id === wheelSet.rotor)?.part ?? wheelSet.id
      const rims = [wheelSet.left, wheelSet.right]
      const treads = new Set(rims.flatMap((wheel) => (wheel.tread ? [wheel.tread] : [])))
      const nodes = new Set(
        description.components.filter((entry) => treads.has(entry.id)).flatMap((entry) => [entry.from, entry.to]),
      )
      const wipers = description.components
        .filter((entry) => entry.kind === 'contact' && (nodes.has(entry.from) || nodes.has(entry.to)))
        .flatMap((entry) => entry.part ?? [])
      const pickups = wipers.filter((id) => description.parts.find((part) => part.id === id)?.kind === 'pickup')
      const tyres = rims.flatMap((wheel) => tyreOf(description, wheel) ?? []).filter((part) => part.removal)
      return {
        key: wheelSet.id,
        parts: [axle, ...rims.map((wheel) => wheel.part), ...pickups, ...tyres.map((part) => part.id)],
        label: wheelSet.name,
        layer: 'running-gear',
        shape: { kind: 'wheel', x: at(wheelSet.xMm) - size / 2, y: DRAWING.railY - size, width: size, height: size },
        out: 'down',
      }
    })
}
