import { describe, expect, it } from 'vitest'
import { GearedLoad, type TurningMass } from './geared-load'

const motor: TurningMass = { inertia: 7e-7, coulomb: 4e-4, viscous: 1e-7 }
const train: TurningMass = { inertia: 3e-7, coulomb: 6e-4, viscous: 1e-7 }
const PLAY = 0.6
const DT = 1e-5

function run(load: GearedLoad, torque: number, seconds: number, each: () => void = () => {}): void {
  for (let step = 0; step < seconds / DT; step++) {
    load.step(torque, 0, DT)
    each()
  }
}

describe('motor and train with play between them', () => {
  it('in mesh they accelerate as one mass, by what torque is left over the friction of both (Newton)', () => {
    const load = new GearedLoad({ ...motor, viscous: 0 }, { ...train, viscous: 0 }, PLAY, 0)
    run(load, 2e-3, 0.01)
    expect(load.speed).toBeCloseTo(((2e-3 - 1e-3) / 1e-6) * 0.01, 6)
    expect(load.trainSpeed).toBe(load.speed)
  })

  it('reversed, the motor turns alone through the play before the train follows, and not a radian more', () => {
    const load = new GearedLoad(motor, train, PLAY, 0)
    let alone = 0
    run(load, -2e-3, 0.05, () => {
      if (load.trainSpeed === 0) alone = -load.angle
    })
    expect(alone).toBeGreaterThan(0.95 * PLAY)
    expect(alone).toBeLessThan(PLAY)
    expect(load.trainSpeed).toBeLessThan(0)
  })

  it('where flank meets flank momentum stays and energy is lost (inelastic blow)', () => {
    const load = new GearedLoad({ ...motor, coulomb: 0, viscous: 0 }, { ...train, coulomb: 0, viscous: 0 }, PLAY, 0)
    let [before, after] = [0, 0]
    run(load, -2e-3, 0.05, () => {
      if (load.trainSpeed === 0) before = load.speed
      else if (after === 0) after = load.speed
    })
    expect(after / before).toBeCloseTo(0.7, 2)
    expect(load.frictionJoules / (0.5 * 7e-7 * before ** 2)).toBeCloseTo(0.3, 2)
  })

  it('takes no more torque than starts the motor to move it within the play, and no less than starts both to go on', () => {
    const load = new GearedLoad(motor, train, PLAY, 0)
    run(load, -5e-4, 1)
    expect(load.angle).toBeLessThan(-0.9 * PLAY)
    expect(load.angle).toBeGreaterThan(-1.5 * PLAY)
    expect(load.speed).toBe(0)
  })

  it('when the motor slows faster than the train coasts, they part, and the train catches it on the other flank', () => {
    const load = new GearedLoad({ ...motor, coulomb: 0.01 }, { ...train, coulomb: 0, viscous: 0 }, PLAY, 0)
    run(load, 0.02, 0.02)
    let ahead = false
    run(load, 0, 0.01, () => {
      ahead ||= load.trainSpeed > load.speed + 1
    })
    expect(ahead).toBe(true)
  })

  it('keeps its books: what the torque gave is friction, blows and motion', () => {
    const load = new GearedLoad(motor, train, PLAY, 0)
    let given = 0
    for (const torque of [2e-3, -2e-3, 2e-3]) {
      for (let step = 0; step < 3000; step++) {
        load.step(torque, 0, DT)
        given += torque * load.speed * DT
      }
    }
    const moving = 0.5 * motor.inertia * load.speed ** 2 + 0.5 * train.inertia * load.trainSpeed ** 2
    expect(Math.abs(load.frictionJoules + moving - given)).toBeLessThan(0.02 * Math.abs(given))
  })

  it('driving nothing it is the motor alone', () => {
    const load = new GearedLoad({ ...motor, viscous: 0 }, null, PLAY, 0)
    run(load, 1.1e-3, 0.01)
    expect(load.speed).toBeCloseTo((7e-4 / 7e-7) * 0.01, 6)
  })
})
