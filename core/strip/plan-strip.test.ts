import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { EngineDescription, Part } from '../engine/description-schema'
import { constructionPlans, describeConstruction } from '../knowledge/constructions'
import { removalCost } from './minimal-removal'
import { isRefusedStrip, planStrip, type StripPlan } from './plan-strip'
import { stripGoals } from './strip-goals'
import { wayBack } from './way-back'

const machines = constructionPlans.map((plan) => [plan.id, describeConstruction(plan.id)] as const)
const planOf = (description: EngineDescription, goals: readonly string[]): StripPlan => {
  const plan = planStrip(description, goals)
  if (isRefusedStrip(plan)) throw new Error(plan.refused.message)
  return plan
}
const removalOf = (description: EngineDescription, id: string): NonNullable<Part['removal']> => {
  const removal = description.parts.find((part) => part.id === id)?.removal
  if (!removal) throw new Error(`${id} does not come off`)
  return removal
}

describe('the usual words, on every construction', () => {
  it.each(machines)('%s: every usual goal is planned, or refused with a sentence', (_id, description) => {
    for (const goal of stripGoals(description).filter((entry) => entry.kind === 'usual')) {
      const plan = planStrip(description, [goal.id])
      if (isRefusedStrip(plan)) expect(plan.refused.message).toMatch(/^[A-Z].{20,}\.$/)
      else expect(plan.steps.at(-1)?.reaches).toContain(goal.id)
    }
  })

  it('takes the tank engine’s body and weight off before the springs, and names the lead and the iron where the motor comes out', () => {
    const description = describeConstruction('tank-open')
    const order = planOf(description, ['usual.motor']).steps.map((step) => step.part)
    expect(order.indexOf('body')).toBeGreaterThan(order.indexOf('body.screw-rear'))
    expect(order.at(-1)).toBe('motor')
    expect(planOf(description, ['usual.motor'])).toMatchObject({
      leads: 1,
      tools: expect.arrayContaining(['soldering-iron']),
    })
  })
})

describe('several goals at once', () => {
  it('cost no more than one after the other, and every step can be done where it stands (property, all constructions)', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...machines),
        fc.array(fc.nat(), { minLength: 1, maxLength: 5 }),
        ([, description], picks) => {
          const reachable = stripGoals(description).filter((goal) => !isRefusedStrip(planStrip(description, [goal.id])))
          const goals = [...new Set(picks.map((pick) => (reachable[pick % reachable.length] as { id: string }).id))]
          const plan = planStrip(description, goals)
          if (isRefusedStrip(plan)) return expect(plan.refused.code).toBe('against-each-other')
          const minutes = (one: StripPlan): number =>
            one.steps.reduce((sum, step) => sum + removalCost(removalOf(description, step.part)), 0)
          const apart = goals.reduce((sum, goal) => sum + minutes(planOf(description, [goal])), 0)
          expect(minutes(plan)).toBeLessThanOrEqual(apart + 1e-9)
          const gone = new Set<string>()
          for (const step of plan.steps) {
            for (const group of removalOf(description, step.part).needs)
              expect(group.some((id) => gone.has(id))).toBe(true)
            gone.add(step.part)
            for (const id of step.reaches)
              for (const part of stripGoals(description).find((goal) => goal.id === id)?.on ?? [])
                expect(gone.has(part)).toBe(false)
          }
        },
      ),
      { numRuns: 150 },
    )
  })

  it('come off in the order somebody wants, as far as they can, and cost the same (property, all constructions)', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...machines),
        fc.nat(),
        fc.infiniteStream(fc.nat()),
        ([, description], pick, dice) => {
          const reachable = stripGoals(description).filter((goal) => !isRefusedStrip(planStrip(description, [goal.id])))
          const goal = reachable[pick % reachable.length] as { id: string }
          const plan = planOf(description, [goal.id])
          const order = [...plan.steps]
            .map((step) => ({ part: step.part, key: dice.next().value as number }))
            .sort((one, other) => one.key - other.key)
            .map(({ part }) => part)
          const wished = planStrip(description, [goal.id], { order })
          if (isRefusedStrip(wished)) throw new Error('an order refuses nothing')
          expect(wished.steps.map((step) => step.part).sort()).toEqual(plan.steps.map((step) => step.part).sort())
          const gone = new Set<string>()
          for (const step of wished.steps) {
            for (const group of removalOf(description, step.part).needs)
              expect(group.some((id) => gone.has(id))).toBe(true)
            gone.add(step.part)
          }
          // What can come off at once and is wished first does.
          const [first] = order
          if (first && removalOf(description, first).needs.length === 0) expect(wished.steps[0]?.part).toBe(first)
        },
      ),
      { numRuns: 100 },
    )
  })

  it('is the cheapest of all ways (brute force over every subset of small random engines with alternatives)', () => {
    const template = describeConstruction('tank-open')
    const some = template.parts.find((part) => part.removal) as Part
    const graph = fc.record({
      needs: fc.array(fc.array(fc.array(fc.nat(), { minLength: 1, maxLength: 3 }), { maxLength: 2 }), {
        minLength: 3,
        maxLength: 8,
      }),
      minutes: fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 8, maxLength: 8 }),
      goals: fc.array(fc.nat(), { minLength: 1, maxLength: 3 }),
    })
    fc.assert(
      fc.property(graph, ({ needs, minutes, goals }) => {
        // Each needs only earlier ones: no circles.
        const parts = needs.map((groups, index): Part => ({
          ...some,
          id: `p${index}`,
          removal: {
            ...(some.removal as NonNullable<Part['removal']>),
            minutes: minutes[index] ?? 1,
            refitMinutes: 0,
            risk: 0,
            leaveAlone: '',
            needs: index === 0 ? [] : groups.map((group) => group.map((pick) => `p${pick % index}`)),
          },
        }))
        const wanted = [...new Set(goals.map((pick) => `p${pick % parts.length}`))]
        const plan = planOf(
          { ...template, parts, accesses: [], carePoints: [], nodes: [] },
          wanted.map((id) => `off.${id}`),
        )
        let best = Number.POSITIVE_INFINITY
        for (let set = 0; set < 2 ** parts.length; set++) {
          const chosen = parts.filter((_, index) => set & (2 ** index))
          const ids = new Set(chosen.map((part) => part.id))
          const complete =
            wanted.every((id) => ids.has(id)) &&
            chosen.every((part) => part.removal?.needs.every((group) => group.some((id) => ids.has(id))))
          if (complete)
            best = Math.min(
              best,
              chosen.reduce((sum, part) => sum + (part.removal?.minutes ?? 0), 0),
            )
        }
        expect(plan.minutes).toBeCloseTo(best, 9)
      }),
      { numRuns: 200 },
    )
  })

  it('is told before the first screw what a missing tool forbids, and what can be done without it', () => {
    const description = describeConstruction('tank-open')
    const tools = new Set(['screwdriver', 'fine-screwdriver', 'tweezers'] as const)
    const plan = planStrip(description, ['usual.lid', 'usual.motor'], { tools })
    expect(plan).toMatchObject({ refused: { code: 'no-tool' }, goal: 'usual.motor', without: ['usual.lid'] })
    expect(isRefusedStrip(plan) && plan.refused.message).toContain('soldering iron')
  })

  it('says so where a goal is not known', () => {
    expect(planStrip(describeConstruction('tank-open'), ['reach.the-moon'])).toMatchObject({
      refused: { code: 'unknown' },
    })
  })
})

describe('the way back', () => {
  it('puts everything on again, nothing before it can go on, whatever was taken off (property, all constructions)', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...machines),
        fc.array(fc.nat(), { minLength: 1, maxLength: 4 }),
        ([, description], picks) => {
          const reachable = stripGoals(description).filter((goal) => !isRefusedStrip(planStrip(description, [goal.id])))
          const goals = [...new Set(picks.map((pick) => (reachable[pick % reachable.length] as { id: string }).id))]
          const plan = planStrip(description, goals)
          if (isRefusedStrip(plan)) return
          const taken = plan.steps.map((step) => step.part)
          const off = new Set(taken)
          for (const step of wayBack(description, taken)) {
            if (step.kind !== 'fit') continue
            // What had to be off for it to come off is still off as it goes on.
            for (const group of removalOf(description, step.part).needs)
              expect(group.some((id) => off.has(id))).toBe(true)
            expect(off.delete(step.part)).toBe(true)
          }
          expect([...off]).toEqual([])
        },
      ),
      { numRuns: 150 },
    )
  })

  it('oils a bearing before the part that closes it, never a commutator or a brush, and tries the direction before the lid', () => {
    const description = describeConstruction('tank-open')
    const steps = wayBack(
      description,
      planOf(description, ['usual.motor', 'usual.commutator']).steps.map((step) => step.part),
    )
    const at = (test: (step: (typeof steps)[number]) => boolean): number => steps.findIndex(test)
    expect(at((step) => step.kind === 'lubricate' && step.point === 'motor.bearing-far')).toBeLessThan(
      at((step) => step.kind === 'fit' && step.part === 'weight'),
    )
    expect(at((step) => step.kind === 'lubricate' && step.point === 'motor.bearing-far')).toBeGreaterThan(
      at((step) => step.kind === 'fit' && step.part === 'motor'),
    )
    expect(steps.filter((step) => step.kind === 'lubricate' && /brush|commutator-care/.test(step.point))).toEqual([])
    expect(at((step) => step.kind === 'direction')).toBeLessThan(
      at((step) => step.kind === 'fit' && step.part === 'body'),
    )
    expect(at((step) => step.kind === 'direction')).toBeGreaterThan(0)
  })

  it('asks for ohms after each wheel set with one insulated wheel, and for a current only once the motor is in', () => {
    const description = describeConstruction('tank-open')
    const steps = wayBack(
      description,
      planOf(description, ['usual.wheel-sets', 'usual.motor']).steps.map((step) => step.part),
    )
    expect(steps.filter((step) => step.kind === 'ohms')).toHaveLength(3)
    const motorIn = steps.findIndex((step) => step.kind === 'fit' && step.part === 'motor')
    const tests = steps.flatMap((step, index) => (step.kind === 'test' ? [index] : []))
    expect(tests.length).toBeGreaterThan(1)
    expect(Math.min(...tests)).toBeGreaterThan(motorIn)
  })
})
