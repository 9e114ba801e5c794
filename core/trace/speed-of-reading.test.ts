import { describe, expect, it } from 'vitest'
import { speedOfReading } from './speed-of-reading'

const known = { heldOhms: 20, usualBackEmf: 0.01, segments: 3 }
const reading = (volts: number, amps: number, ripple: (angle: number) => number, speed: number) => ({
  volts,
  amps,
  rate: 10_000,
  record: Float64Array.from({ length: 4000 }, (_, index) => amps + ripple((speed * index) / 10_000)),
})

describe('whether a motor stands or how fast it turns', () => {
  it('turns at what its ripple says, between what volts and ohms allow', () => {
    const found = speedOfReading(
      reading(12, 0.2, (angle) => 0.02 * Math.cos(6 * angle), 800),
      known,
    )
    expect(found !== 'standing' && found?.radPerSecond).toBeCloseTo(800, 0)
  })

  it('turns slowly just above its start voltage, though it takes nearly what a held one takes', () => {
    const found = speedOfReading(
      reading(4.2, 0.19, (angle) => 0.01 * Math.cos(6 * angle), 45),
      known,
    )
    expect(found !== 'standing' && found?.radPerSecond).toBeCloseTo(45, 0)
  })

  it('stands where nothing ripples and the current is that of a held armature, at whatever angle it stopped', () => {
    for (const amps of [0.5, 0.45, 0.56])
      expect(
        speedOfReading(
          reading(10, amps, () => 0, 0),
          known,
        ),
      ).toBe('standing')
  })

  it('does not say how fast where it turns without a ripple', () => {
    expect(
      speedOfReading(
        reading(12, 0.2, () => 0, 0),
        known,
      ),
    ).toBeNull()
  })
})
