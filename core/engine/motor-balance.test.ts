import fc from 'fast-check'
import { expect, it } from 'vitest'
import { settleMotors, type ElectricMotor } from './motor-balance'

const between = (min: number, max: number) => fc.double({ min, max, noNaN: true })

it('a series motor settles where its torque is just its friction, or stands where friction is more (K·i² = Tc + b·ω, derived)', () => {
  fc.assert(
    fc.property(
      between(2, 40),
      between(0.01, 0.2),
      between(1e-4, 5e-3),
      between(1e-7, 1e-5),
      between(4, 20),
      (ohms, constant, coulombTorque, viscousTorque, volts) => {
        const motor: ElectricMotor = {
          id: 'm',
          armature: 0,
          field: 1,
          conductance: 1 / ohms,
          backEmf: constant,
          coulombTorque,
          viscousTorque,
        }
        // Armature and field in line: one current, and what the armature's EMF takes from it.
        const branch = { perSupplyVolt: 1 / ohms, perBackEmf: [-1 / ohms] }
        const {
          speeds: [speed = 0],
          backEmfs: [emf = 0],
        } = settleMotors([motor], { armature: [branch], field: [branch] }, volts)
        const amps = (volts - emf) / ohms
        expect(emf).toBeCloseTo(constant * speed * amps, 6)
        if (speed === 0) expect(constant * (volts / ohms) ** 2).toBeLessThanOrEqual(coulombTorque)
        else expect(constant * amps ** 2).toBeCloseTo(coulombTorque + viscousTorque * speed, 8)
      },
    ),
  )
})

it('with nothing to hold it, it runs as fast as is looked for, and no further', () => {
  const branch = { perSupplyVolt: 0.1, perBackEmf: [-0.1] }
  const {
    speeds: [speed],
  } = settleMotors(
    [{ id: 'm', armature: 0, field: 1, conductance: 0.1, backEmf: 0.05, coulombTorque: 0, viscousTorque: 0 }],
    { armature: [branch], field: [branch] },
    12,
  )
  expect(speed).toBeGreaterThan(1e5)
  expect(speed).toBeLessThan(1e7)
})
