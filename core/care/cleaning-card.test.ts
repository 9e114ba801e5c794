import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { materials, type EngineDescription, type Material } from '../engine/description-schema'
import { driveTrain } from '../engine/drive-train'
import { careKnowledge } from '../knowledge/care/care-knowledge'
import weights from '../knowledge/care/weights.json'
import { constructionPlans, describeConstruction } from '../knowledge/constructions'
import { schools } from '../knowledge/schools'
import { cleaningCard, type GroupSoil } from './cleaning-card'
import { cleaningGroups, type CleaningGroup } from './cleaning-groups'
import { judgeWay } from './judge-way'

const machines = constructionPlans.map((plan) => describeConstruction(plan.id))
const practice = { knowledge: careKnowledge, schools, chosen: {} }
const judged = (group: CleaningGroup, agent: string | null, method: string) =>
  judgeWay(group, { agent, method }, practice).level

/**
 * What the trade never does, written down by hand from its table of cleaning (common practice, no published source):
 * on what, with what, wiped on or as a bath.
 */
const neverOn: ReadonlyArray<readonly [subject: string, agent: string | null, method: string]> = [
  ['treads', null, 'steel-wool'],
  ['treads', null, 'coarse-abrasive'],
  ['commutator', null, 'metal-pick'],
  ['commutator', null, 'coarse-abrasive'],
  ['motor-bearings', null, 'grit-600'],
  ['motor-bearings', null, 'rotary-tool'],
  ['live-bearings', null, 'fibre-pen'],
  ['live-bearings', null, 'rotary-tool'],
  ['axle-boxes', null, 'rotary-tool'],
  ['gears-plastic', 'acetone', 'soft-brush'],
  ['body', 'isopropyl', 'swab'],
  ['body', 'soapy-water', 'ultrasonic'],
  ['body', 'mineral-spirit', 'swab'],
  ['motor-closed', 'soapy-water', 'ultrasonic'],
  ['switch-contacts', null, 'grit-600'],
  ['frame', 'isopropyl', 'ultrasonic'],
  ['gears-metal', 'mineral-spirit', 'ultrasonic'],
]
const neverOnMaterial: ReadonlyArray<readonly [Material, string]> = [
  ...(['styrene', 'abs', 'polycarbonate', 'unknown-plastic', 'unknown'] as const).flatMap(
    (plastic) =>
      [
        [plastic, 'mineral-spirit'],
        [plastic, 'petroleum'],
        [plastic, 'acetone'],
        [plastic, 'contact-cleaner'],
      ] as const,
  ),
  ['acetal', 'acetone'],
  ['nylon', 'acetone'],
  ['painted', 'isopropyl'],
  ['printed', 'acetone'],
]

/** Everything that may be dirty on it with whatever something is known against. */
const everySoil = (description: EngineDescription): GroupSoil[] =>
  cleaningGroups(description).flatMap((group) =>
    careKnowledge.ways
      .filter((row) => row.subjects.includes(group.subject))
      .map((row) => ({ group: group.id, soil: row.soil })),
  )

describe('what is never taken', () => {
  it.each(neverOn)('on %s: %s by %s, on every construction that has it', (subject, agent, method) => {
    const groups = machines.flatMap(cleaningGroups).filter((group) => group.subject === subject)
    expect(groups.length).toBeGreaterThan(0)
    expect(groups.filter((group) => judged(group, agent, method) !== 'never')).toEqual([])
  })

  it.each(neverOnMaterial)('%s is never wetted with %s, wherever it is', (material, agent) => {
    const wetted = machines.flatMap(cleaningGroups).filter((group) => group.wet.includes(material))
    expect(wetted.filter((group) => judged(group, agent, 'swab') !== 'never')).toEqual([])
  })

  it('an agent nobody knows, a tool nobody knows, and a material nobody knows is the most sensitive', () => {
    const [group] = cleaningGroups(machines[0] as EngineDescription) as [CleaningGroup]
    expect(judged(group, 'moonshine', 'swab')).toBe('never')
    expect(judged(group, null, 'chisel')).toBe('never')
    const unknown = { ...group, subject: 'frame' as const, wet: ['unknown' as const] }
    const plastic = { ...unknown, wet: ['styrene' as const] }
    for (const { id } of careKnowledge.agents)
      expect([id, judged(unknown, id, 'swab')]).toEqual([id, judged(plastic, id, 'swab')])
  })
})

describe('a card', () => {
  const anyCase = fc.record({
    machine: fc.constantFrom(...machines),
    picks: fc.array(fc.nat(), { minLength: 1, maxLength: 12 }),
    shelf: fc.option(fc.subarray([...careKnowledge.agents.map((agent) => agent.id), 'ultrasonic']), { nil: undefined }),
    polish: fc.boolean(),
    wild: fc.record({
      agent: fc.constantFrom(null, ...careKnowledge.agents.map((agent) => agent.id)),
      method: fc.constantFrom(...careKnowledge.methods.map((method) => method.id)),
    }),
  })

  it('never lets an agent or a tool touch a material it must not, whatever stands on the shelf and was chosen', () => {
    const forbidden = new Set(
      careKnowledge.materialRules
        .filter((rule) => rule.level === 'never')
        .map((rule) => `${rule.material} ${rule.what}`),
    )
    fc.assert(
      fc.property(anyCase, ({ machine, picks, shelf, polish, wild }) => {
        const all = everySoil(machine)
        const soils = [...new Set(picks.map((pick) => all[pick % all.length] as GroupSoil))]
        const ways = soils.map((soil) => ({ step: `${soil.group} ${soil.soil}`, ...wild, word: '' }))
        const chosen: Record<string, string> = polish ? { commutator: 'polish' } : {}
        for (const step of cleaningCard(machine, soils, { shelf, chosen, ways }).steps) {
          if (!step.way) continue
          const bath = step.way.method === 'ultrasonic' || step.way.method === 'soak'
          const wet = bath ? step.group.soaked : step.group.wet
          const touched = bath ? step.group.soaked : step.group.touched
          expect(wet.filter((material) => forbidden.has(`${material} ${step.way?.agent}`))).toEqual([])
          expect(touched.filter((material) => forbidden.has(`${material} ${step.way?.method}`))).toEqual([])
          expect(step.way.level).not.toBe('never')
        }
      }),
      { numRuns: 300 },
    )
  })

  it('takes what is never taken only on a word, and keeps the word', () => {
    const tank = describeConstruction('tank-open')
    const [soil] = everySoil(tank).filter((entry) => entry.group.startsWith('commutator') && entry.soil === 'carbon')
    if (!soil) throw new Error('It has a commutator.')
    const step = `${soil.group} ${soil.soil}`
    const card = (word: string) =>
      cleaningCard(tank, [soil], { ways: [{ step, agent: null, method: 'metal-pick', word }] }).steps[0]
    expect(card(' ')?.way?.method).not.toBe('metal-pick')
    expect(card('the finest pick, under the glass')).toMatchObject({
      way: { method: 'metal-pick', level: 'never' },
      overruled: 'the finest pick, under the glass',
    })
  })

  it('opens the bottles that cost least in all: as found by trying every combination of ways', () => {
    const cost = (way: { minutes: number; level: string; rank: number }): number =>
      way.minutes + (way.level === 'care' ? weights.careMinutes : 0) + weights.usualOrderMinutes * way.rank
    fc.assert(
      fc.property(
        fc.constantFrom(...machines),
        fc.array(fc.nat(), { minLength: 1, maxLength: 3 }),
        (machine, picks) => {
          const all = everySoil(machine)
          const soils = [...new Set(picks.map((pick) => all[pick % all.length] as GroupSoil))]
          const { steps, agents } = cleaningCard(machine, soils)
          const bottles = (taken: readonly (string | null)[]): number =>
            weights.bottleMinutes * new Set(taken.filter((agent) => agent !== null && !always.has(agent))).size
          const always = new Set(['soapy-water'])
          const choices = steps.map((step) => [...(step.way ? [step.way] : []), ...step.others])
          const least = choices.reduce<Array<{ cost: number; taken: readonly (string | null)[] }>>(
            (sofar, ways) =>
              ways.length === 0
                ? sofar
                : sofar.flatMap((one) =>
                    ways.map((way) => ({ cost: one.cost + cost(way), taken: [...one.taken, way.agent] })),
                  ),
            [{ cost: 0, taken: [] }],
          )
          const best = Math.min(...least.map((one) => one.cost + bottles(one.taken)))
          const found =
            steps.reduce((sum, step) => sum + (step.way ? cost(step.way) : 0), 0) +
            bottles(agents.map((agent) => agent.id))
          expect(found).toBeCloseTo(best, 6)
        },
      ),
      { numRuns: 120 },
    )
  })

  it('cleans turning only what a gear turns, by hand what only rolls, and nothing turning while parts are off', () => {
    for (const machine of machines) {
      const rolling = new Set(
        driveTrain(machine)
          .wheels.filter((wheel) => !wheel.driven)
          .map((wheel) => wheel.wheelSet),
      )
      const idle = machine.wheelSets.filter((set) => rolling.has(set.id)).map((set) => set.left.part)
      for (const step of cleaningCard(machine, everySoil(machine)).steps)
        if (step.way?.method === 'pad-under-power')
          expect(step.group.parts.filter((part) => idle.includes(part))).toEqual([])
      const open = cleaningCard(machine, everySoil(machine), { off: new Set(['body']) })
      expect(open.steps.filter((step) => step.way?.method === 'pad-under-power')).toEqual([])
    }
  })

  it('goes by dust, fibres and old grease first, treads and backs last', () => {
    for (const machine of machines) {
      const { steps } = cleaningCard(machine, everySoil(machine))
      const at = (soil: string): number[] => steps.flatMap((step, index) => (step.soil.id === soil ? [index] : []))
      expect(Math.max(...at('dust'))).toBeLessThan(Math.min(...at('fibres')))
      expect(Math.max(...at('fibres'))).toBeLessThan(Math.min(...at('hard-grease')))
      const last = steps.filter((step) => step.soil.stage > 1).slice(-3)
      expect(last.every((step) => ['treads', 'wheel-backs'].includes(step.group.subject))).toBe(true)
    }
  })

  it('says what would do better when the shelf is empty, and still finds soap and water, wood and brush', () => {
    const tank = describeConstruction('tank-open')
    const soils = everySoil(tank).filter((entry) => ['oil-film', 'carbon'].includes(entry.soil))
    const { steps } = cleaningCard(tank, soils, { shelf: [] })
    expect(
      steps.every((step) => step.way === null || step.way.agent === null || step.way.agent === 'soapy-water'),
    ).toBe(true)
    expect(steps.find((step) => step.group.subject === 'commutator' && step.soil.id === 'oil-film')?.way?.agent).toBe(
      null,
    )
  })

  it('draws its minutes towards the shop’s own the more of them there are', () => {
    const tank = describeConstruction('tank-open')
    const soils = [{ group: 'wheel-backs@locomotive', soil: 'black-paste' }]
    const minutes = (count: number): number =>
      cleaningCard(tank, soils, {
        own: [{ subject: 'wheel-backs', soil: 'black-paste', perPiece: 5, count }],
        shelf: ['isopropyl'],
      }).minutes
    expect(minutes(1)).toBeGreaterThan(minutes(4))
    // Half a minute to set up, three sets at five minutes each.
    expect(minutes(1000)).toBeCloseTo(15.5, 0)
  })

  it('knows a garden runner’s half hour a set and a dusty one’s few minutes', () => {
    const tank = describeConstruction('tank-open')
    const on = (soil: string): number =>
      cleaningCard(
        tank,
        [
          { group: 'treads@driven@locomotive', soil },
          { group: 'wheel-backs@locomotive', soil },
        ],
        { shelf: ['isopropyl'], off: new Set(['body']) },
      ).minutes / 3
    expect(on('black-paste')).toBeGreaterThan(20)
    expect(on('black-paste')).toBeLessThan(40)
    expect(on('dust')).toBeLessThan(5)
  })
})

it('every material is one that a rule may speak of, and every group of every engine can be cleaned of something', () => {
  const known = new Set<string>(materials)
  expect(careKnowledge.materialRules.filter((rule) => !known.has(rule.material))).toEqual([])
  for (const machine of machines)
    for (const group of cleaningGroups(machine))
      expect([group.id, everySoil(machine).some((entry) => entry.group === group.id)]).toEqual([group.id, true])
})
