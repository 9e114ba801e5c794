import type { Pole } from '../engine/poles'

/** A place where the engine touches the track and collects. */
export interface ContactPoint {
  readonly id: string
  readonly pole: Pole
  /** Distance behind the front of the train, mm. */
  readonly atMm: number
  /** Chance that it fails to touch where the rail is live. */
  readonly failChance: number
}

/** A piece of track that gives nothing to one pole, or to both; measured along the track, mm. */
export interface DeadStretch {
  readonly pole: Pole | 'both'
  readonly fromMm: number
  readonly toMm: number
}

export interface StallQuestion {
  readonly points: readonly ContactPoint[]
  readonly stretches: readonly DeadStretch[]
  /** How far it rolls, or is carried by what it stores, without supply, mm. */
  readonly bridgedMm?: number
  /** How far a wheel travels before its touch is a matter of new luck, mm. */
  readonly patchMm?: number
}

export interface StallPosition {
  /** Where the front of the train stands on the track, mm. */
  readonly frontMm: number
  /** Points on live metal. */
  readonly live: Readonly<Record<Pole, number>>
  /** Chance that nothing is supplied here. */
  readonly noSupply: number
}

export interface StallRisk {
  /** Millimetre by millimetre, from the first wheel onto the dead piece until the last is off. */
  readonly positions: readonly StallPosition[]
  readonly worst: StallPosition
  /** Length of the pass over which a rail has no point at all, mm. */
  readonly withoutContactMm: number
  /** Longest such piece in one go, mm. */
  readonly longestWithoutMm: number
  readonly interruptionsPerPass: number
  /** Interruptions longer than it is carried. */
  readonly stopsPerPass: number
}

const STEP_MM = 1
/** From memory: a speck or patch of dirt on a tread or rail is of this order. */
export const PATCH_MM = 4

/**
 * Moves an engine over dead pieces of track and asks at every millimetre whether both rails still supply it.
 *
 * At one place every point fails by itself: no supply has the chance 1 − (1 − Πp₊)(1 − Πp₋), the products over the
 * points on live metal (derived from independence). Along the way luck is drawn anew every patch; an interruption
 * begins where it was supplied a millimetre before, and a stop is one that lasts longer than the engine is carried.
 *
 * @param question points and stretches; mm
 * @throws RangeError where a stretch ends before it begins, or a chance is none
 * @example
 * stallRisk({
 *   points: [
 *     { id: 'a', pole: 'plus', atMm: 10, failChance: 0 },
 *     { id: 'b', pole: 'minus', atMm: 10, failChance: 0 },
 *   ],
 *   stretches: [{ pole: 'plus', fromMm: 0, toMm: 12 }],
 * }).longestWithoutMm // 12
 */
export function stallRisk({ points, stretches, bridgedMm = 0, patchMm = PATCH_MM }: StallQuestion): StallRisk {
  for (const point of points)
    if (!(point.failChance >= 0 && point.failChance <= 1))
      throw new RangeError(`The chance that ${point.id} fails must lie between 0 and 1, not ${point.failChance}.`)
  for (const stretch of stretches)
    if (!(stretch.toMm > stretch.fromMm)) throw new RangeError('A dead stretch must end behind where it begins.')
  if (!(patchMm > 0) || !(bridgedMm >= 0))
    throw new RangeError('Patch and bridged distance are lengths in millimetres.')
  const length = Math.max(0, ...points.map((point) => point.atMm))
  // A patch of live track before and after: an interruption must have something to interrupt.
  const start = Math.floor(Math.min(0, ...stretches.map((stretch) => stretch.fromMm)) - patchMm)
  const end = Math.ceil(Math.max(0, ...stretches.map((stretch) => stretch.toMm)) + length + patchMm)
  const positions: StallPosition[] = []
  for (let frontMm = start; frontMm <= end; frontMm += STEP_MM) positions.push(positionAt(frontMm, points, stretches))
  const dead = positions.map((position) => position.live.plus === 0 || position.live.minus === 0)
  let [longest, run] = [0, 0]
  for (const without of dead) {
    run = without ? run + STEP_MM : 0
    longest = Math.max(longest, run)
  }
  return {
    positions,
    worst: positions.reduce((worst, position) => (position.noSupply > worst.noSupply ? position : worst)),
    withoutContactMm: dead.filter(Boolean).length * STEP_MM,
    longestWithoutMm: longest,
    interruptionsPerPass: expectedRuns(positions, patchMm, 0),
    stopsPerPass: expectedRuns(positions, patchMm, bridgedMm),
  }
}

function positionAt(
  frontMm: number,
  points: readonly ContactPoint[],
  stretches: readonly DeadStretch[],
): StallPosition {
  const live: Record<Pole, number> = { plus: 0, minus: 0 }
  const fails: Record<Pole, number> = { plus: 1, minus: 1 }
  for (const point of points) {
    const at = frontMm - point.atMm
    if (
      stretches.some(
        (stretch) =>
          (stretch.pole === 'both' || stretch.pole === point.pole) && at >= stretch.fromMm && at < stretch.toMm,
      )
    )
      continue
    live[point.pole] += 1
    fails[point.pole] *= point.failChance
  }
  return { frontMm, live, noSupply: 1 - (1 - fails.plus) * (1 - fails.minus) }
}

/**
 * Expected number of interruptions that last longer than a distance. Luck is drawn anew every patch and holds within
 * it: there it is dark wherever the chance of no supply lies above what was drawn. Nothing says where the patches
 * begin against the dead piece, so the result is averaged over every beginning.
 */
function expectedRuns(positions: readonly StallPosition[], patchMm: number, longerThanMm: number): number {
  const patch = Math.max(1, Math.round(patchMm / STEP_MM))
  const needed = Math.floor(longerThanMm / STEP_MM + 1e-9) + 1
  const chances = Float64Array.from(positions, (position) => position.noSupply)
  let sum = 0
  for (let phase = 0; phase < patch; phase++)
    for (let first = 1; first + needed <= chances.length; first++)
      sum += chanceOfRun(chances, patch, phase, first, needed)
  return sum / patch
}

/** Chance that it is lit before `first` and dark for the length from there on. */
function chanceOfRun(chances: Float64Array, patch: number, phase: number, first: number, length: number): number {
  const patchOf = (at: number): number => Math.floor((at + phase) / patch)
  const before = chances[first - 1] as number
  let lowest = chances[first] as number
  let product = 1
  // What was drawn before the first dark millimetre still holds if that lies in the same patch.
  let lit = patchOf(first - 1) === patchOf(first) ? before : null
  if (lit === null) product = 1 - before
  for (let at = first + 1; at <= first + length; at++) {
    const ends = at === first + length || patchOf(at) !== patchOf(at - 1)
    if (!ends) {
      lowest = Math.min(lowest, chances[at] as number)
      continue
    }
    product *= lit === null ? lowest : Math.max(0, lowest - lit)
    if (product === 0) return 0
    lit = null
    lowest = chances[at] ?? 0
  }
  return product
}
