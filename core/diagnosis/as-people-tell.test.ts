import { describe, expect, it } from 'vitest'
import { constructionPlans } from '../knowledge/constructions'
import { actOf, advised, Case, inArea, ofFault, type Seen } from './worked-case.test-data'

/** Histories as people tell them, on every machine they can be told of (common practice, no source). */
const machines = constructionPlans.map(({ id }) => id).filter((id) => id !== 'other')
const canTell = (machine: Case, seen: readonly Seen[]): boolean =>
  seen.every(([test]) => machine.diagnosis.engine.tests.some(({ id }) => id === test))

describe('what is believed', () => {
  it.each([
    [
      'slow, the lamp dim, no more current than usual: something passes badly',
      [
        ['track-run', 'runs'],
        ['light-speed', 'slow'],
        ['lamp-on-track', 'dim'],
        ['track-current', 'usual'],
      ],
      ofFault('treads-oxide', 'contacts-poor', 'linkage-poor', 'lead-poor', 'choke-poor', 'track-poor', 'treads-film'),
      0.4,
    ],
    [
      'weak, smells burnt and takes too much: the winding or what bridges it',
      [
        ['smell', 'burnt'],
        ['track-run', 'runs'],
        ['light-speed', 'slow'],
        ['track-current', 'high'],
      ],
      ofFault('coil-shorted', 'gap-bridged', 'gap-shorted', 'coil-open', 'field-shorted', 'suppressor-leak'),
      0.6,
    ],
    [
      'takes too much in the chassis and runs freely out of mesh: the drive, not the motor',
      [
        ['track-run', 'runs'],
        ['track-current', 'high'],
        ['free-run', 'better'],
        ['free-current', 'usual'],
      ],
      ({ fault }) => fault.effect.kind === 'drag' && fault.effect.where === 'train',
      0.75,
    ],
    [
      'the same within it and out of it: the motor',
      [
        ['track-run', 'runs'],
        ['track-current', 'high'],
        ['free-run', 'same'],
        ['free-current', 'high'],
      ],
      ({ fault }) => fault.area === 'motor',
      0.75,
    ],
  ] as ReadonlyArray<readonly [string, readonly Seen[], ReturnType<typeof ofFault>, number]>)(
    '%s',
    (_words, seen, is, least) => {
      const told = machines.map((id) => new Case(id)).filter((machine) => canTell(machine, seen))
      expect(told.length).toBeGreaterThan(2)
      for (const machine of told)
        expect(machine.after(seen).any(is), machine.diagnosis.engine.description.name).toBeGreaterThan(least)
    },
    60_000,
  )

  it('what stands and takes no more than its lamps is open behind them; nothing that is stiff or jammed', () => {
    const seen: readonly Seen[] = [
      ['track-run', 'stands'],
      ['track-current', 'little'],
    ]
    for (const id of ['tank-can', 'tank-open', 'centre-motor', 'axle-cup', 'motor-bogie-unit']) {
      const { any } = new Case(id).after(seen)
      expect(any(inArea('wiring', 'motor')), id).toBeGreaterThan(0.85)
      expect(
        any(({ fault }) => fault.effect.kind === 'drag'),
        id,
      ).toBeLessThan(0.6)
      expect(any(ofFault('gears-jammed', 'armature-stuck')), id).toBeLessThan(0.05)
    }
  })

  it('where some driven wheels stand, others turn: nothing that keeps the motor from turning', () => {
    const { any } = new Case('centre-motor').after([
      ['wheels-turn', 'some'],
      ['track-current', 'usual'],
    ])
    expect(any(ofFault('worm-slips', 'joint-off', 'gear-loose'))).toBeGreaterThan(0.7)
    expect(any(ofFault('lead-off', 'brush-stuck-off', 'contacts-off', 'coil-open'))).toBeLessThan(0.15)
  })

  it('a dead spot on a three-pole motor speaks for an open coil', () => {
    const { report } = new Case('tank-open').after([
      ['track-run', 'stands'],
      ['start-anywhere', 'dead-spot'],
    ])
    expect(report.suspects.slice(0, 3).map(({ fault }) => fault)).toContain('coil-open')
  })

  it('a sequence switch that never steps has a coil that is open', () => {
    const { report } = new Case('three-rail-single').after([
      ['track-run', 'runs'],
      ['sequence-step', 'never'],
    ])
    expect(report.suspects[0]?.fault).toBe('sequence-coil-open')
    expect(advised(report)?.observations[0]?.id).toMatch(/^coil-ohms/)
  })
})

describe('two places alike', () => {
  const front = 'treads-film@treads.front-bogie-axles'
  const rear = 'treads-film@treads.rear-bogie-axles'
  const seen: Seen[] = [
    ['track-run', 'falters'],
    ['treads-look@treads.front-bogie-axles', 'black'],
  ]

  it('one truck is seen to be dirty: the other most likely is, and both are cleaned at one go', () => {
    const { report, chance } = new Case('centre-motor').after(seen)
    expect(chance(rear)).toBeGreaterThan(0.5)
    expect(report.advice).toMatchObject({ kind: 'repair', suspect: front, also: [rear] })
  })

  it('seen to be bright, it is left alone', () => {
    const { report, chance } = new Case('centre-motor').after([
      ...seen,
      ['treads-look@treads.rear-bogie-axles', 'bright'],
    ])
    expect(chance(rear)).toBeLessThan(0.5)
    expect(report.advice).toMatchObject({ kind: 'repair', suspect: front, also: [] })
  })

  it('what is probable is looked at or mended before anything is looked at that says nothing of it', () => {
    const { report } = new Case('tender-pickup').after(
      [
        ['track-run', 'falters', 0],
        ['treads-look@treads.frame-axles', 'black', 0],
        ['track-run', 'falters', 1],
      ],
      [{ kind: 'repaired', suspect: 'treads-film@treads.frame-axles', state: 1 }],
    )
    const [first] = report.suspects
    expect(first?.id).toBe('treads-film@treads.tender-axles')
    const { advice } = report
    expect(advice.kind === 'repair' ? advice.suspect : advised(report)?.observations[0]?.id).toMatch(
      /@treads.tender-axles$/,
    )
  })
})

describe('what is asked', () => {
  it('of a horn that stays silent: the horn on a bench supply', () => {
    const { report } = new Case('three-rail-twin').after([
      ['track-run', 'runs'],
      ['horn-test', 'silent'],
    ])
    expect(advised(report)?.observations[0]?.id).toBe('horn-bench')
  })

  it('of a truck that stands while the other turns: what lies between it and the motor', () => {
    const { report } = new Case('articulated').after([
      ['track-run', 'runs'],
      ['truck-turns@driven-wheels.front-truck', 'none'],
      ['truck-turns@driven-wheels.rear-truck', 'all'],
    ])
    expect(actOf(report)).toBe('look-inside')
  })
})

describe('lamps by their functions', () => {
  const onDcc = machines
    .map((id) => new Case(id, 'dcc'))
    .filter((machine) => canTell(machine, [['function-lamp', 'lights']]))
  const hears = ofFault('decoder-other-address', 'decoder-dead')
  const standing: readonly Seen[] = [
    ['dcc-run', 'stands'],
    ['terminals-run', 'runs'],
  ]

  it('clear what brings the decoder its current, and its address, where the motor alone is well and stands', () => {
    expect(onDcc.length).toBeGreaterThan(5)
    for (const machine of onDcc) {
      const lit = machine.after([...standing, ['function-lamp', 'lights']])
      const cut = machine.after([...standing, ['function-lamp', 'dark']])
      const pickups = ofFault('treads-film', 'contacts-oxide', 'contacts-off', 'contacts-bent', 'lead-off')
      expect(lit.any(hears)).toBeLessThan(0.03)
      expect(cut.any(hears)).toBeGreaterThan(5 * lit.any(hears))
      expect(cut.any(pickups)).toBeGreaterThan(lit.any(pickups))
      expect(
        lit.any(({ fault, place }) => fault.area === 'board' || place.role === 'leads' || fault.area === 'drive'),
      ).toBeGreaterThan(0.5)
    }
  })
})
