import type { DriveLink, EngineDescription, WheelSet } from './description-schema'
import { inSentence } from './name-in-sentence'

/** One turning part and how it turns when its motor makes one turn. */
export interface TurningPart {
  readonly rotor: string
  readonly motor: string
  /** Turns per motor turn; negative when it turns the other way. Its size is the part's motor order. */
  readonly turnsPerMotorTurn: number
  /** Links from the motor to it, in order. */
  readonly path: readonly string[]
}

export interface DriveTrain {
  readonly turning: ReadonlyMap<string, TurningPart>
  /** Links that ask a part to turn in two ways at once. */
  readonly binds: ReadonlyArray<{
    readonly link: string
    readonly rotor: string
    readonly asked: readonly [number, number]
  }>
  readonly wheels: readonly WheelMotion[]
}

export interface WheelMotion {
  readonly wheelSet: string
  /** Turned by the motor through gears or rods, or only rolling along. */
  readonly driven: boolean
  /** Motor orders of the wheel, driven or rolling; null when nothing drives the engine. */
  readonly order: number | null
  /** Metres forward per radian of the motor, signed; null when it is not driven. */
  readonly travelPerRadian: number | null
}

/** Two ratios closer than this are the same. */
const SAME_RATIO = 1e-6

/**
 * What one turn of `link.from` makes of `link.to`.
 *
 * @example
 * linkRatio({
 *   id: 'w',
 *   name: 'Worm',
 *   kind: 'worm',
 *   from: 'a',
 *   to: 'b',
 *   teethFrom: 1,
 *   teethTo: 20,
 *   reverses: false,
 *   part: null,
 * }) // 0.05
 */
export function linkRatio(link: DriveLink): number {
  const size = link.teethFrom !== null && link.teethTo !== null ? link.teethFrom / link.teethTo : 1
  return link.reverses ? -size : size
}

/**
 * How every shaft, gear, axle and wheel turns when the motor turns once: gear arithmetic along the links.
 *
 * @param description the engine
 * @param without links that do not carry: a split muff, a joint that has slipped out
 * @example driveTrain(describeConstruction('tank-can')).wheels.filter(({ driven }) => driven).length // 3
 */
export function driveTrain(description: EngineDescription, without: ReadonlySet<string> = new Set()): DriveTrain {
  const links = description.links.filter((link) => !without.has(link.id))
  const turning = new Map<string, TurningPart>()
  const binds: Array<DriveTrain['binds'][number]> = []
  const neighbours = new Map<string, Array<{ link: DriveLink; to: string; ratio: number }>>()
  const join = (from: string, link: DriveLink, to: string, ratio: number): void => {
    const list = neighbours.get(from)
    if (list) list.push({ link, to, ratio })
    else neighbours.set(from, [{ link, to, ratio }])
  }
  for (const link of links) {
    join(link.from, link, link.to, linkRatio(link))
    join(link.to, link, link.from, 1 / linkRatio(link))
  }
  for (const motor of description.motors) {
    if (turning.has(motor.rotor)) continue
    turning.set(motor.rotor, { rotor: motor.rotor, motor: motor.id, turnsPerMotorTurn: 1, path: [] })
    const queue = [motor.rotor]
    for (let rotor = queue.shift(); rotor !== undefined; rotor = queue.shift()) {
      const here = turning.get(rotor) as TurningPart
      for (const { link, to, ratio } of neighbours.get(rotor) ?? []) {
        const turns = here.turnsPerMotorTurn * ratio
        const known = turning.get(to)
        if (!known) {
          turning.set(to, { rotor: to, motor: motor.id, turnsPerMotorTurn: turns, path: [...here.path, link.id] })
          queue.push(to)
        } else if (
          known.motor === motor.id &&
          Math.abs(known.turnsPerMotorTurn - turns) > SAME_RATIO * Math.abs(turns) &&
          !binds.some((bind) => bind.link === link.id)
        ) {
          binds.push({ link: link.id, rotor: to, asked: [known.turnsPerMotorTurn, turns] })
        }
      }
    }
  }
  return { turning, binds, wheels: wheelMotions(description.wheelSets, turning) }
}

function wheelMotions(wheelSets: readonly WheelSet[], turning: ReadonlyMap<string, TurningPart>): WheelMotion[] {
  const travels = wheelSets.map((wheelSet) => {
    const part = turning.get(wheelSet.rotor)
    return part ? part.turnsPerMotorTurn * (wheelSet.forward === 'with' ? 1 : -1) * (wheelSet.diameterMm / 2000) : null
  })
  const leading = travels.find((travel) => travel !== null) ?? null
  return wheelSets.map((wheelSet, index) => {
    const travel = travels[index] ?? null
    const order =
      travel !== null
        ? Math.abs(turning.get(wheelSet.rotor)?.turnsPerMotorTurn ?? 0)
        : leading === null
          ? null
          : Math.abs(leading) / (wheelSet.diameterMm / 2000)
    return { wheelSet: wheelSet.id, driven: travel !== null, order, travelPerRadian: travel }
  })
}

/**
 * Metres forward per radian of the motor, from the driven wheels.
 *
 * @returns null when nothing is driven
 * @example travelPerRadian(driveTrain(describeConstruction('tank-can'))) // 0.0002533
 */
export function travelPerRadian(train: DriveTrain): number | null {
  return train.wheels.find((wheel) => wheel.travelPerRadian !== null)?.travelPerRadian ?? null
}

/**
 * Whether driven wheels pull against each other: they would turn the engine both ways at once.
 *
 * @example pullsAgainstItself(driveTrain(describeConstruction('tank-can'))) // false
 */
export function pullsAgainstItself(train: DriveTrain): boolean {
  const ways = new Set(
    train.wheels.flatMap((wheel) => (wheel.travelPerRadian === null ? [] : [Math.sign(wheel.travelPerRadian)])),
  )
  return ways.size > 1 || train.binds.length > 0
}

/**
 * Speed of the model on the track.
 *
 * @param motorRadPerSecond rad/s of the motor, signed
 * @returns m/s forward, null when nothing is driven
 * @example trackSpeed(driveTrain(describeConstruction('tank-can')), 1000) // 0.2533
 */
export function trackSpeed(train: DriveTrain, motorRadPerSecond: number): number | null {
  const travel = travelPerRadian(train)
  return travel === null ? null : travel * motorRadPerSecond
}

/**
 * Motor speed behind a speed of the model.
 *
 * @param metresPerSecond m/s forward
 * @returns rad/s of the motor, null when nothing is driven
 */
export function motorSpeedFor(train: DriveTrain, metresPerSecond: number): number | null {
  const travel = travelPerRadian(train)
  return travel === null ? null : metresPerSecond / travel
}

/** What a split axle does whose muff no longer grips. */
export interface LooseHalf {
  readonly wheelSet: string
  readonly muff: string
  /** Its far half is still turned, by the rods of its side alone: nothing holds the quartering any more. */
  readonly turnedByRods: boolean
}

/**
 * Axles in two halves whose muff is among the links that do not carry.
 *
 * @example looseHalves(describeConstruction('tank-can'), new Set()) // []
 */
export function looseHalves(description: EngineDescription, without: ReadonlySet<string>): LooseHalf[] {
  const { turning } = driveTrain(description, without)
  return description.links.flatMap((link) => {
    const wheelSet = description.wheelSets.find((entry) => entry.rotor === link.from)
    return link.kind === 'muff' && without.has(link.id) && wheelSet
      ? [{ wheelSet: wheelSet.id, muff: link.id, turnedByRods: turning.has(link.to) }]
      : []
  })
}

/** An order at which something shows in current or sound, and what makes it. */
export interface Order {
  readonly order: number
  readonly what: string
  readonly rotor: string
  readonly kind: 'turn' | 'mesh'
}

/**
 * Every turning part's order and every gear mesh's, in motor turns, slowest first.
 *
 * @example
 * ordersOf(describeConstruction('tank-can'), driveTrain(describeConstruction('tank-can')))[0]?.order
 * // 0.03333
 */
export function ordersOf(description: EngineDescription, train: DriveTrain): Order[] {
  const names = new Map(description.rotors.map((rotor) => [rotor.id, rotor.name]))
  const halves = new Set(description.links.filter((link) => link.kind === 'muff').map((link) => link.to))
  // The far half of a split axle turns with its own axle: one line for both.
  const turns: Order[] = [...train.turning.values()]
    .filter((part) => !halves.has(part.rotor))
    .map((part) => ({
      order: Math.abs(part.turnsPerMotorTurn),
      what: names.get(part.rotor) ?? part.rotor,
      rotor: part.rotor,
      kind: 'turn',
    }))
  const rolling: Order[] = description.wheelSets.flatMap((wheelSet) => {
    const motion = train.wheels.find((wheel) => wheel.wheelSet === wheelSet.id)
    return motion && !motion.driven && motion.order !== null
      ? [{ order: motion.order, what: `${wheelSet.name}, rolling`, rotor: wheelSet.rotor, kind: 'turn' as const }]
      : []
  })
  const meshes: Order[] = description.links.flatMap((link) => {
    const part = train.turning.get(link.from)
    return part && link.teethFrom !== null && link.kind !== 'belt'
      ? [
          {
            order: Math.abs(part.turnsPerMotorTurn) * link.teethFrom,
            what: `Teeth of ${inSentence(link.name)}`,
            rotor: link.to,
            kind: 'mesh' as const,
          },
        ]
      : []
  })
  return [...turns, ...rolling, ...meshes].sort((first, second) => first.order - second.order)
}
