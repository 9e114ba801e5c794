import { describe, expect, it } from 'vitest'
import { describeConstruction } from '../knowledge/constructions'
import { diagnosisKnowledge } from '../knowledge/diagnosis-knowledge'
import { Diagnosis } from './diagnosis'

/** How many times likelier a fault of the drive becomes by a growl. */
function accusedByGrowl(construction: string): number {
  const diagnosis = new Diagnosis(describeConstruction(construction), diagnosisKnowledge, { circumstances: [] })
  const odds = (findings: readonly string[]): number => {
    const { marginals } = diagnosis.believe({
      findings: findings.map((outcome) => ({ id: outcome, test: 'noise', outcome, state: 0 })),
      events: [],
    })
    const chance = diagnosis.engine.suspects.reduce(
      (most, { id }, index) => (id.startsWith('mesh-tight@') ? Math.max(most, marginals[index] ?? 0) : most),
      0,
    )
    return chance / (1 - chance)
  }
  return odds(['growls']) / odds([])
}

describe('what a kind of machine does with nothing wrong', () => {
  it('accuses nobody: a train of straight-cut gears growls, a worm drive that growls has its mesh suspected (common practice)', () => {
    const [shoe, bogie, worm] = ['three-rail-single', 'side-brush-bogie', 'tank-open'].map(accusedByGrowl)
    expect(shoe).toBeLessThan(2)
    expect(bogie).toBeLessThan(1.2)
    expect(worm).toBeGreaterThan(1.3)
  })
})
