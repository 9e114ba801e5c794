import { describe, expect, it } from 'vitest'
import { Circuit } from '../../core/engine/circuit'
import { operatingPoint } from '../../core/engine/operating-point'
import { runningPositions } from '../../core/engine/pickup-map'
import { describeConstruction } from '../../core/knowledge/constructions'
import { Casualty, type Feed } from './casualty'
import { CommutatedMotor, type ArmatureBuild } from './commutated-motor'
import type { CasualtyFault } from './faults'

const build = (more: Partial<ArmatureBuild> = {}): ArmatureBuild => ({
  segments: 3,
  connection: 'ring',
  meanOhms: 20,
  backEmf: 0.01,
  coilSeconds: 3e-5,
  brushWidth: 0.2,
  brushOhms: 0.01,
  brushShift: 0,
  openCoil: null,
  shortedCoil: null,
  bridge: null,
  ...more,
})

/** Ohms between the brushes of a held armature at an angle. */
function heldOhms(motor: CommutatedMotor, angle: number): number {
  const amps = motor.step(angle, 0, 1, { volts: 1, ohms: 0.01 }, Number.POSITIVE_INFINITY, 0)
  return motor.volts / amps
}

describe('an armature followed coil by coil', () => {
  it('held, a ring of three reads between half and two thirds of one winding as it is turned (derived)', () => {
    const motor = new CommutatedMotor(build())
    const readings = Array.from(
      { length: 360 },
      (_, degree) => heldOhms(motor, (degree * Math.PI) / 180) / motor.windingOhms,
    )
    expect(Math.min(...readings)).toBeCloseTo(1 / 2, 2)
    expect(Math.max(...readings)).toBeCloseTo(2 / 3, 2)
  })

  it('held, a ring of five reads 6/5 of one winding, and 1 where a brush bridges two segments (derived)', () => {
    const motor = new CommutatedMotor(build({ segments: 5 }))
    const readings = Array.from(
      { length: 360 },
      (_, degree) => heldOhms(motor, (degree * Math.PI) / 180) / motor.windingOhms,
    )
    expect(Math.max(...readings)).toBeCloseTo(6 / 5, 1)
    expect(Math.min(...readings)).toBeCloseTo(1, 1)
  })

  it('a star of three reads two windings in line between two segments, and one and a half where a brush bridges two (derived)', () => {
    const motor = new CommutatedMotor(build({ connection: 'star' }))
    const readings = Array.from(
      { length: 360 },
      (_, degree) => heldOhms(motor, (degree * Math.PI) / 180) / motor.windingOhms,
    )
    expect(Math.max(...readings)).toBeCloseTo(2, 1)
    expect(Math.min(...readings)).toBeCloseTo(1.5, 1)
  })

  it.each([3, 5, 7])('turning steadily, %i segments: mean volts are I·R + Ke·ω within one per cent', (segments) => {
    for (const speed of [200, 600, 1000]) {
      const motor = new CommutatedMotor(build({ segments }))
      const mean = meansAt(motor, speed)
      expect(Math.abs(mean.volts - (mean.amps * 20 + 0.01 * speed))).toBeLessThan(0.01 * mean.volts)
    }
  })

  it.each([3, 5, 7])(
    'its current ripples twice for each of its %i segments a turn, more than at any other order (published: the commutation of an odd ring)',
    (segments) => {
      const motor = new CommutatedMotor(build({ segments }))
      const amplitude = ordersAt(motor, 300, 4 * segments)
      const strongest = amplitude.indexOf(Math.max(...amplitude.slice(1)))
      expect(strongest).toBe(2 * segments)
    },
  )

  it('with its brushes off centre a good part of the ripple moves to the order of its segments', () => {
    const share = (shift: number): number => {
      const amplitude = ordersAt(new CommutatedMotor(build({ brushShift: shift })), 300, 12)
      return (amplitude[3] as number) / (amplitude[6] as number)
    }
    expect(share(0.12)).toBeGreaterThan(5 * share(0) + 0.05)
  })

  it('an open coil leaves angles at which it draws much less, a shorted one brakes and draws more', () => {
    const held = (more: Partial<ArmatureBuild>): number[] => {
      const motor = new CommutatedMotor(build(more))
      return Array.from({ length: 72 }, (_, step) => heldOhms(motor, (step * Math.PI) / 36))
    }
    expect(Math.max(...held({ openCoil: 1 }))).toBeGreaterThan(1.4 * Math.max(...held({})))
    const amps = (more: Partial<ArmatureBuild>): number => meansAt(new CommutatedMotor(build(more)), 600).amps
    expect(amps({ shortedCoil: 1 })).toBeGreaterThan(1.3 * amps({}))
    expect(amps({ bridge: { gap: 0, ohms: 5 } })).toBeGreaterThan(1.1 * amps({}))
  })
})

function meansAt(motor: CommutatedMotor, speed: number): { volts: number; amps: number } {
  const dt = 5e-5
  let [angle, volts, amps] = [0, 0, 0]
  const steps = Math.round((40 * 2 * Math.PI) / speed / dt)
  for (let step = -400; step < steps; step++) {
    angle += speed * dt
    motor.step(angle, speed, 1, { volts: 12, ohms: 0.5 }, dt, 0)
    if (step < 0) continue
    volts += motor.volts / steps
    amps += motor.amps / steps
  }
  return { volts, amps }
}

/** Amplitude of the current at each whole order of the motor turn. */
function ordersAt(motor: CommutatedMotor, speed: number, highest: number): number[] {
  const perTurn = 720
  const turns = 8
  const dt = (2 * Math.PI) / speed / perTurn
  const samples = Array.from({ length: (turns + 2) * perTurn }, (_, step) =>
    motor.step((2 * Math.PI * (step + 1)) / perTurn, speed, 1, { volts: 12, ohms: 0.1 }, dt, 0),
  ).slice(2 * perTurn)
  return Array.from({ length: highest + 1 }, (_, order) => {
    let [real, imaginary] = [0, 0]
    samples.forEach((amps, step) => {
      real += amps * Math.cos((2 * Math.PI * order * step) / perTurn)
      imaginary += amps * Math.sin((2 * Math.PI * order * step) / perTurn)
    })
    return Math.hypot(real, imaginary) / samples.length
  })
}

const tank = describeConstruction('tank-can')
const ridge = describeConstruction('centre-motor')
const track = (volts = 12, description = tank, more: Partial<Feed> = {}): Feed => ({
  ...description.rails,
  volts,
  ohms: 0.05,
  limitAmps: 5,
  hertz: 0,
  ...more,
})
const casualty = (faults: CasualtyFault[] = [], description = tank, seed = 1): Casualty =>
  new Casualty(description, faults, { seed, onStand: true })

function steady(machine: Casualty, seconds = 0.5): { amps: number; speed: number } {
  let [amps, speed, count] = [0, 0, 0]
  machine.run(seconds, 1e-4, () => {
    amps += machine.meter.amps
    speed += machine.meter.radPerSecond
    count += 1
  })
  return { amps: amps / count, speed: speed / count }
}

function running(faults: CasualtyFault[] = [], description = tank, volts = 12): { amps: number; speed: number } {
  const machine = casualty(faults, description)
  machine.apply(track(volts, description))
  machine.run(0.8)
  return steady(machine)
}

describe('a casualty on the supply', () => {
  it.each(['tank-can', 'centre-motor', 'side-brush-bogie', 'split-frame', 'narrow-gauge'])(
    '%s, sound, settles where the operating point of its description says, within a tenth',
    (id) => {
      const description = describeConstruction(id)
      const { amps, speed } = running([], description)
      const expected = operatingPoint(
        new Circuit(description),
        { switches: runningPositions(description) },
        { ...description.rails, volts: 12 },
      )
      expect(Math.abs(amps / expected.supplyAmps - 1)).toBeLessThan(0.1)
      expect(Math.abs(speed / (expected.motors[0]?.radPerSecond ?? 0) - 1)).toBeLessThan(0.1)
    },
  )

  it('neither makes nor loses energy: what goes in becomes heat, friction and motion, within two per cent', () => {
    for (const volts of [6, 12]) {
      const machine = casualty([], ridge, 3)
      machine.apply(track(volts, ridge))
      let [taken, heat] = [0, 0]
      const dt = 2e-5
      machine.run(0.3, dt, () => {
        const [armature] = machine.armatures
        if (!armature) return
        taken += armature.volts * armature.amps * dt
        heat += (armature.coilWatts + armature.brushWatts) * dt
      })
      const motor = ridge.motors[0]
      const inertia = (0.06 * (motor?.backEmf ?? 0) ** 2) / 14
      const moving = 0.5 * inertia * machine.meter.radPerSecond ** 2
      expect(Math.abs(heat + (machine.frictionJoules[0] ?? 0) + moving - taken)).toBeLessThan(0.02 * taken)
    }
  })

  it('is the same casualty for the same seed, and another one for another', () => {
    const trace = (seed: number): number[] => {
      const machine = casualty(
        [
          { kind: 'film', component: 'driver-1.right.tread', brokenShare: 0.3, seconds: 0.02 },
          { kind: 'film', component: 'lead.right', brokenShare: 0.2, seconds: 0.01 },
        ],
        tank,
        seed,
      )
      machine.apply(track())
      const found: number[] = []
      machine.run(0.2, 1e-4, () => found.push(machine.meter.amps))
      return found
    }
    expect(trace(5)).toEqual(trace(5))
    expect(trace(5)).not.toEqual(trace(6))
  })

  it('shows its faults as the trade knows them (common practice)', () => {
    const sound = running()
    const weak = running([{ kind: 'magnet', motor: 'motor', strength: 0.7 }])
    expect(weak.speed).toBeGreaterThan(1.1 * sound.speed)
    expect(weak.amps).toBeGreaterThan(sound.amps)
    const dry = running([{ kind: 'dry-bearing', motor: 'motor', factor: 3 }])
    expect(dry.amps).toBeGreaterThan(1.3 * sound.amps)
    expect(dry.speed).toBeLessThan(sound.speed)
    expect(running([{ kind: 'hard-grease', motor: 'motor', factor: 8 }]).speed).toBeLessThan(0.9 * sound.speed)
    expect(running([{ kind: 'slipping-link', link: 'worm.seat' }]).amps).toBeLessThan(sound.amps)
    expect(running([{ kind: 'component', component: 'lead.right', state: 'open' }])).toMatchObject({ speed: 0 })
    expect(running([{ kind: 'turned', turnable: 'motor.leads-swapped' }]).speed).toBeLessThan(-0.9 * sound.speed)
  })

  it('a strong magnet in worn bearings takes more volts to start, where in sound ones it takes fewer: a weak one hides the wear (common practice)', () => {
    const startVolts = (strength: number, worn: number): number => {
      for (let volts = 0.5; volts < 12; volts += 0.25)
        if (
          Math.abs(
            running(
              [
                { kind: 'magnet', motor: 'motor', strength },
                { kind: 'worn-bearing', motor: 'motor', torque: worn },
              ],
              tank,
              volts,
            ).speed,
          ) > 5
        )
          return volts
      return 12
    }
    const torque = 2 * (tank.motors[0]?.coulombTorque ?? 0)
    expect(startVolts(1.3, 0)).toBeLessThan(startVolts(0.8, 0))
    expect(startVolts(1.3, torque)).toBeGreaterThan(startVolts(0.8, torque))
  })

  it('a tight spot on a wheel slows it once per wheel turn', () => {
    const machine = casualty([{ kind: 'tight-spot', rotor: 'driver-3', torque: 0.0012, at: 1, width: 0.6 }])
    machine.apply(track())
    machine.run(0.6)
    const speeds: number[] = []
    const angles: number[] = []
    machine.run(1.4, 1e-4, () => {
      speeds.push(machine.meter.radPerSecond)
      angles.push(machine.now.armatureAngle)
    })
    const slow = 0.5 * (Math.max(...speeds) + Math.min(...speeds))
    const dips = speeds.filter(
      (speed, index) => index > 0 && speed < slow && (speeds[index - 1] as number) >= slow,
    ).length
    const wheelTurns = ((angles.at(-1) ?? 0) - (angles[0] ?? 0)) / (2 * Math.PI) / 30
    expect(Math.abs(dips - wheelTurns)).toBeLessThanOrEqual(1.5)
  })

  it('goes dead for the time a contact in line is broken, and a dirty patch breaks once a wheel turn', () => {
    const machine = casualty([
      { kind: 'component', component: 'driver-2.right.tread', state: 'open' },
      { kind: 'component', component: 'driver-3.right.tread', state: 'open' },
      { kind: 'dirty-patch', component: 'driver-1.right.tread', at: 0, width: 0.4 },
    ])
    machine.apply(track())
    machine.run(0.8)
    let [breaks, before] = [0, true]
    const start = machine.now.armatureAngle
    machine.run(1.2, 1e-4, () => {
      const fed = Math.abs(machine.meter.amps) > 0.002
      if (!fed && before) breaks += 1
      before = fed
    })
    const wheelTurns = (machine.now.armatureAngle - start) / (2 * Math.PI) / 30
    expect(Math.abs(breaks - wheelTurns)).toBeLessThanOrEqual(1.5)
  })

  it('a short pulls the supply down to its limit', () => {
    const machine = casualty([{ kind: 'component', component: 'strip-frame', state: 'shorted' }])
    machine.apply(track(12, tank, { limitAmps: 1 }))
    machine.run(0.1)
    expect(machine.now.limited).toBe(true)
    expect(Math.abs(machine.meter.amps - 1)).toBeLessThan(0.05)
  })

  it('held at an angle it stands and draws V/R, and grows warm', () => {
    const machine = casualty([], ridge)
    machine.hold(0.3)
    machine.apply(track(3, ridge))
    machine.run(0.05)
    expect(machine.meter.radPerSecond).toBe(0)
    const cold = machine.meter.amps
    machine.apply(track(12, ridge))
    machine.run(8, 1e-3)
    machine.apply(track(3, ridge))
    machine.run(0.05)
    expect(machine.windingCelsius).toBeGreaterThan(25)
    expect(machine.meter.amps).toBeLessThan(cold)
  })
})

describe('an AC machine', () => {
  const kontor = describeConstruction('three-rail-single')
  const ac = track(14, kontor, { hertz: 50 })

  it('steps its sequence switch at each interruption: forward, neutral, reverse, neutral', () => {
    const machine = casualty([], kontor)
    const seen: string[] = []
    for (let turn = 0; turn < 5; turn++) {
      machine.apply(ac)
      machine.run(0.6)
      seen.push(`${machine.switchPosition('sequence')} ${Math.sign(Math.round(steady(machine, 0.2).speed / 20))}`)
      machine.apply(null)
      machine.run(0.4)
    }
    expect(seen).toEqual(['forward 1', 'neutral-after-forward 0', 'reverse -1', 'neutral-after-reverse 0', 'forward 1'])
  })

  it('does not step with its coil open, and runs the same way on either polarity of DC', () => {
    const machine = casualty([{ kind: 'component', component: 'sequence.coil', state: 'open' }], kontor)
    for (let turn = 0; turn < 3; turn++) {
      machine.apply(ac)
      machine.run(0.3)
      machine.apply(null)
      machine.run(0.2)
    }
    expect(machine.switchPosition('sequence')).toBe('forward')
    machine.apply(track(-12, kontor))
    machine.run(0.6)
    expect(machine.meter.radPerSecond).toBeGreaterThan(50)
  })

  it('with one of two fields open stands at that motor alone; a field shorted takes the current from both', () => {
    const twin = describeConstruction('three-rail-twin')
    const run = (
      faults: Parameters<typeof casualty>[0],
    ): { readonly turning: readonly boolean[]; readonly speed: number; readonly amps: number } => {
      const machine = casualty(faults, twin)
      machine.apply(track(14, twin, { hertz: 50 }))
      machine.run(0.5)
      let amps = 0
      for (let count = 0; count < 100; count++) amps += Math.abs(machine.run(1e-3).supplyAmps) / 100
      return {
        turning: machine.now.radPerSecond.map((speed) => Math.abs(speed) > 50),
        speed: Math.abs(machine.now.radPerSecond[0] ?? 0),
        amps,
      }
    }
    const sound = run([])
    // The other motor off, half of this one's current goes round the other poles: a weaker field turns it faster.
    const alone = run([{ kind: 'component', component: 'motor-rear.armature-lead', state: 'open' }])
    expect(alone.turning).toEqual([true, false])
    expect(alone.speed).toBeGreaterThan(1.1 * sound.speed)
    const open = run([{ kind: 'component', component: 'motor-front.field', state: 'open' }])
    const shorted = run([{ kind: 'component', component: 'motor-front.field', state: 'shorted' }])
    expect([sound.turning, open.turning, shorted.turning]).toEqual([
      [true, true],
      [false, true],
      [false, false],
    ])
    // An armature that stands makes no voltage of its own.
    expect(open.amps).toBeGreaterThan(1.3 * sound.amps)
    expect(shorted.amps).toBeGreaterThan(open.amps)
  })

  it('DC pulls its horn relay in and lets it go lower down; the AC that runs the train leaves it at rest', () => {
    const twin = describeConstruction('three-rail-twin')
    const machine = casualty(
      twin.motors.map((motor) => ({ kind: 'component' as const, component: motor.feeds.plus, state: 'open' as const })),
      twin,
    )
    const at = (volts: number, hertz = 0): string => {
      machine.apply(track(volts, twin, { hertz }))
      machine.run(0.5)
      return `${machine.switchPosition('horn.relay')} ${Math.abs(machine.meter.amps / machine.meter.volts) > 0.07 || hertz > 0 ? 'sounds' : 'silent'}`
    }
    expect([at(3), at(5), at(2.5), at(1), at(-5), at(0)]).toEqual([
      'at-rest silent',
      'pulled sounds',
      'pulled sounds',
      'at-rest silent',
      'pulled sounds',
      expect.stringMatching(/^at-rest/) as string,
    ])
    expect(at(16, 50)).toMatch(/^at-rest/)
  })
})
