import { describe, expect, it } from 'vitest'
import { dueCare, neverNoted } from '../care/due-list'
import { describeConstruction } from '../knowledge/constructions'
import { diagnosisKnowledge } from '../knowledge/diagnosis-knowledge'
import { Diagnosis } from './diagnosis'
import type { EngineEvent } from './history'
import { reversals } from './places/polarity'
import type { Suspect } from './places/suspects'
import { actOf, advised, askedOf, Case, inArea, ofFault, type Seen } from './worked-case.test-data'

/** Cases from practice (common practice, invented machines): what must be believed, and asked next, at each point. */
describe('A, from the damp cellar: dead, and the needle flickers when it is pressed down', () => {
  const cellar = new Case('side-brush-bogie', 'dc', ['damp-store', 'idle-ten-years'])
  const dead: Seen[] = [
    ['track-run', 'stands'],
    ['track-current', 'nothing'],
    ['track-rocked', 'falters'],
  ]

  it('puts the pickup side at 80 % or more, motor faults low, and asks something cheap there', () => {
    const { any, report } = cellar.after(dead)
    expect(any(inArea('pickup', 'wiring'))).toBeGreaterThanOrEqual(0.8)
    // What may be wrong in the motor besides is as likely as ever; what was found does not point there.
    expect(report.byArea.find(({ area }) => area === 'motor')?.chance).toBeLessThan(0.25)
    expect(advised(report)?.totalMinutes).toBeLessThan(3)
    expect(advised(report)?.takesOff).toEqual([])
    expect(actOf(report)).toMatch(/supply-at-pickups|supply-at-wheels|look-under|wheels-ohms|rail-ohms/)
  })

  it('goes on searching when the hanging lead is found and mended', () => {
    const opened: Seen[] = [
      ...dead,
      ['leads-tug', 'off'],
      ['contacts-look@axle-contacts.trailing-bogie', 'green'],
      ['commutator-look', 'bright'],
    ]
    const found: EngineEvent[] = [{ kind: 'confirmed', suspect: 'lead-strand@leads.lead.trailing', state: 0 }]
    expect(cellar.after(opened, found).report.advice).toMatchObject({
      kind: 'repair',
      suspect: 'lead-strand@leads.lead.trailing',
    })
    const mended: EngineEvent[] = [...found, { kind: 'repaired', suspect: 'lead-strand@leads.lead.trailing', state: 1 }]
    const { report, any } = cellar.after(opened, mended)
    expect(report.nothingElse).toBeLessThan(0.3)
    expect(any(ofFault('contacts-oxide', 'contacts-poor'))).toBeGreaterThan(0.5)
    expect(any(ofFault('treads-film', 'treads-oxide'))).toBeGreaterThan(0.2)
  })

  it('believes it mended once leads, wipers and treads are done and it runs both ways', () => {
    const events: EngineEvent[] = [
      { kind: 'confirmed', suspect: 'lead-strand@leads.lead.trailing', state: 0 },
      { kind: 'repaired', suspect: 'lead-strand@leads.lead.trailing', state: 1 },
      ...['motor', 'trailing'].flatMap((bogie, index): EngineEvent[] => [
        { kind: 'repaired', suspect: `contacts-oxide@axle-contacts.${bogie}-bogie`, state: 2 + 2 * index },
        { kind: 'repaired', suspect: `treads-film@treads.${bogie}-bogie`, state: 3 + 2 * index },
      ]),
    ]
    const { any } = cellar.after(
      [
        ...dead,
        ['track-run', 'runs', 5],
        ['track-current', 'usual', 5],
        ['track-rocked', 'runs', 5],
        ['both-ways', 'alike', 5],
      ],
      events,
    )
    expect(any(inArea('pickup', 'wiring'))).toBeLessThan(0.1)
  })
})

describe('B, the tender’s share: runs with the supply on the motor, not on the track', () => {
  const tender = new Case('tender-pickup')
  const fed: Seen[] = [
    ['track-run', 'stands'],
    ['terminals-run', 'runs'],
  ]

  it('rules the motor down and looks between rail and terminals', () => {
    const before = tender.after([['track-run', 'stands']])
    const after = tender.after(fed)
    const electrical = (suspect: Suspect): boolean =>
      suspect.fault.area === 'motor' && suspect.fault.effect.kind === 'component'
    expect(after.any(electrical)).toBeLessThan(0.35 * before.any(electrical))
    expect(after.any(inArea('pickup', 'wiring'))).toBeGreaterThan(0.85)
    expect(
      after.any((suspect) =>
        [
          'treads.tender-axles',
          'axle-contacts.tender-axles',
          'linkage-contacts.drawbar.eye',
          'leads.lead.drawbar',
        ].includes(suspect.place.id),
      ),
    ).toBeGreaterThan(0.5)
  })

  it('calls two of six wheels with open rims dirt, not insulation', () => {
    const { report, any } = tender.after([
      ...fed,
      ['wheel-continuity@treads.tender-axles', 'some'],
      ['rim-check@treads.tender-axles', 'open'],
    ])
    expect(report.suspects[0]?.place).toBe('treads.tender-axles')
    expect(any((suspect) => suspect.place.id === 'treads.tender-axles')).toBeGreaterThan(0.7)
    expect(any((suspect) => suspect.place.role === 'wheel-insulation')).toBeLessThan(0.05)
  })
})

describe('C, out of step: binds once per turn with the rods on, free without them', () => {
  const steam = new Case('tank-open')
  const binding: Seen[] = [
    ['rods-off', 'free'],
    ['rods-watch', 'bind'],
    ['roll', 'once-a-turn'],
    ['axle-muff-check', 'cracked'],
  ]

  it('names the cracked muff and the quartering first, tooth phase and bent rods behind', () => {
    const { report, chance } = steam.after(binding)
    expect(report.suspects.slice(0, 2).map((suspect) => suspect.fault)).toEqual(['axle-muff-split', 'quartering-out'])
    expect(chance('axle-muff-split@rods')).toBeGreaterThan(0.6)
    expect(chance('quartering-out@rods')).toBeGreaterThan(chance('tooth-phase@rods'))
    expect(chance('tooth-phase@rods')).toBeGreaterThan(0.002)
  })

  it('says: gauge, quarter, then fix; and back-to-back is among the tests', () => {
    const { report } = steam.after(binding)
    expect(report.suspects[0]?.remedy.words).toBe('Gauge, quarter, then fix the muff or renew it')
    expect(steam.diagnosis.engine.tests.map((test) => test.id)).toContain('back-to-back')
  })
})

describe('D, chip inside: dead on a battery, no burn marks, past unknown', () => {
  const clearance = new Case('centre-motor', 'dcc', ['unknown-past'])

  it('has the decoder set not to run on DC among the first three, and does not propose another decoder', () => {
    const { report } = clearance.after([
      ['dc-run', 'stands'],
      ['smell', 'none'],
    ])
    expect(report.suspects.slice(0, 3).map((suspect) => suspect.fault)).toContain('decoder-no-dc')
    expect(report.advice.kind).toBe('act')
    const leading = report.next.slice(0, 3).map(({ id }) => id)
    expect(leading.some((id) => ['on-the-track', 'bypass', 'programming-track'].includes(id))).toBe(true)
  })

  it('takes CV29 = 2 as the explanation, and leaves pickup faults open', () => {
    const { chance, any } = clearance.after([
      ['dc-run', 'stands'],
      ['smell', 'none'],
      ['program-read', 'answers'],
      ['cv29-read', 'dc-off'],
    ])
    expect(chance('decoder-no-dc@decoder')).toBeGreaterThan(0.95)
    expect(chance('decoder-dead@decoder')).toBeLessThan(0.02)
    expect(any(inArea('pickup', 'wiring'))).toBeGreaterThan(0.15)
  })
})

describe('D, once more: silent on the programming track', () => {
  const clearance = new Case('centre-motor', 'dcc', ['unknown-past'])

  it('does not call the decoder dead while contact and motor may as well be open', () => {
    const { chance, any } = clearance.after([
      ['dcc-run', 'stands'],
      ['program-read', 'silent'],
    ])
    expect(chance('decoder-dead@decoder')).toBeLessThan(0.5)
    expect(any((suspect) => inArea('pickup', 'wiring')(suspect) || suspect.place.motor !== null)).toBeGreaterThan(0.4)
  })

  it('calls it dead once the motor runs past it', () => {
    const { any } = clearance.after([
      ['dcc-run', 'stands'],
      ['program-read', 'silent'],
      ['bypass-run', 'runs'],
      ['decoder-lead-ohms@decoder.rail-leads', 'as-it-should'],
      ['decoder-lead-ohms@decoder.motor-leads', 'as-it-should'],
    ])
    // Dead as a whole or at its motor output: nothing here tells them apart, and the remedy is one.
    expect(any(ofFault('decoder-dead', 'decoder-motor-output'))).toBeGreaterThan(0.7)
  })
})

describe('a split gear so slight that nothing shows in the running', () => {
  it('stays suspected however often the engine runs well: what is seen at the gear is not argued away', () => {
    const centre = new Case('centre-motor')
    const seen: Seen[] = [
      ['track-run', 'runs'],
      ['noise', 'thumps'],
      ['gears-look', 'split'],
    ]
    const before = centre.after(seen).any(ofFault('gear-split'))
    const after = centre
      .after([
        ...seen,
        ['track-rocked', 'runs'],
        ['leads-run', 'runs'],
        ['wheels-run', 'runs'],
        ['pickups-run', 'runs'],
      ])
      .any(ofFault('gear-split'))
    expect(before).toBeGreaterThan(0.7)
    expect(after).toBeGreaterThan(0.9 * before)
  })
})

describe('E, backwards after service', () => {
  const centre = new Case('centre-motor')

  it('puts commutator and winding above pickup when the start hangs on where the armature stands', () => {
    const { any, report } = centre.after([
      ['track-run', 'falters'],
      ['start-anywhere', 'needs-push'],
    ])
    expect(
      any(
        ofFault(
          'commutator-black',
          'gap-bridged',
          'coil-open',
          'coil-shorted',
          'brush-sticks',
          'brush-worn',
          'brushes-oiled',
        ),
      ),
    ).toBeGreaterThan(any(inArea('pickup')))
    expect(report.advice.kind).toBe('act')
  })

  it('calls a machine that runs smoothly the wrong way after cleaning a mirrored refit, and strips nothing electrical', () => {
    const refit = new Case('centre-motor', 'dc', ['just-refitted'])
    const events: EngineEvent[] = [
      { kind: 'confirmed', suspect: 'gap-bridged@motor.gaps', state: 0 },
      { kind: 'repaired', suspect: 'gap-bridged@motor.gaps', state: 1 },
      { kind: 'refitted', state: 1 },
    ]
    const { any, report } = refit.after(
      [
        ['start-anywhere', 'needs-push'],
        ['commutator-look', 'bridged'],
        ['track-run', 'runs', 1],
        ['start-anywhere', 'anywhere', 1],
        ['track-current', 'usual', 1],
        ['direction', 'wrong', 1],
      ],
      events,
    )
    expect(any((suspect) => suspect.place.id === 'turned.reverse')).toBeGreaterThanOrEqual(0.9)
    expect(report.suspects[0]?.fault).toBe('mirrored')
    expect(advised(report)?.takesOff ?? []).toEqual([])
    const [smallest] = reversals(describeConstruction('centre-motor'))
    expect(smallest?.turnables.map((entry) => entry.id)).toEqual(['strips-mirrored'])
  })
})

describe('F, sound that starts again on turnouts', () => {
  const railcar = new Case('axle-cup', 'dcc')
  it('means the supply was lost: cups first, decoder under 15 %', () => {
    const { report, any } = railcar.after([
      ['dcc-run', 'runs'],
      ['sound-restarts', 'often'],
      ['stop-pattern', 'same-place'],
    ])
    expect(report.suspects[0]?.fault).toBe('contacts-oxide')
    expect(any(inArea('board'))).toBeLessThan(0.15)
    expect(any(inArea('pickup'))).toBeGreaterThan(0.7)
  })
})

describe('G, one way only', () => {
  it('puts end play, brush seating and the commutator above pickup', () => {
    const { any, report } = new Case('tank-open').after([
      ['track-run', 'runs'],
      ['both-ways', 'one-way-worse'],
    ])
    expect(any(ofFault('end-play', 'commutator-black', 'brush-sticks', 'spring-weak'))).toBeGreaterThan(
      any(inArea('pickup')),
    )
    expect(report.suspects[0]?.fault).toBe('end-play')
  })
})

describe('H, everything a little', () => {
  it('takes several confirmed faults together and mends them one after the other, the cheapest first', () => {
    const railbus = new Case('side-brush-bogie', 'dc', ['old'])
    const seen: Seen[] = [
      ['track-run', 'falters'],
      ['gears-look', 'fouled'],
      ['commutator-look', 'bridged'],
      ['springs-look', 'unequal'],
      ['tyres-look', 'cracked'],
    ]
    const confirmed = ['gears-hair@mesh', 'gap-bridged@motor.gaps', 'spring-weak@motor.springs', 'tyre-perished@tyres']
    let events: EngineEvent[] = confirmed.map((suspect) => ({ kind: 'confirmed', suspect, state: 0 }))
    const mended: string[] = []
    for (let state = 1; state <= confirmed.length; state++) {
      const { report } = railbus.after(seen, events)
      expect(report.advice.kind).toBe('repair')
      if (report.advice.kind !== 'repair') return
      mended.push(report.advice.suspect)
      events = [...events, { kind: 'repaired', suspect: report.advice.suspect, state }]
    }
    expect(new Set(mended)).toEqual(new Set(confirmed))
    expect(mended[0]).toBe('tyre-perished@tyres')
    expect(railbus.after(seen, events).report.advice).toMatchObject({ kind: 'act', act: 'on-the-track' })
  }, 40_000)
})

describe('I, just due', () => {
  it('proposes care: oil now, treads overdue', () => {
    expect(
      dueCare({ ...neverNoted, hoursSinceOil: 31, shows: 2 }, ['exhibition']).map(({ id, state }) => `${id} ${state}`),
    ).toEqual(expect.arrayContaining(['oil due', 'wipe overdue']))
  })

  it('has nothing to mend in an engine that passes everything', () => {
    const show = new Case('narrow-gauge', 'dc', ['exhibition'])
    const passed = show.diagnosis.engine.tests
      .filter(({ test }) => test.proves)
      .map(({ id, test }): Seen => [id, test.outcomes[0]?.id ?? ''])
    const { report } = show.after(passed)
    expect(report.advice.kind).not.toBe('repair')
    expect(report.nothingElse).toBeGreaterThan(0.7)
    expect(report.suspects.every((suspect) => suspect.chance < 0.1)).toBe(true)
  })
})

describe('J, a contradiction', () => {
  it('says that no milliampere and a bright filament lamp do not fit, and which to repeat', () => {
    const { report } = new Case('side-brush-bogie').after([
      ['track-current', 'nothing'],
      ['lamp-on-track', 'bright'],
    ])
    expect(report.contradictions).toHaveLength(1)
    expect(report.contradictions[0]).toMatchObject({
      repeat: 'lamp-on-track=bright@0',
      against: 'track-current=nothing@0',
    })
    expect(report.contradictions[0]?.words).toContain('do not fit')
  })

  it.each([
    [
      'runs without a milliampere',
      [
        ['track-current', 'nothing'],
        ['track-run', 'runs'],
      ],
    ],
    [
      'trips a supply that sees no short',
      [
        ['rail-ohms', 'usual'],
        ['track-run', 'trips'],
      ],
    ],
    [
      'runs on the track and not at its own wheels',
      [
        ['track-run', 'runs'],
        ['wheels-run', 'stands'],
      ],
    ],
  ] as ReadonlyArray<readonly [string, Seen[]]>)('says so of a machine that %s', (_words, seen) => {
    expect(
      new Case('centre-motor').after(seen).report.contradictions.map(({ repeat, against }) => [repeat, against].sort()),
    ).toEqual([seen.map(([test, outcome]) => `${test}=${outcome}@0`).sort()])
  })

  it('does not say so of an LED and a meter that shows hundredths of an ampere', () => {
    const description = describeConstruction('side-brush-bogie')
    const led = {
      ...description,
      components: description.components.map((component) =>
        component.lamp
          ? { ...component, ohms: 1400, lamp: { volts: 12, amps: 0.009, kind: 'led' as const } }
          : component,
      ),
    }
    const diagnosis = new Diagnosis(led, diagnosisKnowledge)
    const report = diagnosis.report({
      findings: [
        { id: 'a', test: 'track-current-coarse', outcome: 'nothing', state: 0 },
        { id: 'b', test: 'lamp-on-track', outcome: 'bright', state: 0 },
      ],
      events: [],
    })
    expect(report.contradictions).toEqual([])
  })
})

describe('findings that fit nothing, and tests that cannot be done', () => {
  it('never advise a repair of what the book does not know', () => {
    const odd = new Case('narrow-gauge')
    const { tests } = odd.diagnosis.engine
    const { report } = odd.after(tests.slice(0, 14).map(({ id, test }): Seen => [id, test.outcomes.at(-1)?.id ?? '']))
    expect(report.advice.kind === 'repair' ? report.advice.suspect : '').not.toBe('unlisted')
    expect(JSON.stringify(report)).not.toMatch(/NaN|Infinity/)
  })

  it('do not have to pass at Prove when they were refused', () => {
    const engine = new Case('narrow-gauge')
    const refused = engine.diagnosis.engine.tests.map(({ id }) => id)
    const { advice, next } = engine.diagnosis.report(engine.history([['track-run', 'stands']]), { refused })
    expect(next).toEqual([])
    // What is left is to mend on suspicion; asking for a test again is no advice.
    expect(advice.kind).toBe('repair')
  })
})

describe('K, a bad feed under load: the lamp burns, the motor falters on 2 V', () => {
  it('puts a poor or open feed above the motor', () => {
    const { any, report } = new Case('articulated').after([
      ['other-engine', 'runs'],
      ['lamp-on-track', 'bright'],
      ['track-run', 'falters'],
      ['motor-volts', 'low'],
    ])
    expect(any(inArea('pickup', 'wiring'))).toBeGreaterThan(1.3 * any(inArea('motor')))
    // The screen says so by the parts of the chain.
    const chance = (area: string): number => report.byArea.find((entry) => entry.area === area)?.chance ?? 0
    expect(chance('pickup') + chance('wiring')).toBeGreaterThan(chance('motor'))
    // No repair of the motor is advised, nor an act behind what has to come off it.
    expect(actOf(report)).toMatch(/wiring-ohms|look-inside|supply-at/)
    expect(advised(report)?.takesOff.filter((part) => part.startsWith('motor'))).toEqual([])
    // A lamp takes little and a motor much: what a poor feed does is rare, but it fits.
    expect(report.contradictions).toEqual([])
  })
})

describe('an AC machine', () => {
  it('has no magnet to grow weak or to be tried, since its field is wound', () => {
    const { suspects, tests } = new Case('three-rail-single').diagnosis.engine
    expect(suspects.filter((suspect) => suspect.fault.effect.kind === 'magnet')).toEqual([])
    expect(tests.map((test) => test.id)).not.toContain('magnet-pull')
    expect(suspects.some((suspect) => suspect.place.role === 'field')).toBe(true)
  })
})

describe('surely wrong, and no test saves its minutes', () => {
  it('does not ask for everything to pass: it narrows down or mends', () => {
    const tank = new Case('tank-open')
    const history = tank.history([
      ['track-run', 'stands'],
      ['track-current', 'nothing'],
    ])
    const refused = tank.diagnosis.engine.tests.filter(({ test }) => !test.proves).map(({ id }) => id)
    const report = tank.diagnosis.report(history, { refused })
    expect(report.nothingElse).toBeLessThan(0.05)
    expect(['act', 'repair']).toContain(report.advice.kind)
  })
})

describe('what can only be judged on a motor that turns', () => {
  it('is not asked for while the machine was last seen to stand, and is again once it ran', () => {
    const diesel = new Case('centre-motor')
    const judged = new Set(diesel.diagnosis.engine.tests.flatMap(({ id, test }) => (test.needsRunning ? [id] : [])))
    const standing = diesel.after([['track-run', 'stands']]).report
    expect(askedOf(standing).filter((id) => judged.has(id))).toEqual([])
    expect(standing.withheld).toContainEqual(
      expect.objectContaining({ test: 'wheels-turn', why: 'It does not run yet.' }),
    )
    // Fed past what is wrong it does turn.
    expect(
      diesel
        .after([
          ['track-run', 'stands'],
          ['pickups-run', 'runs'],
        ])
        .report.withheld.filter(({ test }) => judged.has(test)),
    ).toEqual([])
  })

  it('says which of two driven bogies stands: one look instead of both worms', () => {
    const diesel = new Case('centre-motor')
    const some: Seen[] = [
      ['track-run', 'runs'],
      ['wheels-turn', 'some'],
    ]
    expect(diesel.after(some).chance('worm-slips@worm-seat.tower-front.seat')).toBeCloseTo(
      diesel.after(some).chance('worm-slips@worm-seat.tower-rear.seat'),
      2,
    )
    const { chance } = diesel.after([...some, ['truck-turns@driven-wheels.rear-bogie-axles', 'none']])
    expect(chance('worm-slips@worm-seat.tower-rear.seat')).toBeGreaterThan(
      10 * chance('worm-slips@worm-seat.tower-front.seat'),
    )
  })
})

describe('a long repair that is likely but not sure', () => {
  it('is looked at first where a short look may spare it: an armature is smelt at before it is rewound', () => {
    const frame = new Case('open-frame')
    const insulations = [
      'insulation-ohms@other-insulation.plate-frame',
      'insulation-ohms@other-insulation.motor.spring-frame',
      'wheel-insulation-ohms@wheel-insulation.frame-axles',
    ]
    // The supply gives way, the ohmmeter finds nothing: a coil or a gap, and the ohmmeter did not meet it where the armature stood.
    const { report, any } = frame.after([
      ['track-current', 'high'],
      ['track-run', 'trips'],
      ['pickups-run', 'trips'],
      ['rail-ohms', 'usual'],
      ...insulations.map((id): Seen => [id, 'as-it-should']),
    ])
    const rewound = any(({ mendedBy }) => mendedBy === 'rewind@motor.winding')
    expect(rewound).toBeGreaterThan(0.5)
    expect(rewound).toBeLessThan(0.9)
    expect(rewound + any(({ mendedBy }) => mendedBy === 'clean-gaps@motor.gaps')).toBeGreaterThan(0.95)
    expect(actOf(report)).not.toBe('repair')
  })

  it('mends coils and what insulates them as one', () => {
    const { suspects } = new Case('open-frame').diagnosis.engine
    expect(suspects.find(({ id }) => id === 'winding-to-frame@motor.winding-insulation')?.mendedBy).toBe(
      suspects.find(({ id }) => id === 'coil-shorted@motor.winding')?.mendedBy,
    )
  })
})

describe('a motor that does not open', () => {
  it('is exchanged for what is wrong inside, but its bearings are oiled from outside', () => {
    const remedyOf = (id: string): string | undefined =>
      new Case('tank-can').diagnosis.engine.suspects.find((suspect) => suspect.id === id)?.remedy.id
    expect(remedyOf('coil-open@motor.winding')).toBe('exchange-motor')
    expect(remedyOf('magnet-weak@motor')).toBe('exchange-motor')
    expect(remedyOf('bearing-dry@motor')).toBe('oil-bearings')
  })
})
