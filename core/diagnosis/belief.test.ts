import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { seededUniform } from '../measure/seeded-random'
import { describeConstruction } from '../knowledge/constructions'
import { diagnosisKnowledge } from '../knowledge/diagnosis-knowledge'
import { Belief } from './belief'
import { Diagnosis } from './diagnosis'
import { CompiledEngine } from './compiled-engine'
import type { EngineEvent, TestFinding } from './history'
import { HypothesisSpace } from './hypothesis-space'
import { KNOWLEDGE_VERSION, type Fault, type Knowledge, type Test } from '../knowledge/knowledge-schema'

const remedy = (id: string, success: number): Knowledge['remedies'][number] => ({
  id,
  name: id,
  minutes: 5,
  reach: 'as-it-stands',
  parts: [],
  products: [],
  caution: '',
  success,
  after: [],
  school: '',
  source: 'test',
})
const fault = (id: string, prior: number, signs: Fault['signs'], remedyId: string, bornAtRefit = false): Fault => ({
  id,
  name: id,
  area: 'motor',
  role: 'engine',
  effect: { kind: 'none' },
  prior,
  raisedBy: [],
  signs,
  remedy: remedyId,
  bornAtRefit,
  source: 'test',
})
const looked = (id: string, leak: number, misread: number): Test => ({
  id,
  name: id,
  how: id,
  role: 'engine',
  reading: { kind: 'signs' },
  minutes: 1,
  reach: 'as-it-stands',
  whole: false,
  needsRunning: false,
  equipment: ['eyes'],
  caution: '',
  outcomes: [
    { id: 'no', name: 'No', leak: 0 },
    { id: 'yes', name: 'Yes', leak },
  ],
  misread,
  proves: false,
  onlyWhen: [],
  source: 'test',
})
const UNLISTED = 0.02

interface Net {
  readonly faults: ReadonlyArray<{ prior: number; success: number; chances: readonly number[] }>
  readonly tests: ReadonlyArray<{ leak: number; misread: number }>
}

const chance = fc.double({ min: 0.02, max: 0.95, noNaN: true })
const net = fc.record({
  faults: fc.array(
    fc.record({
      prior: fc.double({ min: 0.01, max: 0.5, noNaN: true }),
      success: fc.double({ min: 0.5, max: 0.98, noNaN: true }),
      chances: fc.array(chance, { minLength: 3, maxLength: 3 }),
    }),
    { minLength: 1, maxLength: 5 },
  ),
  tests: fc.array(
    fc.record({
      leak: fc.double({ min: 0.01, max: 0.3, noNaN: true }),
      misread: fc.double({ min: 0.01, max: 0.3, noNaN: true }),
    }),
    { minLength: 3, maxLength: 3 },
  ),
})
const knowledgeOf = ({ faults, tests }: Net): Knowledge => ({
  version: KNOWLEDGE_VERSION,
  unlisted: UNLISTED,
  faults: faults.map(({ prior, chances }, index) =>
    fault(
      `f${index}`,
      prior,
      chances.map((value, test) => ({ test: `t${test}`, outcome: 'yes', chance: value })),
      `r${index}`,
    ),
  ),
  tests: tests.map(({ leak, misread }, index) => looked(`t${index}`, leak, misread)),
  remedies: faults.map(({ success }, index) => remedy(`r${index}`, success)),
})

/** The chance of looking several times and noting this each time: the sign is there or not (with something unlisted often by mere chance), every look is misread anew. */
const looksChance = (
  { faults, tests }: Net,
  test: number,
  noted: readonly boolean[],
  present: readonly number[],
  unlisted: boolean,
): number => {
  const { leak, misread } = tests[test] as Net['tests'][number]
  const explained = present.reduce((rest, index) => rest * (1 - (faults[index]?.chances[test] as number)), 1 - leak)
  const silent = unlisted ? 0.4 * explained + 0.6 / 2 : explained
  const read = (yes: boolean, sign: boolean): number => (yes === sign ? 1 - misread : 0) + misread / 2
  return [true, false].reduce(
    (sum, sign) => sum + (sign ? 1 - silent : silent) * noted.reduce((product, yes) => product * read(yes, sign), 1),
    0,
  )
}

const description = describeConstruction('narrow-gauge')
const marginal = (belief: Belief, id: string): number => belief.marginals[belief.engine.indexOfSuspect(id)] as number

describe('the posterior', () => {
  it('equals adding up every set of up to three by hand, on random small networks', () => {
    fc.assert(
      fc.property(
        net,
        fc.array(fc.record({ test: fc.integer({ min: 0, max: 2 }), yes: fc.boolean() }), { maxLength: 5 }),
        (network, seen) => {
          const engine = new CompiledEngine(description, knowledgeOf(network))
          const findings: TestFinding[] = seen.map(({ test, yes }, index) => ({
            id: String(index),
            test: `t${test}`,
            outcome: yes ? 'yes' : 'no',
            state: 0,
          }))
          const belief = new Belief(new HypothesisSpace(engine, []), { findings, events: [] })
          const count = network.faults.length
          let total = 0
          const sums = Array.from({ length: count }, () => 0)
          for (let mask = 0; mask < 1 << (count + 1); mask++) {
            const members = Array.from({ length: count + 1 }, (_, bit) => bit).filter((bit) => mask & (1 << bit))
            if (members.length > 3) continue
            const present = members.filter((member) => member < count)
            const unlisted = members.includes(count)
            let weight = members.reduce(
              (product, member) => product * (member < count ? (network.faults[member]?.prior as number) : UNLISTED),
              1,
            )
            for (let member = 0; member <= count; member++)
              if (!members.includes(member))
                weight *= 1 - (member < count ? (network.faults[member]?.prior as number) : UNLISTED)
            for (const test of [0, 1, 2])
              weight *= looksChance(
                network,
                test,
                seen.filter((entry) => entry.test === test).map((entry) => entry.yes),
                present,
                unlisted,
              )
            total += weight
            for (const member of present) sums[member] = (sums[member] as number) + weight
          }
          for (let index = 0; index < count; index++)
            expect(marginal(belief, `f${index}@engine`)).toBeCloseTo((sums[index] as number) / total, 6)
        },
      ),
      { numRuns: 120 },
    )
  })

  it('following the sets of three as far as usual, no chance is off by more than two per cent of following them all', () => {
    const engine = new CompiledEngine(describeConstruction('narrow-gauge'), diagnosisKnowledge)
    const random = seededUniform(5)
    for (const [count, events] of [
      [3, []],
      [9, [{ kind: 'refitted', state: 1 }]],
      [20, [{ kind: 'repaired', suspect: engine.suspects[4]?.id ?? '', state: 1 }]],
    ] as ReadonlyArray<readonly [number, EngineEvent[]]>) {
      const findings = Array.from({ length: count }, (_, index): TestFinding => {
        const { id, test } = engine.tests[Math.floor(random() * engine.tests.length)] as (typeof engine.tests)[number]
        return {
          id: String(index),
          test: id,
          outcome: test.outcomes[random() < 0.75 ? 0 : Math.floor(random() * test.outcomes.length)]?.id ?? '',
          state: events.length > 0 && index > count / 2 ? 1 : 0,
        }
      })
      const space = new HypothesisSpace(engine, events)
      const [usual, all] = [
        new Belief(space, { findings, events }),
        new Belief(space, { findings, events }, { mostTriples: Number.POSITIVE_INFINITY, leftOut: 0 }),
      ]
      for (const [index, chance] of all.marginals.entries())
        expect(Math.abs(chance - (usual.marginals[index] as number))).toBeLessThan(0.02)
      expect(usual.leftOut).toBeLessThan(0.25)
    }
  })

  it('judges a finding on the state it was made in: a repair may not have taken (by hand)', () => {
    // One fault, prior 0.4, sign 0.8, repaired with success 0.9; the sign seen before and after.
    const network: Net = {
      faults: [{ prior: 0.4, success: 0.9, chances: [0.8, 0.5, 0.5] }],
      tests: [
        { leak: 0.1, misread: 0.05 },
        { leak: 0.1, misread: 0.05 },
        { leak: 0.1, misread: 0.05 },
      ],
    }
    const engine = new CompiledEngine(description, { ...knowledgeOf(network), unlisted: 1e-9 })
    const events: EngineEvent[] = [{ kind: 'repaired', suspect: 'f0@engine', state: 1 }]
    const findings: TestFinding[] = [
      { id: 'a', test: 't0', outcome: 'yes', state: 0 },
      { id: 'b', test: 't0', outcome: 'yes', state: 1 },
    ]
    const belief = new Belief(new HypothesisSpace(engine, events), { findings, events })
    const [there, gone] = [looksChance(network, 0, [true], [0], false), looksChance(network, 0, [true], [], false)]
    // What gives the sign is the same both times unless the repair took: then the sign is too.
    const [never, took, failed] = [
      0.6 * looksChance(network, 0, [true, true], [], false),
      0.4 * 0.9 * there * gone,
      0.4 * 0.1 * looksChance(network, 0, [true, true], [0], false),
    ]
    expect(marginal(belief, 'f0@engine')).toBeCloseTo(failed / (never + took + failed), 6)
  })

  it('leaves room for a fourth once three were found and mended, as good as confirmed', () => {
    const clear = (own: number): number[] => [0, 1, 2].map((test) => (test === own ? 0.97 : 0))
    const network: Net = {
      faults: [0, 1, 2, 3].map((own) => ({ prior: own === 3 ? 0.3 : 0.2, success: 0.97, chances: clear(own) })),
      tests: [0, 1, 2].map(() => ({ leak: 0.005, misread: 0.01 })),
    }
    const diagnosis = new Diagnosis(description, knowledgeOf(network))
    const events = [0, 1, 2].map((own): EngineEvent => ({
      kind: 'repaired',
      suspect: `f${own}@engine`,
      state: own + 1,
    }))
    const findings = [0, 1, 2].flatMap((own): TestFinding[] => [
      { id: `${own}a`, test: `t${own}`, outcome: 'yes', state: own },
      { id: `${own}b`, test: `t${own}`, outcome: 'no', state: own + 1 },
    ])
    const unsettled = new Belief(new HypothesisSpace(diagnosis.engine, events), { findings, events })
    expect(marginal(unsettled, 'f3@engine')).toBeLessThan(0.05)
    // Nothing was seen of the fourth: it is as likely as before.
    expect(marginal(diagnosis.believe({ findings, events }), 'f3@engine')).toBeCloseTo(0.3, 1)
    // Two mended take no place either: what is left may be there together.
    const [twoFound, twoMended] = [findings.slice(0, 4), events.slice(0, 2)]
    expect(
      marginal(
        new Belief(new HypothesisSpace(diagnosis.engine, twoMended), { findings: twoFound, events: twoMended }),
        'f3@engine',
      ),
    ).toBeLessThan(0.27)
    expect(marginal(diagnosis.believe({ findings: twoFound, events: twoMended }), 'f3@engine')).toBeCloseTo(0.3, 2)
    // Asked again, and after one finding was struck out, the same as from the start.
    const shorter = findings.slice(0, -1)
    expect(marginal(diagnosis.believe({ findings: shorter, events }), 'f3@engine')).toBeCloseTo(
      marginal(new Diagnosis(description, knowledgeOf(network)).believe({ findings: shorter, events }), 'f3@engine'),
      9,
    )
  })

  it('takes what is confirmed as given until it is mended, and the search goes on', () => {
    const engine = new CompiledEngine(describeConstruction('side-brush-bogie'), diagnosisKnowledge)
    const findings: TestFinding[] = [{ id: 'a', test: 'track-run', outcome: 'stands', state: 0 }]
    const confirmed: EngineEvent = { kind: 'confirmed', suspect: 'lead-off@leads.lead.trailing', state: 0 }
    const before = new Belief(new HypothesisSpace(engine, []), { findings, events: [] })
    const after = new Belief(new HypothesisSpace(engine, [confirmed]), { findings, events: [confirmed] })
    expect(marginal(after, 'lead-off@leads.lead.trailing')).toBe(1)
    // The lead explains the standing: what else could stand for it falls back towards its prior.
    expect(marginal(after, 'grease-hard@mesh')).toBeLessThan(marginal(before, 'grease-hard@mesh'))
    const mended: EngineEvent[] = [confirmed, { kind: 'repaired', suspect: 'lead-off@leads.lead.trailing', state: 1 }]
    const still = new Belief(new HypothesisSpace(engine, mended), {
      findings: [...findings, { id: 'b', test: 'track-run', outcome: 'stands', state: 1 }],
      events: mended,
    })
    expect(marginal(still, 'lead-off@leads.lead.trailing')).toBeLessThan(0.2)
    expect(marginal(still, 'grease-hard@mesh')).toBeGreaterThan(marginal(after, 'grease-hard@mesh'))
  })

  it('of a machine complained of: that it arrived with nothing counts a tenth; its faults stand among themselves as they stood', () => {
    fc.assert(
      fc.property(
        net,
        fc.array(fc.record({ test: fc.integer({ min: 0, max: 2 }), yes: fc.boolean() }), { maxLength: 5 }),
        (network, seen) => {
          const findings: TestFinding[] = seen.map(({ test, yes }, index) => ({
            id: String(index),
            test: `t${test}`,
            outcome: yes ? 'yes' : 'no',
            state: 0,
          }))
          const [plain, complained] = [[], ['complained-of' as const]].map(
            (known) =>
              new Belief(new HypothesisSpace(new CompiledEngine(description, knowledgeOf(network), known), []), {
                findings,
                events: [],
              }),
          ) as [Belief, Belief]
          const odds = ({ nothingHidden }: Belief): number => nothingHidden / (1 - nothingHidden)
          expect(odds(complained)).toBeCloseTo(odds(plain) / 10, 6)
          for (const [suspect, chance] of complained.marginals.entries())
            expect(chance / (1 - complained.nothingHidden)).toBeCloseTo(
              (plain.marginals[suspect] as number) / (1 - plain.nothingHidden),
              6,
            )
        },
      ),
      { numRuns: 60 },
    )
  })

  it('a complaint came before the refitting: what was done wrong then does not explain it (by hand)', () => {
    const network: Net = {
      faults: [{ prior: 0.1, success: 0.9, chances: [0.5, 0.5, 0.5] }],
      tests: [{ leak: 0.1, misread: 0.1 }],
    }
    const known = knowledgeOf(network)
    const engine = new CompiledEngine(
      description,
      { ...known, faults: [...known.faults, fault('mirrored', 0.2, [], 'r0', true)] },
      ['complained-of'],
    )
    const events: EngineEvent[] = [{ kind: 'refitted', state: 1 }]
    // Odds: worn 1/9, unlisted 1/49, mirrored on arrival (half of its 0.2, nobody was in it) 1/9, mirrored since 1/4; the last two exclude each other.
    const [worn, unlisted, before, since] = [1 / 9, 1 / 49, 1 / 9, 1 / 4] as const
    const all = (1 + worn) * (1 + unlisted) * (1 + before + since)
    const nothingOnArrival = 1 + since
    const belief = new Belief(new HypothesisSpace(engine, events), { findings: [], events })
    expect(belief.nothingHidden).toBeCloseTo(0.1 / (all - 0.9 * nothingOnArrival), 9)
  })

  it('a complaint that something confirmed explains says nothing of what else there is', () => {
    const suspect = 'lead-off@leads.lead.trailing'
    const events: EngineEvent[] = [
      { kind: 'confirmed', suspect, state: 0 },
      { kind: 'repaired', suspect, state: 1 },
    ]
    const [plain, complained] = [[], ['complained-of' as const]].map(
      (known) =>
        new Belief(
          new HypothesisSpace(
            new CompiledEngine(describeConstruction('side-brush-bogie'), diagnosisKnowledge, known),
            events,
          ),
          { findings: [], events },
        ),
    ) as [Belief, Belief]
    expect(complained.nothingHidden).toBe(plain.nothingHidden)
  })

  it('knows faults that came in with the refitting, from that state on', () => {
    const engine = new CompiledEngine(describeConstruction('centre-motor'), diagnosisKnowledge)
    const refitted: EngineEvent[] = [{ kind: 'refitted', state: 1 }]
    const findings: TestFinding[] = [
      { id: 'a', test: 'direction', outcome: 'right', state: 0 },
      { id: 'b', test: 'direction', outcome: 'wrong', state: 1 },
    ]
    const known = new Belief(new HypothesisSpace(engine, refitted), { findings, events: refitted })
    const unknown = new Belief(new HypothesisSpace(engine, []), { findings, events: [] })
    expect(marginal(known, 'mirrored@turned.reverse')).toBeGreaterThan(marginal(unknown, 'mirrored@turned.reverse'))
  })

  it('never gives what is not a number, whatever is found', () => {
    const engine = new CompiledEngine(describeConstruction('narrow-gauge'), diagnosisKnowledge)
    const space = new HypothesisSpace(engine, [])
    const outcome = fc
      .integer({ min: 0, max: engine.tests.length - 1 })
      .chain((test) =>
        fc
          .integer({ min: 0, max: (engine.tests[test]?.test.outcomes.length ?? 1) - 1 })
          .map((index) => ({ test, index })),
      )
    fc.assert(
      fc.property(fc.array(outcome, { maxLength: 12 }), (seen) => {
        const findings = seen.map(({ test, index }, at): TestFinding => ({
          id: String(at),
          test: engine.tests[test]?.id ?? '',
          outcome: engine.tests[test]?.test.outcomes[index]?.id ?? '',
          state: 0,
        }))
        const belief = new Belief(space, { findings, events: [] })
        expect([...belief.marginals].every((value) => value >= 0 && value <= 1 + 1e-9)).toBe(true)
        expect(belief.nothingHidden).toBeGreaterThanOrEqual(0)
        expect(belief.leftOut).toBeGreaterThanOrEqual(0)
      }),
      { numRuns: 60 },
    )
  })

  it('holds out against hundreds of findings that fit nothing', () => {
    const engine = new CompiledEngine(describeConstruction('narrow-gauge'), diagnosisKnowledge)
    const tests = engine.tests.filter(({ test }) => test.reading.kind !== 'signs')
    const findings = Array.from({ length: 400 }, (_, index): TestFinding => {
      const { id, test } = tests[index % tests.length] as (typeof tests)[number]
      return { id: String(index), test: id, outcome: test.outcomes[index % test.outcomes.length]?.id ?? '', state: 0 }
    })
    const belief = new Belief(new HypothesisSpace(engine, []), { findings, events: [] })
    expect([...belief.marginals].every((value) => value >= 0 && value <= 1 + 1e-9)).toBe(true)
    expect(belief.chance.reduce((sum, value) => sum + value, 0)).toBeCloseTo(1, 9)
  })

  it('names the test, the outcome or the suspect that is not there', () => {
    const engine = new CompiledEngine(describeConstruction('narrow-gauge'), diagnosisKnowledge)
    const space = new HypothesisSpace(engine, [])
    expect(
      () => new Belief(space, { findings: [{ id: 'a', test: 'nix', outcome: 'x', state: 0 }], events: [] }),
    ).toThrow('There is no test “nix”')
    expect(
      () => new Belief(space, { findings: [{ id: 'a', test: 'track-run', outcome: 'flies', state: 0 }], events: [] }),
    ).toThrow('cannot come out as “flies”')
    expect(() => new HypothesisSpace(engine, [{ kind: 'repaired', suspect: 'nobody', state: 1 }])).toThrow(
      'There is no suspect “nobody”',
    )
  })
})
