import type { EngineDescription } from '../../engine/description-schema'
import { driveTrain } from '../../engine/drive-train'
import type { BenchTest } from '../places/bench-tests'
import type { CircuitClass, Mood } from './circuit-classes'
import { SignatureSolver } from './electrical-signature'
import { Readout, Words, type FromSignature } from './readout'
import type { Reading } from '../../knowledge/knowledge-schema'
import { mixMoods, type Moods } from './mixed-moods'
import { OPEN_OHMS } from './signature-chances'

/** Pressing and rocking makes contact; friction it leaves as it was. From memory; the perturbed runs of the benchmark show how much hangs on them. */
const runMoods: Readonly<Record<Mood, Moods>> = { dead: [0.8, 0.15, 0.05], unsteady: [0.1, 0.8, 0.1] }
/** What sticks at one place of a turn stands there at every attempt. */
const frictionMoods: Readonly<Record<Mood, Moods>> = { dead: [0.95, 0.04, 0.01], unsteady: runMoods.unsteady }
/** What drags itself past a tight spot takes about half as much again, its peaks too short to call it far too much: from memory. */
const frictionAmps: Readonly<Record<Mood, Moods>> = { dead: frictionMoods.dead, unsteady: [0.1, 0.2, 0.7] }
/** What makes and breaks turns its wheels in jerks: they turn. */
const turnMoods: Readonly<Record<Mood, Moods>> = { dead: [0.8, 0, 0.2], unsteady: [0.1, 0, 0.9] }
const rockedMoods: Readonly<Record<Mood, Moods>> = { dead: [0.15, 0.8, 0.05], unsteady: [0.05, 0.9, 0.05] }
const meterMoods: Readonly<Record<Mood, Moods>> = { dead: [0.6, 0.3, 0.1], unsteady: [0.25, 0.5, 0.25] }
/** What comes and goes beyond so many at once changes nothing any more in what is seen. */
const MOST_WAVERING = 5
/** What is said where nothing turns, if anything is (belief/said-of-standing.ts). From memory. */
const wheelsOfStanding = { all: 0.45, some: 0.45, none: 0.1 }
/** Of one truck alone, that none of its wheels turn. */
const truckOfStanding = { all: 0.15, some: 0.1, none: 0.75 }
const unsteadyOutcome: Readonly<Partial<Record<Reading['kind'], string>>> = {
  motion: 'falters',
  current: 'flickers',
  lamp: 'flickers',
  'motor-volts': 'jumps',
  'rail-ohms': 'jumps',
}
/** A needle flickers that falls back to nothing, or to what the lamps take; one that swings up at a tight spot is called by where it mostly is, or by its peaks. */
const flickersFrom: Readonly<Partial<Record<Reading['kind'], readonly string[]>>> = { current: ['nothing', 'little'] }

/** What circuit and drive show in one set of broken pieces; each test is worked out when it is first asked for. */
export interface CircuitRow {
  /** Its number among all the engine ever made. */
  readonly index: number
  /** Whether the motor turns as it stands. */
  readonly turns: boolean
  /** Chances of all outcomes of all tests, where `CircuitOutcomes.offsets` says; those of this test are filled in. */
  chances(test: number): Float32Array
  /**
   * Where the figure lies between two words, and neither a contact that comes and goes nor where the armature stands has a part in it: a number that stands
   * for these words with these chances, in any test and any row. Whoever reads it again calls it the same again.
   * −1 where only one word is possible, or the figure itself changes.
   */
  betweenWords(test: number): number
}

/**
 * The chances of every outcome of every test that is read from circuit and drive, for what is wrong. The circuit is
 * solved once for each set of broken pieces; what comes and goes is mixed from these.
 */
export class CircuitOutcomes {
  /** Where each test's outcomes begin in a row; −1 for a test read by signs. */
  readonly offsets: Int32Array
  private readonly width: number
  private readonly solver: SignatureSolver
  private readonly readouts = new Map<string, Readout>()
  private readonly fromSignature: readonly FromSignature[]
  /** By test: its place among those read from the signature; −1 for any other. */
  private readonly placeOf: Int32Array
  private readonly words: Words

  /**
   * @param description the engine
   * @param tests all its tests
   */
  constructor(
    private readonly description: EngineDescription,
    private readonly tests: readonly BenchTest[],
  ) {
    const treads = tests
      .filter(({ test }) => test.reading.kind === 'wheel-continuity')
      .map(({ place }) => place.components)
    this.solver = new SignatureSolver(description, treads)
    this.offsets = new Int32Array(tests.length).fill(-1)
    this.placeOf = new Int32Array(tests.length).fill(-1)
    const motors = description.motors.map(({ id }) => id)
    const lamps = description.components.flatMap(({ id, lamp }) => (lamp === null ? [] : [id]))
    let width = 0
    const fromSignature: FromSignature[] = []
    for (const [index, { test, place }] of tests.entries()) {
      const { reading } = test
      if (reading.kind === 'signs') continue
      this.offsets[index] = width
      const ids = test.outcomes.map((outcome) => outcome.id)
      if (reading.kind !== 'component-ohms' && reading.kind !== 'wheel-continuity' && reading.kind !== 'wheels-turn') {
        this.placeOf[index] = fromSignature.length
        fromSignature.push({
          test: index,
          offset: width,
          count: ids.length,
          reading,
          ids,
          at: Math.max(
            0,
            reading.kind === 'lamp' ? lamps.indexOf(place.components[0] ?? '') : motors.indexOf(place.motor ?? ''),
          ),
          unsteady: ids.indexOf(unsteadyOutcome[reading.kind] ?? ''),
          fallsTo: (flickersFrom[reading.kind] ?? []).map((id) => ids.indexOf(id)).filter((at) => at >= 0),
          moods:
            reading.kind === 'motion' && reading.feed === 'track-rocked'
              ? rockedMoods
              : reading.kind.endsWith('ohms')
                ? meterMoods
                : runMoods,
          ofFriction: reading.kind === 'current' ? frictionAmps : frictionMoods,
        })
      }
      width += ids.length
    }
    this.width = width
    this.fromSignature = fromSignature
    this.words = new Words(fromSignature, width, this.solver.healthy)
  }

  /**
   * @param present each class once; two steady frictions are one
   * @param index the row is to have
   */
  row(present: readonly CircuitClass[], index: number): CircuitRow {
    const steady = present.filter(({ mood }) => mood === null)
    const wavering = present.filter(({ mood }) => mood !== null).slice(0, MOST_WAVERING)
    // readouts[mask]: those of the wavering ones whose bit is set are broken at that moment.
    const made = Array.from({ length: 1 << wavering.length }, (): Readout | undefined => undefined)
    const readoutAt = (mask: number): Readout =>
      (made[mask] ??= this.readout([...steady, ...wavering.filter((_, bit) => mask & (1 << bit))]))
    const all = (): readonly Readout[] => {
      for (let mask = 0; mask < made.length; mask++) readoutAt(mask)
      return made as Readout[]
    }
    const { tests, placeOf, width } = this
    // What is heavy at one place of a turn is so at every turn of every run.
    const tightSpots = wavering.every(({ circuit }) => circuit.fault.drag !== undefined)
    // Most rows are asked for little that their first readout does not hold already.
    let [own, done, between]: [Float32Array | null, Uint8Array | null, Int32Array | null] = [null, null, null]
    let turns: boolean | null = null
    const alike = new Int8Array(this.fromSignature.length)
    const readAlike = (place: number): boolean => {
      if (place < 0) return false
      if (alike[place] === 0)
        alike[place] = all().every((readout) => readout.alike(place) === made[0]?.alike(place)) ? 1 : -1
      return alike[place] === 1
    }
    const chances = (test: number): Float32Array => {
      if (readAlike(placeOf[test] as number)) return readoutAt(0).chances
      own ??= new Float32Array(width)
      done ??= new Uint8Array(tests.length)
      if (done[test] === 0) {
        done[test] = 1
        this.workOut(own, test, present, steady, wavering, all())
      }
      return own
    }
    return {
      index,
      get turns() {
        turns ??= made.some((_, mask) => readoutAt(mask).turns)
        return turns
      },
      chances,
      betweenWords: (test) => {
        const place = placeOf[test] as number
        if (place >= 0 && readAlike(place)) return readoutAt(0).between(place)
        if (place >= 0 ? !tightSpots || all().some((readout) => readout.hangs(place)) : made.length > 1) return -1
        between ??= new Int32Array(tests.length)
        if (between[test] === 0) between[test] = 2 + this.findBetween(test, chances(test))
        return (between[test] as number) - 2
      },
    }
  }

  /** Lets go of the circuits solved; rows made already keep theirs. */
  forget(): void {
    this.readouts.clear()
  }

  private findBetween(test: number, chances: Float32Array): number {
    const offset = this.offsets[test] as number
    const found = chances.subarray(offset, offset + (this.tests[test] as BenchTest).test.outcomes.length)
    return found.some((chance) => chance > 0 && chance < 1) ? this.words.numberOf(found.join()) : -1
  }

  private workOut(
    row: Float32Array,
    test: number,
    present: readonly CircuitClass[],
    steady: readonly CircuitClass[],
    wavering: readonly CircuitClass[],
    readouts: readonly Readout[],
  ): void {
    const known = this.tests[test] as BenchTest
    const place = this.placeOf[test] as number
    if (place >= 0) {
      const { offset, count, unsteady, fallsTo, moods, ofFriction } = this.fromSignature[place] as FromSignature
      mixMoods(
        readouts.map((readout) => readout.wordsAt(place)),
        wavering.map(({ mood, circuit }) => (circuit.fault.drag === undefined ? moods : ofFriction)[mood as Mood]),
        unsteady,
        fallsTo,
        row,
        offset,
        count,
        offset,
      )
    } else if (known.test.reading.kind === 'component-ohms') this.fill(row, test, componentOhms(known, present))
    else if (known.test.reading.kind === 'wheel-continuity')
      this.fill(row, test, this.wheelContinuity(known, steady, wavering))
    else this.wheelsTurn(row, test, steady, wavering, readouts)
  }

  private fill(row: Float32Array, test: number, chances: Readonly<Record<string, number>>): void {
    const offset = this.offsets[test] as number
    for (const [at, { id }] of (this.tests[test] as BenchTest).test.outcomes.entries())
      row[offset + at] = chances[id] ?? 0
  }

  private readout(present: readonly CircuitClass[]): Readout {
    const key = present
      .map(({ circuit }) => circuit.key)
      .sort()
      .join('|')
    const known = this.readouts.get(key)
    if (known) return known
    const signature = key === '' ? this.solver.healthy : this.solver.solve(present.map(({ circuit }) => circuit.fault))
    const readout = new Readout(this.words, signature, this.turnsNoWheel(present))
    this.readouts.set(key, readout)
    return readout
  }

  /** Whether something slips so that no wheel is driven any more. */
  private turnsNoWheel(present: readonly CircuitClass[]): boolean {
    const slips = present.flatMap(({ circuit }) => circuit.slips)
    if (slips.length === 0) return false
    const { turning } = driveTrain(this.description, new Set(slips))
    return !this.description.wheelSets.some(({ rotor }) => turning.has(rotor))
  }

  /** What a motor that stands does not drive stands too, and what lies behind a link that does not carry. */
  private wheelsTurn(
    row: Float32Array,
    test: number,
    steady: readonly CircuitClass[],
    wavering: readonly CircuitClass[],
    readouts: readonly Readout[],
  ): void {
    const { description } = this
    const slips = steady.flatMap(({ circuit }) => circuit.slips)
    const standing = readouts.map(
      ({ turns, turning }) =>
        new Set(description.motors.flatMap(({ id }, motor) => (turns && !turning[motor] ? [id] : []))),
    )
    const {
      test: { outcomes: listed },
      place,
    } = this.tests[test] as BenchTest
    if (!readouts.some(({ turns }) => turns))
      return this.fill(row, test, place.role === 'driven-wheels' ? truckOfStanding : wheelsOfStanding)
    if (slips.length === 0 && standing.every((motors) => motors.size === 0)) return this.fill(row, test, { all: 1 })
    const outcomes = listed.map(({ id }) => id)
    const offset = this.offsets[test] as number
    const whole = driveTrain(description)
    const train = driveTrain(description, new Set(slips))
    const looked = description.wheelSets.filter(
      ({ rotor, truck }) => whole.turning.has(rotor) && (place.role !== 'driven-wheels' || truck === place.truck),
    )
    const sound = looked.length
    const seen = standing.map((motors) => {
      const left = looked.filter(
        ({ rotor }) => train.turning.has(rotor) && !motors.has(train.turning.get(rotor)?.motor ?? ''),
      ).length
      const word = left === 0 ? 'none' : left < sound ? 'some' : 'all'
      return outcomes.map((id) => Number(id === word))
    })
    mixMoods(
      seen,
      wavering.map(({ mood }) => turnMoods[mood as Mood]),
      -1,
      [],
      row,
      offset,
      outcomes.length,
      0,
    )
  }

  /** Wheel by wheel: a film leaves some, a lead off leaves none of its side. */
  private wheelContinuity(
    { place }: BenchTest,
    steady: readonly CircuitClass[],
    wavering: readonly CircuitClass[],
  ): Readonly<Record<string, number>> {
    const here = ({ suspect }: CircuitClass): boolean =>
      suspect.place.truck === place.truck && (suspect.place.role === 'treads' || suspect.place.role === 'axle-contacts')
    const [first = ''] = place.components
    const sound = this.solver.healthy.wheelOhms.get(first) ?? []
    const openShare = (present: readonly CircuitClass[]): number => {
      const sides = this.readout(present).wheelOhms.get(first) ?? []
      return sides.filter((ohms) => ohms > OPEN_OHMS).length / Math.max(1, sides.length)
    }
    let [all, some, none] = [1, 0, 0]
    const meet = ([broken, partly, made]: Moods): void => {
      none += (1 - none) * broken
      some = (1 - broken) * (some + all * partly)
      all *= made
    }
    for (const entry of [...steady, ...wavering].filter(here)) {
      const { effect } = entry.suspect.fault
      if (entry.circuit.shows === 'film') meet([0.2, 0.65, 0.15])
      else if (entry.circuit.shows === 'now-and-then') meet([0.1, 0.5, 0.4])
      // An even layer reads high on most wheels; what does not touch at all reads open.
      else if (effect.kind === 'component') meet(effect.state === 'open' ? [0.7, 0.3, 0] : [0.15, 0.75, 0.1])
    }
    const series = steady.filter((entry) => !here(entry))
    const open = openShare(series)
    if (open === 1) return { none: 1 }
    if (open > 0) meet([0.05, 0.95, 0])
    const sides = this.readout(series).wheelOhms.get(first) ?? []
    if (open === 0 && sides.some((ohms, side) => ohms > 20 + 3 * (sound[side] ?? 0))) meet([0.1, 0.7, 0.2])
    for (const entry of wavering.filter((other) => !here(other)))
      if (openShare([...series, entry]) > open) meet([0.2, 0.4, 0.4])
    // Of a single shoe or wheel there are no some.
    return place.components.length === 1 ? { all, none: some + none } : { all, some, none }
  }
}

/** A meter across the piece itself. */
function componentOhms({ test, place }: BenchTest, present: readonly CircuitClass[]): Readonly<Record<string, number>> {
  const open = test.reading.kind === 'component-ohms' && test.reading.expect === 'open'
  let [well, wrong, jumps] = [1, 0, 0]
  for (const { suspect, mood } of present) {
    const { effect } = suspect.fault
    if (suspect.place.id !== place.id || effect.kind !== 'component') continue
    const passes =
      effect.state === 'shorted' ||
      (effect.state === 'high-resistance' && (place.role.endsWith('insulation') || place.role === 'suppressor'))
    if (open !== passes) continue
    const [bad, unsteady] =
      mood === null ? (effect.state === 'high-resistance' ? [0.9, 0.05] : [1, 0]) : meterMoods[mood]
    wrong += well * bad
    jumps += well * unsteady
    well *= 1 - bad - unsteady
  }
  return { 'as-it-should': well, wrong, jumps }
}
