import type { CurrentTrait, MotorTrait, WheelTrait } from '~~/core/knowledge/identify/construction-traits'

/** A drawing of one answer: what it is about is marked, everything else is a thin line. */
export interface TraitDrawing {
  /** From the side on a rail, or from below between two. */
  readonly view: 'side' | 'below'
  readonly wheels: ReadonlyArray<{
    readonly x: number
    readonly y: number
    readonly r: number
    readonly marked: boolean
  }>
  readonly boxes: ReadonlyArray<{
    readonly x: number
    readonly y: number
    readonly width: number
    readonly height: number
    readonly marked: boolean
  }>
  /** Paths: thin, or marked. */
  readonly lines: ReadonlyArray<{ readonly path: string; readonly marked: boolean }>
}

/** Size of every drawing; the rail of a side view. */
export const TRAIT = { width: 132, height: 66, railY: 59 } as const
const [UPPER, LOWER, MIDDLE] = [14, 52, 33] as const

const wheel = (x: number, r: number, marked: boolean) => ({ x, y: TRAIT.railY - r, r, marked })
const box = (x: number, y: number, width: number, height: number, marked = false) => ({ x, y, width, height, marked })
const line = (path: string, marked = false) => ({ path, marked })
const shell = box(8, 14, 116, 24)
const bogies = [line('M16,46 H48'), line('M84,46 H116')]
const side = (parts: Partial<TraitDrawing>): TraitDrawing => ({
  view: 'side',
  wheels: [],
  boxes: [shell],
  lines: [],
  ...parts,
})
const onFrame = (marked: boolean) => [38, 66, 94].map((x) => wheel(x, 11, marked))
const onBogies = (...marked: readonly boolean[]) =>
  [20, 44, 88, 112].map((x, index) => wheel(x, 8, marked[index] === true))

export const wheelDrawings: Readonly<Record<WheelTrait, TraitDrawing>> = {
  'coupled-axles': side({ wheels: onFrame(true), lines: [line('M38,53 H94', true)] }),
  'two-coupled-groups': side({
    wheels: [16, 34, 52, 80, 98, 116].map((x) => wheel(x, 8, true)),
    lines: [line('M16,54 H52', true), line('M80,54 H116', true)],
  }),
  'frame-axles': side({ wheels: [44, 88].map((x) => wheel(x, 11, true)) }),
  'one-axle': side({ wheels: onBogies(true), lines: bogies }),
  'one-bogie': side({ wheels: onBogies(true, true), lines: bogies }),
  'both-bogies': side({ wheels: onBogies(true, true, true, true), lines: bogies }),
}

export const motorDrawings: Readonly<Record<MotorTrait, TraitDrawing>> = {
  'over-an-axle': side({
    wheels: onFrame(false),
    boxes: [shell, box(84, 18, 30, 15, true)],
    lines: [line('M84,26 H66 V42', true)],
  }),
  'shaft-both-ways': side({
    wheels: onBogies(),
    boxes: [shell, box(50, 18, 32, 15, true)],
    lines: [line('M50,26 H32 V44', true), line('M82,26 H100 V44', true), ...bogies],
  }),
  'shaft-one-way': side({
    wheels: onBogies(),
    boxes: [shell, box(58, 18, 32, 15, true)],
    lines: [line('M58,26 H32 V44', true), ...bogies],
  }),
  'in-a-bogie': side({ wheels: onBogies(), boxes: [shell, box(17, 32, 30, 15, true)], lines: bogies }),
  'one-each': side({
    wheels: onBogies(),
    boxes: [shell, box(20, 18, 24, 15, true), box(88, 18, 24, 15, true)],
    lines: [line('M32,33 V44', true), line('M100,33 V44', true), ...bogies],
  }),
}

const axlesAt = [30, 66, 102] as const
const below = (parts: Partial<TraitDrawing>): TraitDrawing => ({
  view: 'below',
  wheels: [],
  boxes: axlesAt.flatMap((x) => [box(x - 9, UPPER - 4, 18, 8), box(x - 9, LOWER - 4, 18, 8)]),
  lines: axlesAt.map((x) => line(`M${x},${UPPER + 4} V${LOWER - 4}`)),
  ...parts,
})
const upperWipers = axlesAt.map((x) => line(`M${x - 12},${UPPER + 8} q12,7 24,0`, true))
const lowerWipers = axlesAt.map((x) => line(`M${x - 12},${LOWER - 8} q12,-7 24,0`, true))
const plain = below({})

export const currentDrawings: Readonly<Record<CurrentTrait, TraitDrawing>> = {
  wipers: below({ lines: [...plain.lines, ...upperWipers, ...lowerWipers] }),
  'wipers-and-frame': below({
    boxes: [...plain.boxes, box(14, MIDDLE - 2, 104, 16, true)],
    lines: [...plain.lines, ...upperWipers],
  }),
  'frame-halves': below({
    boxes: [...plain.boxes, box(14, MIDDLE - 12, 104, 9, true), box(14, MIDDLE + 3, 104, 9, true)],
  }),
  cups: below({
    wheels: axlesAt.flatMap((x) => [UPPER - 8, LOWER + 8].map((y) => ({ x, y, r: 4, marked: true }))),
  }),
  'unit-each': below({
    boxes: [
      ...[26, 52, 88, 112].flatMap((x) => [box(x - 9, UPPER - 4, 18, 8), box(x - 9, LOWER - 4, 18, 8)]),
      box(10, 22, 60, 22),
      box(78, 22, 46, 22),
    ],
    lines: [
      ...[26, 52, 88, 112].map((x) => line(`M${x},${UPPER + 4} V${LOWER - 4}`)),
      ...[26, 52].map((x) => line(`M${x - 11},${UPPER + 8} q11,6 22,0`, true)),
      ...[88, 112].map((x) => line(`M${x - 11},${LOWER - 8} q11,-6 22,0`, true)),
      line('M70,33 H78'),
    ],
  }),
  'truck-each': below({
    boxes: [
      ...[22, 44, 90, 112].flatMap((x) => [box(x - 9, UPPER - 4, 18, 8), box(x - 9, LOWER - 4, 18, 8)]),
      box(4, 4, 124, 58),
      box(12, 24, 42, 18),
      box(80, 24, 42, 18),
    ],
    lines: [
      ...[22, 44, 90, 112].map((x) => line(`M${x},${UPPER + 4} V${LOWER - 4}`)),
      ...[22, 44].map((x) => line(`M${x - 10},${UPPER + 8} q10,6 20,0`, true)),
      ...[90, 112].map((x) => line(`M${x - 10},${LOWER - 8} q10,-6 20,0`, true)),
    ],
  }),
  'centre-rail': below({
    boxes: [...plain.boxes, box(54, MIDDLE - 6, 24, 12, true)],
    lines: [...plain.lines, line(`M2,${MIDDLE} H130`)],
  }),
}
