import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readSequence, type SeenPosition } from './sequence-steps'

const letters = { F: 'forward', R: 'reverse', N: 'neutral' } as const
const seen = (row: string): SeenPosition[] => [...row].map((letter) => letters[letter as keyof typeof letters])

describe('the steps of a sequence switch from what is seen', () => {
  it.each<[string, number[], number, number]>([
    ['FNRNF', [1, 1, 1, 1], 0, 0],
    // After the second neutral it runs in reverse: the drum had stayed, not moved twice.
    ['FNNR', [1, 0, 1], 1, 0],
    // After it forward: it had moved twice.
    ['FNNF', [1, 2, 1], 0, 1],
    ['FF', [0], 1, 0],
    ['FR', [2], 0, 1],
    ['FNF', [1, 3], 0, 1],
  ])('%s', (row, steps, missed, doubled) => expect(readSequence(seen(row))).toMatchObject({ steps, missed, doubled }))

  it('a neutral that stays neutral at the end may be either, and is said to be', () => {
    expect(readSequence(seen('FNN')).ambiguous).toBe(true)
    expect(readSequence(seen('FNNR')).ambiguous).toBe(false)
  })

  it('never blames more than what really happened, on any row a drum can make, and its account leads to what was seen', () => {
    const cycle: SeenPosition[] = ['forward', 'neutral', 'reverse', 'neutral']
    const blameOf = (steps: readonly number[]): number => steps.reduce((sum, step) => sum + Math.abs(step - 1), 0)
    fc.assert(
      fc.property(fc.nat(3), fc.array(fc.constantFrom(1, 1, 1, 0, 2, 3), { maxLength: 12 }), (start, steps) => {
        const at = (taken: readonly number[], from: number) =>
          cycle[(from + taken.reduce((sum, step) => sum + step, 0)) % 4] as SeenPosition
        const row = [at([], start), ...steps.map((_, index) => at(steps.slice(0, index + 1), start))]
        const account = readSequence(row)
        expect(blameOf(account.steps)).toBeLessThanOrEqual(blameOf(steps))
        const starts = [0, 1, 2, 3].filter((from) => cycle[from] === row[0])
        expect(
          starts.some((from) =>
            row.slice(1).every((position, index) => at(account.steps.slice(0, index + 1), from) === position),
          ),
        ).toBe(true)
      }),
    )
  })

  it('refuses an empty row', () => expect(() => readSequence([])).toThrow(RangeError))
})
