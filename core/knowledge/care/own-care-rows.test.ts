import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cleaningCard, neverInWords } from '../../care/cleaning-card'
import { cleaningGroups } from '../../care/cleaning-groups'
import { judgeWay } from '../../care/judge-way'
import { lubricationCard, products } from '../../care/lubrication-card'
import { materials } from '../../engine/description-schema'
import { describeConstruction } from '../constructions'
import { schools } from '../schools'
import { careKnowledge } from './care-knowledge'
import { checkOwnCareRows, noCareRows, ownCareKnowledge, type OwnCareRows } from './own-care-rows'

const tank = describeConstruction('tank-open')
const practice = { schools, chosen: {} }
const rows = (change: Partial<OwnCareRows>): OwnCareRows => ({ ...noCareRows, ...change })
const stepOf = (own: readonly OwnCareRows[], group: string, soil: string, shelf?: readonly string[]) =>
  cleaningCard(tank, [{ group, soil }], { knowledge: ownCareKnowledge(careKnowledge, own), shelf }).steps[0]
const commutator = 'commutator@locomotive'

describe('what a shop holds otherwise', () => {
  const no = {
    what: 'isopropyl',
    material: null,
    subject: 'commutator',
    level: 'never',
    why: 'It left streaks.',
  } as const

  it('takes a way away, with the shop’s own reason', () => {
    expect(stepOf([], commutator, 'carbon')?.way?.agent).toBe('isopropyl')
    const step = stepOf([rows({ rules: [no] })], commutator, 'carbon')
    expect(step?.way?.agent).not.toBe('isopropyl')
    expect(step?.never.filter((way) => way.agent === 'isopropyl').map(neverInWords)).toContain('It left streaks.')
  })

  it('softens what ships as never to “with care” at most, and still says what it does', () => {
    const softer = { ...no, what: 'acetone', material: 'abs', subject: null, level: 'good', why: 'Ours held.' } as const
    const group = { ...cleaningGroups(tank)[0], wet: ['abs'], touched: ['abs'], soaked: ['abs'], subject: 'body' }
    const judge = (own: OwnCareRows[]) =>
      judgeWay(
        group as unknown as Parameters<typeof judgeWay>[0],
        { agent: 'acetone', method: 'swab' },
        { ...practice, knowledge: ownCareKnowledge(careKnowledge, own) },
      )
    expect(judge([]).level).toBe('never')
    const { level, because } = judge([rows({ rules: [softer] })])
    expect(level).not.toBe('good')
    expect(because.map((entry) => entry.why).join()).toMatch(/Ours held\. Elsewhere it is never taken: /)
  })

  it('is taken first where it may be and is at hand, though another way costs less', () => {
    const usual = stepOf([], 'body@locomotive', 'dust') ?? stepOf([], cleaningGroups(tank)[0]?.id ?? '', 'dust')
    const group = usual?.group.id ?? ''
    const other = usual?.others.at(-1)
    if (!usual?.way || !other) throw new Error('Dust has more than one way.')
    const own = rows({
      ways: [{ soil: 'dust', subject: usual.group.subject, agent: other.agent, method: other.method }],
    })
    expect(stepOf([own], group, 'dust')?.way).toMatchObject({ agent: other.agent, method: other.method })
    expect(stepOf([own], group, 'dust')?.others).toContainEqual(
      expect.objectContaining({ agent: usual.way.agent, method: usual.way.method }),
    )
    const solvent = rows({
      ways: [{ soil: 'carbon', subject: 'commutator', agent: 'white-spirit', method: 'bud' }],
    })
    const [mineral] = careKnowledge.agents.filter((agent) => /mineral/.test(agent.words))
    const held = rows({ ways: [{ ...solvent.ways[0], agent: mineral?.id ?? '' } as OwnCareRows['ways'][number]] })
    expect(stepOf([held], commutator, 'carbon')?.way?.agent).toBe(mineral?.id)
    expect(stepOf([held], commutator, 'carbon', ['isopropyl'])?.way?.agent).toBe('isopropyl')
  })

  it('of a type goes before the shop’s, and the maker’s word before both', () => {
    const worm = (product: string) => rows({ amounts: [{ point: 'worm', product, amount: '' }] })
    const shown = (advice: OwnCareRows['amounts']) =>
      lubricationCard(tank, {
        amounts: [worm('gear oil'), worm('medium oil')].flatMap((own) => own.amounts),
        advice,
      }).points.find((point) => point.kind === 'worm')
    expect(shown([])).toMatchObject({ product: 'medium oil', because: 'As this shop does it.' })
    expect(shown([{ point: 'worm', product: 'light oil', amount: '' }])?.product).toBe('light oil')
    const dry = lubricationCard(tank, { amounts: [{ point: 'brushes', product: 'light oil', amount: 'a drop' }] })
    expect(dry.points.filter((point) => point.kind === 'brushes')).toEqual([])
  })

  it('never lets a card call good what ships as never, whatever is entered (property)', () => {
    const groups = cleaningGroups(tank)
    const ways = careKnowledge.agents.flatMap((agent) =>
      careKnowledge.methods.map((method) => ({ agent: agent.id, method: method.id })),
    )
    const harmful = groups.flatMap((group) =>
      ways
        .filter((way) => judgeWay(group, way, { ...practice, knowledge: careKnowledge }).level === 'never')
        .map((way) => ({ group, way })),
    )
    expect(harmful.length).toBeGreaterThan(100)
    // Rules about just this agent and tool, on just what is there: the worst that can be entered.
    const entered = fc.constantFrom(...harmful).chain(({ group, way }) => {
      const what = fc.constantFrom(way.agent, way.method)
      const level = fc.constantFrom('good' as const, 'good' as const, 'care' as const, 'never' as const)
      const about = fc.oneof(
        fc.record({ material: fc.constantFrom(...materials), subject: fc.constant(null) }),
        fc.constant({ material: null, subject: group.subject }),
      )
      const rule = fc
        .record({ what, level, about })
        .map(({ about: on, ...rest }) => ({ ...rest, ...on, why: 'We found so.' }))
      return fc.record({ group: fc.constant(group), way: fc.constant(way), rules: fc.array(rule, { maxLength: 40 }) })
    })
    fc.assert(
      fc.property(entered, ({ group, way, rules }) => {
        const knowledge = ownCareKnowledge(careKnowledge, [rows({ rules })])
        return judgeWay(group, way, { ...practice, knowledge }).level !== 'good'
      }),
      { numRuns: 1000 },
    )
  })
})

it('names what cannot be: things nobody knows, a rule about nothing, two words on one thing, a way that a rule forbids', () => {
  const rule = { what: 'isopropyl', material: 'abs', subject: null, level: 'care', why: 'So.' } as const
  const flaws = checkOwnCareRows(
    careKnowledge,
    {
      rules: [rule, rule, { ...rule, what: 'moonshine' }, { ...rule, material: null }],
      ways: [{ soil: 'oxide', subject: 'treads', agent: null, method: 'steel-wool' }],
      amounts: [{ point: 'worm', product: 'honey', amount: '' }],
    },
    products.map((product) => product.id),
  )
  expect(flaws.map((flaw) => `${flaw.place}: ${flaw.message}`)).toEqual([
    'rules.1: This stands twice: take one of them off.',
    'rules.2: “moonshine” is neither an agent nor a tool that is known.',
    'rules.3: A rule is about one material or one surface.',
    expect.stringMatching(/^ways\.0: “.*” harms it \(Treads\): /),
    'amounts.0: “honey” is no class of lubricant that is known: choose the one it belongs to.',
  ])
})
