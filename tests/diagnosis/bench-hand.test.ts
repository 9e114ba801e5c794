import { describe, expect, it } from 'vitest'
import type { CasualtyFault } from '../../bench/casualty/faults'
import { BenchHand } from '../../bench/hand/bench-hand'
import { bareConstruction, diagnosisFor } from './search-casualty'
import type { TrueFault } from '../../bench/hand/true-faults'

/** Hands slip now and then: what most of so many say counts. */
const LOOKS = 7

class AtTheBench {
  private readonly engine: ReturnType<typeof diagnosisFor>['engine']
  private readonly hand: BenchHand

  /**
   * @param wrong by place: what is wrong there
   * @param named what it is called, where a look tells it by that
   */
  constructor(construction: string, wrong: Readonly<Record<string, readonly CasualtyFault[]>> = {}, named = '') {
    this.engine = diagnosisFor(construction).engine
    const faults = Object.entries(wrong).map(([at, physics]): TrueFault => {
      const place = this.engine.places.find(({ id }) => id === at)
      if (!place)
        throw new RangeError(`No place ${at} in ${construction}: ${this.engine.places.map(({ id }) => id).join(', ')}`)
      return { name: named || at, place, remedies: [], physics, intermittent: false, weight: 1 }
    })
    this.hand = new BenchHand(this.engine.description, faults, 5, bareConstruction(construction))
  }

  /** Everything that can be noted of this machine. */
  get asked(): readonly string[] {
    return this.engine.tests.map(({ id }) => id)
  }

  says(id: string): string | null {
    const test = this.engine.tests[this.engine.indexOfTest(id)] as (typeof this.engine.tests)[number]
    const words = Array.from({ length: LOOKS }, () => this.hand.make(test))
    return (
      words.toSorted(
        (one, other) => words.filter((word) => word === other).length - words.filter((word) => word === one).length,
      )[0] ?? null
    )
  }

  usual(id: string): string | undefined {
    return this.engine.tests[this.engine.indexOfTest(id)]?.test.outcomes[0]?.id
  }

  componentsAt(placeId: string): readonly string[] {
    return this.engine.places.find(({ id }) => id === placeId)?.components ?? []
  }
}

const open = (component: string): CasualtyFault => ({ kind: 'component', component, state: 'open' })

describe('the stand-in at the bench', () => {
  it.each(['open-frame', 'split-frame', 'articulated', 'axle-cup', 'three-rail-twin', 'centre-motor+decoder'])(
    'answers whatever is asked of a sound machine, and finds nothing (%s)',
    (construction) => {
      const sound = new AtTheBench(construction)
      expect(sound.asked.length).toBeGreaterThan(40)
      expect(Object.fromEntries(sound.asked.map((id) => [id, sound.says(id)]))).toEqual(
        Object.fromEntries(sound.asked.map((id) => [id, sound.usual(id)])),
      )
    },
  )

  it.each(['decoder.rail-plus', 'decoder.rail-minus'])(
    'sees the lamps dark at their functions with %s off, and lit with a lead to the motor off',
    (lead) => {
      const at = (component: string, place: string) =>
        new AtTheBench('centre-motor+decoder', { [place]: [open(component)] }).says('function-lamp')
      expect(at(lead, 'decoder.rail-leads')).toBe('dark')
      expect(at('decoder.motor-plus', 'decoder.motor-leads')).toBe('lights')
    },
  )

  it('reads no volts across a shorted suppressor, whatever is wrong with the armature behind it', () => {
    const shorted: CasualtyFault = { kind: 'component', component: 'capacitor', state: 'shorted' }
    expect(new AtTheBench('tender-pickup', { 'suppressor.capacitor': [shorted] }).says('motor-volts')).toBe('none')
    expect(
      new AtTheBench('tender-pickup', {
        'suppressor.capacitor': [shorted],
        'motor.gaps': [{ kind: 'carbon-bridge', motor: 'motor', gap: 0, ohms: 4 }],
      }).says('motor-volts'),
    ).toBe('none')
  })

  it('reads fewer volts where a shorted coil of three lets the supply give way, and all of them before a brush that stands off', () => {
    const coil = new AtTheBench('open-frame', { 'motor.winding': [{ kind: 'shorted-coil', motor: 'motor', coil: 0 }] })
    expect([coil.says('motor-volts'), coil.says('track-run')]).toEqual(['low', 'trips'])
    const brush = new AtTheBench('open-frame', { 'motor.brushes': [open('motor.brush-plus')] })
    expect([brush.says('motor-volts'), brush.says('track-run')]).toEqual(['full', 'stands'])
  })

  it('puts its clips where the current comes from: with a lead off, it runs from the terminals and not from the wheels', () => {
    const off = new AtTheBench('tank-open', { 'leads.motor.lead-plus': [open('motor.lead-plus')] })
    expect(['track-run', 'wheels-run', 'terminals-run'].map((id) => off.says(id))).toEqual(['stands', 'stands', 'runs'])
  })

  it('takes continuity at the rollers of a three-rail machine', () => {
    const rollers = new AtTheBench('three-rail-single').componentsAt('treads.rollers')
    expect(rollers.length).toBeGreaterThan(0)
    expect(
      new AtTheBench('three-rail-single', { 'treads.rollers': rollers.map(open) }).says(
        'wheel-continuity@treads.rollers',
      ),
    ).toBe('none')
  })

  it('calls it a little much where bearings are dry, and far too much where they bind', () => {
    const says = (factor: number): string | null =>
      new AtTheBench('open-frame', { motor: [{ kind: 'dry-bearing', motor: 'motor', factor }] }).says('motor-current')
    expect([says(1), says(2.2), says(5)]).toEqual(['usual', 'raised', 'high'])
  })

  it('takes little where only its lamps are fed, and nothing where it has none', () => {
    const broken = { 'leads.motor.lead-plus': [open('motor.lead-plus')] }
    expect(new AtTheBench('tank-can').says('track-current')).toBe('usual')
    expect(new AtTheBench('tank-can', broken).says('track-current')).toBe('little')
    const lampless = new AtTheBench('tank-can', { ...broken, 'lamps.lamp-front': [open('lamp-front')] })
    expect(lampless.says('track-current')).toBe('nothing')
  })

  it('steps no sequence switch whose coil is open', () => {
    const dead = { 'sequence-coil.sequence.coil': [open('sequence.coil')] }
    expect(new AtTheBench('three-rail-single').says('sequence-step')).toBe('each')
    expect(new AtTheBench('three-rail-single', dead, 'coil open').says('sequence-step')).toBe('never')
  })
})
