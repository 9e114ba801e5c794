import { describe, expect, it } from 'vitest'
import { constructionPlans } from '../knowledge/constructions'
import { advised, actOf, askedOf, Case, type Seen } from './worked-case.test-data'

/** Common sense (common practice, no source): first what it came with, and nothing that makes no sense of a machine as it stands. */

const machines = constructionPlans.map(({ id }) => id).filter((id) => id !== 'other')
const ran: Seen = ['track-run', 'runs']
const firstAsked = (machine: string, seen: readonly Seen[]) => {
  const { report } = new Case(machine).after(seen)
  return { report, first: advised(report)?.observations[0]?.id.split('@')[0] ?? actOf(report) }
}

describe('a complaint of a machine that runs', () => {
  it.each([
    ['squeals', ['noise', 'squeals'], /noise|rods|roll|spacers|repair|armature|springs|axle|current/],
    [
      'is worse one way',
      ['both-ways', 'one-way-worse'],
      /end-play|bearing|noise|springs|brushes|commutator|repair|current|spacers|start|wheels-turn/,
    ],
    ['slips with a train', ['haul', 'slips'], /tyres|treads|rim|oil|weight|truck|smell/],
    ['turns no wheel', ['wheels-turn', 'none'], /gear-hold|worm-twist|joint|repair/],
    ['is fast with little pull', ['light-speed', 'fast'], /magnet|current|warm|repair/],
    ['wobbles', ['wobble', 'wobbles'], /axle|back-to-back|tyres|muff|quartering|roll/],
  ] as ReadonlyArray<readonly [string, Seen, RegExp]>)(
    'it %s: what is asked first has to do with it',
    (_words, seen, has) => {
      let explained = 0
      for (const machine of machines) {
        // Nobody asks a sequence switch which way it likes less.
        const { tests, description } = new Case(machine).diagnosis.engine
        if (!tests.some(({ id }) => id === seen[0])) continue
        // Nothing that slips stops the wheels of two motors.
        if (seen[0] === 'wheels-turn' && description.motors.length > 1) continue
        const { report, first } = firstAsked(machine, [ran, seen])
        // A wound field has no magnet that grows weak: such a complaint stands unexplained there.
        const chances = report.suspects.filter(({ implied }) => implied).map(({ chance }) => chance)
        // Of a motor that neither opens nor comes out nothing leads on to its end play.
        if (
          chances.reduce((sum, chance) => sum + chance, 0) < 0.25 ||
          (machine === 'motor-bogie-unit' && seen[0] === 'both-ways')
        )
          continue
        explained++
        expect(first, machine).toMatch(has)
      }
      expect(explained).toBeGreaterThan(4)
    },
  )
})

describe('what makes no sense', () => {
  it('is to supply a machine nearer to its motor that runs from the rails', () => {
    for (const machine of machines)
      for (const seen of [
        ['noise', 'growls'],
        ['creep', 'jerky'],
        ['track-current', 'high'],
      ] as Seen[])
        expect(askedOf(new Case(machine).after([ran, seen]).report), machine).not.toEqual(
          expect.arrayContaining([expect.stringMatching(/^(wheels|pickups|leads|bypass)-run/)]),
        )
  })

  it('is to read the volts at a motor while the supply trips, or a current twice', () => {
    for (const machine of machines) {
      const asked = askedOf(
        new Case(machine).after([
          ['track-run', 'trips'],
          ['track-current', 'high'],
        ]).report,
      )
      expect(asked, machine).not.toContain('track-current-coarse')
      expect(
        asked.filter((id) => id.startsWith('motor-volts')),
        machine,
      ).toEqual([])
    }
  })
})

describe('between a point that turns it and one that does not', () => {
  it('the two leads there are measured or looked at, and nothing before them', () => {
    const { report, first } = firstAsked('centre-motor', [
      ['track-run', 'stands'],
      ['leads-run', 'stands'],
      ['terminals-run', 'runs'],
    ])
    expect(first).toMatch(/lead/)
    expect(advised(report)?.observations[0]?.id).toMatch(/motor\.lead/)
  })
})

describe('a motor that runs and turns no wheel', () => {
  it.each(['runs', 'stands'])('has something that slips, though the machine is said to be one that %s', (how) => {
    for (const machine of ['narrow-gauge', 'side-brush-bogie', 'tank-can']) {
      const { report } = firstAsked(machine, [
        ['track-run', how],
        ['track-current', 'usual'],
        ['wheels-turn', 'none'],
      ])
      expect(report.suspects[0]?.fault, machine).toMatch(/slips|gear-loose|joint-off/)
    }
  })

  it('is not said of one that draws nothing', () => {
    const { report } = firstAsked('side-brush-bogie', [
      ['track-run', 'stands'],
      ['track-current', 'nothing'],
      ['lamp-on-track', 'dark'],
    ])
    expect(report.suspects.slice(0, 8).map(({ fault }) => fault)).not.toContain('gear-loose')
  })
})
