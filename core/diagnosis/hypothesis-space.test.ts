import { describe, expect, it } from 'vitest'
import { describeConstruction } from '../knowledge/constructions'
import { diagnosisKnowledge } from '../knowledge/diagnosis-knowledge'
import { Belief } from './belief'
import { CompiledEngine } from './compiled-engine'
import { Diagnosis } from './diagnosis'
import type { TestFinding } from './history'
import { HypothesisSpace } from './hypothesis-space'
import { chancesAgain, holdsUnlisted, KEEPS_ITS_WORD, type EarlierLook } from './repeated-looks'

it('a column holds, for every test and outcome, what the chances of all outcomes hold; they add up to one', () => {
  const engine = new CompiledEngine(describeConstruction('tank-can'), diagnosisKnowledge)
  const given = engine.suspects.find((suspect) => suspect.place.role === 'leads')?.id ?? ''
  const space = new HypothesisSpace(engine, [{ kind: 'confirmed', suspect: given, state: 0 }])
  const sets = Int32Array.from([
    ...space.sets.rankTriples(space.sets.odds).take(40),
    ...Array.from({ length: 60 }, (_, index) => Math.floor((index * space.sets.base) / 60)),
  ])
  for (const [
    test,
    {
      test: { outcomes },
    },
  ] of engine.tests.entries()) {
    for (const before of [
      [],
      [
        { test, state: 0, outcome: 1 },
        { test, state: 0, outcome: 0 },
      ],
    ]) {
      const chances = chancesAgain(space, 0, test, before)
      const columns = outcomes.map((_, outcome) => space.column(0, test, outcome, before))
      for (const column of columns) for (const set of sets) column.at(set)
      for (const set of sets) {
        const expected = chances(set).slice(0, outcomes.length)
        for (const [outcome, column] of columns.entries())
          expect(column.values[set]).toBeCloseTo(expected[outcome] as number, 9)
        expect(expected.reduce((sum, chance) => sum + chance, 0)).toBeCloseTo(1, 6)
      }
    }
  }
})

describe('what no row names', () => {
  it('shows anything, but the same again at the same test: once it faltered it is expected to falter', () => {
    const engine = new CompiledEngine(describeConstruction('articulated'), diagnosisKnowledge)
    const space = new HypothesisSpace(engine, [])
    const here = space.at(0)
    const alone = Array.from({ length: space.sets.base }, (_, set) => set).find(
      (set) => here.members[set * 3] === engine.unlisted && here.members[set * 3 + 1] === -1,
    ) as number
    const run = engine.indexOfTest('track-run')
    const falters = engine.indexOfOutcome(run, 'falters')
    const first = space.column(0, run, falters).at(alone)
    const again = space.column(0, run, falters, [{ test: run, state: 0, outcome: falters }]).at(alone)
    expect(first).toBeLessThan(0.25)
    expect(again).toBeGreaterThan(0.85)
    // Of another test it says nothing.
    expect(
      space.column(0, run, falters, [{ test: engine.indexOfTest('wheels-run'), state: 0, outcome: falters }]).at(alone),
    ).toBeCloseTo(first, 9)
  })
})

describe('a figure between two words', () => {
  const engine = new CompiledEngine(describeConstruction('side-brush-bogie'), diagnosisKnowledge)
  const space = new HypothesisSpace(engine, [])
  const here = space.at(0)
  const [run, wheels, pickups] = ['track-run', 'wheels-run', 'pickups-run'].map((id) => engine.indexOfTest(id)) as [
    number,
    number,
    number,
  ]
  const between = Array.from({ length: space.sets.base }, (_, set) => set).filter(
    (set) => here.row(set).betweenWords(run) >= 0,
  )

  it('is called by the same word again, in every test that meets it: what is noted has the chance that all readers together would have', () => {
    expect(between.length).toBeGreaterThan(20)
    const looks: EarlierLook[] = [
      { test: run, state: 0, outcome: 0 },
      { test: wheels, state: 0, outcome: 1 },
      { test: pickups, state: 0, outcome: 0 },
      { test: run, state: 0, outcome: 0 },
    ]
    let met = 0
    for (const set of between) {
      const words = here.row(set).betweenWords(run)
      if (looks.some(({ test }) => here.row(set).betweenWords(test) !== words)) continue
      met++
      const chained = looks.reduce((product, look, at) => {
        const column = space.column(0, look.test, look.outcome, looks.slice(0, at))
        column.at(set)
        return product * (column.values[set] as number)
      }, 1)
      // What no row names is another matter.
      if (holdsUnlisted(space, here)(set)) continue
      const count = 4
      const offset = engine.outcomes.offsets[run] as number
      const chances = here
        .row(set)
        .chances(run)
        .slice(offset, offset + count)
      // At each test the word is the figure's own, or called anew; two readers of one test read the same word.
      const seenAt = (test: number, word: number): number =>
        looks
          .filter((look) => look.test === test)
          .reduce((product, look) => {
            const spread = engine.spreadOf(look.test, false)
            return product * ((word === look.outcome ? 1 - spread : 0) + spread / count)
          }, 1)
      const anew = (test: number): number => chances.reduce((sum, chance, word) => sum + chance * seenAt(test, word), 0)
      const together = chances.reduce(
        (sum, chance, word) =>
          sum +
          chance *
            [run, wheels, pickups].reduce(
              (product, test) => product * (KEEPS_ITS_WORD * seenAt(test, word) + (1 - KEEPS_ITS_WORD) * anew(test)),
              1,
            ),
        0,
      )
      // Chances of a row are kept in single precision.
      expect(chained).toBeCloseTo(together, 8)
    }
    expect(met).toBeGreaterThan(20)
  })

  it('tells nothing new when it is read once more: dry bearings that show at half the trials of such machines are not cleared by a second good run of this one', () => {
    const dry = (runs: number): number =>
      new Belief(space, {
        findings: [
          { id: 'noise', test: 'noise', outcome: 'squeals', state: 0 },
          ...Array.from({ length: runs }, (_, index) => ({
            id: `run-${index}`,
            test: 'track-run',
            outcome: 'runs',
            state: 0,
          })),
        ],
        events: [],
      }).marginals[engine.indexOfSuspect('bearing-dry@motor')] as number
    // Read anew each time, five more good runs would leave next to nothing of those bad enough to show half the time.
    expect(dry(6)).toBeGreaterThan(0.95 * dry(1))
  })

  it('is one where a weak armature may or may not overcome what holds it at rest: it did so once and will again', () => {
    const { engine: open } = new Diagnosis(describeConstruction('open-frame'), diagnosisKnowledge)
    const coil = new HypothesisSpace(open, [{ kind: 'confirmed', suspect: 'coil-open@motor.winding', state: 0 }])
    const track = open.indexOfTest('track-run')
    const [runs, stands] = ['runs', 'stands'].map((outcome) => open.indexOfOutcome(track, outcome)) as [number, number]
    const chance = (outcome: number, before: readonly EarlierLook[]): number =>
      coil.column(0, track, outcome, before).at(0)
    expect(chance(stands, [])).toBeGreaterThan(0.2)
    expect(chance(runs, [{ test: track, state: 0, outcome: runs }])).toBeGreaterThan(0.9)
    expect(chance(stands, [{ test: track, state: 0, outcome: stands }])).toBeGreaterThan(0.9)
  })

  it('is one where a tight spot stands in the way once a turn: there at every run, whatever feeds it', () => {
    const { engine: open } = new Diagnosis(describeConstruction('tank-open'), diagnosisKnowledge)
    const bent = new HypothesisSpace(open, [{ kind: 'confirmed', suspect: 'rods-bent@rods', state: 0 }])
    const [track, terminals] = ['track-run', 'terminals-run'].map((id) => open.indexOfTest(id)) as [number, number]
    const falters = open.indexOfOutcome(track, 'falters')
    const chance = (test: number, before: readonly EarlierLook[]): number => bent.column(0, test, falters, before).at(0)
    const faltered: EarlierLook = { test: track, state: 0, outcome: falters }
    // Two thirds of such rods falter; these did.
    expect(chance(track, [])).toBeLessThan(0.7)
    expect(chance(track, [faltered])).toBeGreaterThan(0.95)
    expect(chance(terminals, [faltered])).toBeGreaterThan(0.85)
    expect(chance(terminals, [faltered])).toBeLessThan(chance(track, [faltered]))
    // Seen three times there it is still one figure.
    expect(chance(terminals, [faltered, faltered, faltered])).toBeLessThan(0.97)
  })

  it('is not where a meter met the shorted coil of an armature that stood so: the next time it stands elsewhere', () => {
    const shorted = engine.variants.findIndex(
      ({ suspect }) => engine.suspects[suspect]?.id === 'coil-shorted@motor.winding',
    )
    expect(engine.circuitRow([shorted], 1).betweenWords(engine.indexOfTest('motor-ohms'))).toBe(-1)
    expect(
      engine
        .circuitRow(
          [engine.variants.findIndex(({ suspect }) => engine.suspects[suspect]?.id === 'bearing-dry@motor')],
          1,
        )
        .betweenWords(run),
    ).toBeGreaterThanOrEqual(0)
  })
})

it('a needle flickers where contact comes and goes; at a tight spot it swings up, and never falls to nothing', () => {
  const { engine } = new Diagnosis(describeConstruction('tank-open'), diagnosisKnowledge)
  const current = engine.indexOfTest('track-current')
  const chances = (suspect: string): Record<string, number> =>
    Object.fromEntries(
      (engine.tests[current]?.test.outcomes ?? []).map(({ id }, outcome) => [
        id,
        new HypothesisSpace(engine, [{ kind: 'confirmed', suspect, state: 0 }]).column(0, current, outcome).at(0),
      ]),
    )
  expect(chances('treads-film@treads.frame-axles').flickers).toBeGreaterThan(0.3)
  for (const suspect of ['rods-bent@rods', 'gear-split@mesh']) {
    const { flickers, usual, high } = chances(suspect)
    expect(flickers).toBeLessThan(0.02)
    // As a damped needle shows it: the mean of a turn, and that is nearer to the usual.
    expect(usual).toBeGreaterThan(high as number)
  }
})

it('friction that is mostly slight is hardly cleared by a good run, and where the book says nothing a third of it is', () => {
  const left = (light?: number): number => {
    const knowledge = {
      ...diagnosisKnowledge,
      faults: diagnosisKnowledge.faults.map((fault) => {
        if (fault.id !== 'gears-hair' || fault.effect.kind !== 'drag') return fault
        const { light: _, ...effect } = fault.effect
        return { ...fault, effect: light === undefined ? effect : { ...effect, light } }
      }),
    }
    const space = new HypothesisSpace(new CompiledEngine(describeConstruction('tank-open'), knowledge), [])
    const chance = (findings: TestFinding[]): number =>
      new Belief(space, { findings, events: [] }).marginals[space.engine.indexOfSuspect('gears-hair@mesh')] as number
    return chance([{ id: 'run', test: 'track-run', outcome: 'runs', state: 0 }]) / chance([])
  }
  expect(left(0.95)).toBeGreaterThan(0.9)
  expect(left(0)).toBeLessThan(0.25)
  expect(left()).toBeCloseTo(left(0.35), 9)
})
