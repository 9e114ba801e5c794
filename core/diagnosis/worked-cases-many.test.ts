import { describe, expect, it } from 'vitest'
import type { EngineEvent } from './history'
import { actOf, advised, askedOf, Case, inArea, ofFault, ofRole, type Seen } from './worked-case.test-data'

/** Cases from practice (common practice, invented machines), with several things at once, and with what practice takes for granted. */

/** What may be left, by who would notice it. */
const sum = (chances: readonly number[]): number => chances.reduce((all, chance) => all + chance, 0)

describe('L, seven at once: a diesel from a fair', () => {
  const seen: Seen[] = [
    ['smell', 'oily'],
    ['oil-inside', 'wet'],
    ['leads-tug', 'stiff'],
    ['joint-look@joint.shaft-front.joint', 'off'],
    ['gears-look', 'fouled'],
    ['treads-look@treads.front-bogie-axles', 'black'],
    ['treads-look@treads.rear-bogie-axles', 'black'],
    ['lamp-look@lamps.lamp-front', 'burnt'],
    ['coupling-look', 'missing'],
  ]
  // The fair's diesel has a scorched suppressor too: the one described here has none, so that is its own short case below.
  const fair = new Case('centre-motor')
  const known = seen

  it.each([
    ['as they were seen', known],
    ['the other way round', [...known].reverse()],
  ])('stays sure of each thing seen, whatever is entered after it (%s)', (_order, order) => {
    for (let count = 1; count <= order.length; count++) {
      const { report, chance } = fair.after(order.slice(0, count))
      for (const suspect of report.suspects.filter(({ confirmed }) => confirmed))
        expect(chance(suspect.id)).toBeGreaterThanOrEqual(0.95)
      expect(report.suspects.filter(({ confirmed }) => confirmed).length).toBe(
        order.slice(0, count).filter(([test]) => test !== 'smell' && test !== 'leads-tug').length,
      )
      expect(chance('unlisted')).toBeLessThan(0.05)
      for (const [test] of order.slice(0, count)) expect(askedOf(report)).not.toContain(test)
    }
  })

  it('mends what lies open together at one go, and ends with one run', () => {
    const events: EngineEvent[] = []
    let state = 0
    for (let steps = 0; steps < 12; steps++) {
      const { report } = fair.after(known, events)
      if (report.advice.kind !== 'repair') break
      for (const suspect of [report.advice.suspect, ...report.advice.also])
        events.push({ kind: 'repaired', suspect, state: ++state })
    }
    const { report } = fair.after(known, events)
    expect(events.length).toBe(7)
    expect(actOf(report)).toBe('on-the-track')
    const well = report.next[0]?.observations.map(({ id, outcomes }): Seen => [id, outcomes[0]?.id ?? '', state]) ?? []
    expect(fair.after([...known, ...well], events).report.advice).toMatchObject({ kind: 'done', passed: true })
  })
})

describe('L, the suppressor', () => {
  it('is found with the key that notes it scorched', () => {
    const { report } = new Case('tank-can').after([
      ['smell', 'burnt'],
      ['suppressor-look', 'scorched'],
    ])
    expect(report.suspects[0]).toMatchObject({ fault: 'suppressor-scorched', confirmed: true })
    expect(report.advice).toMatchObject({ kind: 'repair' })
  })
})

describe('M, behind the board', () => {
  const electric = new Case('centre-motor', 'dcc')
  const before: Seen[] = [
    ['dcc-run', 'stands'],
    ['dc-run', 'stands'],
    ['lamp-on-track', 'bright'],
    ['bypass-run', 'stands'],
    ['leads-run', 'stands'],
  ]

  it('asks for the split between the board’s pads and the motor’s own tags', () => {
    const { report } = electric.after(before, [], { off: ['body'] })
    expect(actOf(report)).toMatch(/supply-at-terminals|wiring-ohms|look-inside|motor-ohms/)
    expect(
      advised(report)
        ?.observations.map(({ id }) => id)
        .join(),
    ).not.toContain('treads')
  })

  it('puts leads and joints between board and motor at nine tenths together', () => {
    const { any } = electric.after([...before, ['terminals-run', 'runs']])
    expect(
      any(
        (suspect) =>
          suspect.place.role === 'leads' || suspect.place.role === 'choke' || suspect.place.role === 'decoder-leads',
      ),
    ).toBeGreaterThanOrEqual(0.9)
  })
})

describe('N, lamp and frame', () => {
  const railcar = new Case('axle-cup', 'dcc', ['just-refitted'])
  const dark: Seen[] = [
    ['dcc-run', 'runs'],
    ['function-lamp', 'dark'],
    ['bench-lamp', 'lights'],
    ['lamp-frame', 'passes'],
  ]

  it('suspects the lead at the frame, says not to switch it on, and leaves motor and pickups alone', () => {
    const { any, report } = railcar.after(dark)
    expect(any(ofFault('lamp-to-frame'))).toBeGreaterThanOrEqual(0.8)
    expect(report.suspects[0]?.remedy.caution).toContain('Do not switch it on')
    expect(report.suspects.filter(({ implied, area }) => implied && ['motor', 'pickup'].includes(area))).toEqual([])
  })

  it('calls the output dead once it gives nothing to another lamp', () => {
    const { any, report } = railcar.after([...dark, ['output-lamp', 'dark']])
    expect(any(ofFault('output-dead'))).toBeGreaterThanOrEqual(0.85)
    expect(report.suspects.find(({ fault }) => fault === 'output-dead')?.remedy.words).toContain('spare output')
  })
})

describe('O, howl on the bench', () => {
  it('is a dry motor bearing: a drop of oil and one run, no strip of the trucks', () => {
    const { any, report } = new Case('centre-motor').after([
      ['motor-noise', 'squeals'],
      ['motor-current', 'raised'],
      ['gears-look', 'clean'],
      ['axle-play', 'right'],
      ['roll', 'free'],
    ])
    expect(any(ofFault('bearing-dry'))).toBeGreaterThanOrEqual(0.7)
    expect(any(ofFault('bearing-worn'))).toBeLessThan(any(ofFault('bearing-dry')))
    for (const suspect of report.suspects.filter(
      ({ implied, area }) => implied && ['drive', 'running-gear'].includes(area),
    ))
      expect(suspect.chance).toBeLessThan(0.05)
    expect(advised(report)?.takesOff.length ?? 0).toBeLessThanOrEqual(2)
  })
})

describe('P, magnet treated', () => {
  const tender = new Case('tender-pickup')
  const weak: Seen[] = [
    ['light-speed', 'fast'],
    ['track-current', 'high'],
    ['haul', 'slips'],
    ['magnet-pull', 'weak'],
  ]
  const treated: EngineEvent[] = [
    { kind: 'confirmed', suspect: 'magnet-weak@motor', state: 0 },
    { kind: 'repaired', suspect: 'magnet-weak@motor', state: 1 },
  ]

  it('puts the magnet treated the wrong way round, or something mirrored, at nine tenths together', () => {
    const { any } = tender.after([...weak, ['track-run', 'runs', 1], ['direction', 'wrong', 1]], treated)
    expect(any((suspect) => ['mirrored', 'magnet-turned'].includes(suspect.fault.id))).toBeGreaterThanOrEqual(0.9)
    const needle = tender.after(
      [...weak, ['track-run', 'runs', 1], ['direction', 'wrong', 1], ['magnet-needle', 'turned', 1]],
      treated,
    )
    expect(needle.any(ofFault('magnet-turned'))).toBeGreaterThanOrEqual(0.95)
  })

  it('hears worn motor bearings once it pulls again: not gears, not lamps', () => {
    const { any, report } = tender.after(
      [
        ...weak,
        ['track-run', 'runs', 1],
        ['direction', 'right', 1],
        ['light-speed', 'usual', 1],
        ['noise', 'growls', 1],
        ['motor-noise', 'growls', 1],
        ['shaft-held', 'quiet', 1],
      ],
      treated,
    )
    expect(any(ofFault('bearing-worn'))).toBeGreaterThanOrEqual(0.6)
    expect(report.suspects[0]?.fault).toBe('bearing-worn')
  })
})

describe('Q, twins: cuts out at creep, fine at speed, worse on turnouts', () => {
  const switcher = new Case('centre-motor')
  const cuts: Seen[] = [
    ['track-run', 'runs'],
    ['creep', 'jerky'],
    ['stop-pattern', 'same-place'],
    ['noise', 'quiet'],
    ['start-anywhere', 'anywhere'],
    ['both-ways', 'alike'],
  ]

  it('suspects wheels and wipers of both trucks, and neither motor nor decoder', () => {
    const { any, report } = switcher.after(cuts)
    expect(any(ofRole('treads', 'axle-contacts'))).toBeGreaterThanOrEqual(0.8)
    const places = new Set(
      report.suspects
        .filter(({ implied }) => implied)
        .slice(0, 4)
        .map(({ place }) => place.split('.')[1]),
    )
    expect(places.size).toBe(2)
    expect(report.advice.kind === 'repair' ? report.advice.suspect : '').not.toMatch(/motor|decoder/)
  })

  it('mends both trucks at one go where both are as likely, and then one run proves it', () => {
    const looked: Seen[] = [
      ...cuts,
      ['treads-look@treads.front-bogie-axles', 'black'],
      ['treads-look@treads.rear-bogie-axles', 'black'],
    ]
    const { report } = switcher.after(looked)
    expect(report.advice).toMatchObject({ kind: 'repair' })
    const trucks = report.advice.kind === 'repair' ? [report.advice.suspect, ...report.advice.also] : []
    expect(trucks.length).toBe(2)
    const events = trucks.map((suspect, index): EngineEvent => ({ kind: 'repaired', suspect, state: index + 1 }))
    const after = switcher.after(looked, events)
    expect(actOf(after.report)).toBe('on-the-track')
    // R: every observation of the run is as it should be.
    const well =
      after.report.next[0]?.observations.map(({ id, outcomes }): Seen => [id, outcomes[0]?.id ?? '', 2]) ?? []
    expect(well.map(([test]) => test)).toContain('creep')
    const end = switcher.after([...looked, ...well], events).report
    expect(end.advice).toMatchObject({ kind: 'done', passed: true })
    expect(end.leftToNotice).toBeLessThan(0.05)
    for (const left of end.advice.kind === 'done' ? end.advice.left : []) {
      expect(left.chance).toBeLessThanOrEqual(0.08)
      expect(left.minutes).toBeGreaterThan(0)
    }
  })
})

describe('S, rubbing: just rebuilt, smooth and silent, current half as high again', () => {
  it('suspects a spacer first, end play and mesh behind it, and not motor or magnet', () => {
    const { any, report, chance } = new Case('tender-pickup', 'dc', ['just-refitted']).after([
      ['track-run', 'runs'],
      ['noise', 'quiet'],
      ['creep', 'steady'],
      ['track-current', 'raised'],
      ['spacers-look', 'rubs'],
    ])
    expect(report.suspects[0]?.fault).toBe('spacer-rubs')
    const motor = report.suspects
      .filter(({ area, implied }) => area === 'motor' && implied)
      .map(({ chance: now }) => now)
    expect(sum(motor)).toBeLessThan(0.1)
    expect(any(inArea('motor'))).toBeLessThan(0.5)
    expect(chance('spacer-rubs@wheel-sets')).toBeGreaterThan(chance('mesh-tight@mesh'))
    expect(report.advice.kind === 'repair' ? report.advice.suspect : '').not.toMatch(/motor/)
  })
})

describe('what was last touched is suspected first', () => {
  const diesel = new Case('centre-motor')
  const well: Seen[] = [
    ['track-run', 'runs'],
    ['track-current', 'usual'],
    ['wheels-turn', 'all'],
  ]
  const dead: Seen[] = [
    ['track-run', 'stands', 1],
    ['track-current', 'nothing', 1],
  ]
  const born = (suspect: { readonly fault: { readonly bornAtRefit: boolean } }): boolean => suspect.fault.bornAtRefit

  it('accuses what was opened and closed, before anything that was well and untouched', () => {
    const opened: EngineEvent[] = [
      { kind: 'refitted', state: 1, touched: ['body', 'board', 'strips.right', 'strips.left'] },
    ]
    const { any, report } = diesel.after([...well, ...dead], opened)
    expect(any(born)).toBeGreaterThan(0.6)
    expect(report.suspects[0]?.place).toMatch(/strips|turned|board|motor/)
    // Had nothing been touched, it would be what comes and goes.
    expect(diesel.after([...well, ...dead]).any(born)).toBeLessThan(0.3)
  })

  it('accuses only what was touched', () => {
    const other: EngineEvent[] = [{ kind: 'refitted', state: 1, touched: ['front-bogie'] }]
    const { chance } = diesel.after([...well, ...dead], other)
    const touched: EngineEvent[] = [{ kind: 'refitted', state: 1, touched: ['strips.right', 'strips.left', 'board'] }]
    const id = 'lead-torn@leads.strips.right'
    expect(diesel.after([...well, ...dead], touched).chance(id)).toBeGreaterThan(3 * chance(id))
  })
})

describe('a machine with two lamps', () => {
  const coach = new Case('motor-bogie-unit')
  const [front, tail] = ['lamp-on-track', 'lamp-on-track@lamps.lamp-trailer']
  const own = (report: ReturnType<Case['after']>, lamp: string): number => report.chance(`lamp-burnt@lamps.${lamp}`)

  it('is asked for each, and one that stays dark beside the other accuses itself or its own feed', () => {
    const sound = coach.after([['track-run', 'runs']])
    expect(askedOf(sound.report)).toEqual(expect.arrayContaining([front, tail]))
    const dark = coach.after([
      ['track-run', 'runs'],
      [front, 'bright'],
      [tail, 'dark'],
    ])
    expect(own(dark, 'lamp-trailer')).toBeGreaterThan(5 * own(sound, 'lamp-trailer'))
    expect(own(dark, 'lamp-front')).toBeLessThan(own(sound, 'lamp-front'))
    // The rest is a lamp called dark that was not.
    expect(dark.any(({ place }) => place.id.includes('trailer'))).toBeGreaterThan(0.8)
  })

  it('is dark at both ends for want of current rather than for two burnt lamps', () => {
    const dark = coach.after([
      ['track-run', 'stands'],
      [front, 'dark'],
      [tail, 'dark'],
    ])
    expect(own(dark, 'lamp-front') * own(dark, 'lamp-trailer')).toBeLessThan(0.02)
    expect(dark.any(inArea('outside', 'pickup', 'wiring'))).toBeGreaterThan(0.9)
  })
})
