import type { EngineDescription } from '../../engine/description-schema'
import { circuitSuspectOf, type CircuitSuspect } from './electrical-fault-of'
import { LIGHT_SHARE, STUCK_TIMES } from '../../knowledge/knowledge-schema'
import type { Suspect } from '../places/suspects'

/**
 * How something that comes and goes is just now: dead until it is moved, or making and breaking all the time. It
 * stays so from one test to the next, so it is part of the hypothesis and not of the test.
 */
export type Mood = 'dead' | 'unsteady'

/** A suspect as it may be: one that comes and goes is either dead or unsteady. */
export interface Variant {
  readonly suspect: number
  /** Null for what is always so. */
  readonly mood: Mood | null
  /** How many times as bad as usual, since how bad it is is not known. */
  readonly severity: number
  /** Share of the suspect's chance. */
  readonly share: number
}

/** One thing that can be wrong as far as circuit and drive can tell: variants that do the same share it. */
export interface CircuitClass {
  /** One of those that do this. */
  readonly suspect: Suspect
  readonly circuit: CircuitSuspect
  readonly mood: Mood | null
}

/** Often it is so light, in times the motor's own friction, that nothing shows in the running; only looking, listening and feeling find it then. From memory. */
const LIGHT_DRAG = 0.3
/** Where it does show it is often worse than usual; what sticks at one place of a turn is the worse kind of its fault. */
const HEAVY = 1.4
/** Of what drags all the time so much is worse still: one name stands for dry axles and for gummed ones. From memory. */
const WORST = 3
const WORST_SHARE = 0.25
const STICKS = 1.8
/** Of what comes and goes, how often it is found dead. From memory. */
const DEAD_SHARE = 0.45

/** So many ways friction shows: always, dead and unsteady. */
export const DRAG_MOODS = 3
/** Friction comes in grades, in times the motor's own: nothing outside tells 1.2 from 1.5. */
const dragGrades = [0.4, 1.2, 2.5, 5, 60] as const

/** Severity of what passes only a little badly, or of a coil with some of its turns shorted. */
const LIGHT = 0.5

function lightShareOf({ fault: { effect } }: Suspect): number {
  if (effect.kind === 'drag') return effect.light ?? LIGHT_SHARE
  return effect.kind === 'component' || effect.kind === 'winding' ? (effect.light ?? 0) : 0
}

/**
 * Sorts suspects by what they do to circuit and drive, so that sets which look alike from outside are worked out
 * once. Friction adds up over a set before it is graded.
 */
export class CircuitClasses {
  private readonly classes: CircuitClass[] = []
  readonly variants: readonly Variant[]
  /** By variant: its class; −1 where the circuit does not see it; −2 where it is friction. */
  private readonly classOf: Int32Array
  private readonly steadyDrag: Float64Array
  private readonly stickingDrag: Float64Array
  private readonly waveringDrag: Float64Array
  /** By variant: whether with it no motor turns the train, and whether it drags in the train. */
  private readonly looses: Uint8Array
  private readonly inTrain: Uint8Array
  private readonly anyLooses: boolean
  private readonly dragClass = new Map<string, number>()
  /** Class of what adds up to so many times the motor's own friction. */
  private readonly graded = {
    always: new Map<number, number>(),
    dead: new Map<number, number>(),
    unsteady: new Map<number, number>(),
  }

  constructor(suspects: readonly Suspect[], description: EngineDescription) {
    const seen = suspects.map((suspect) => circuitSuspectOf(suspect, description))
    const variants = seen.flatMap((circuit, suspect): Variant[] => {
      const drag = circuit?.fault.drag ?? 0
      const drags = drag > 0 && drag < STUCK_TIMES
      const light = drags || (circuit && drag === 0) ? lightShareOf(suspects[suspect] as Suspect) : 0
      const slight: Variant[] =
        light > 0 ? [{ suspect, mood: null, severity: drags ? LIGHT_DRAG / drag : LIGHT, share: light }] : []
      if (circuit && circuit.shows !== 'always')
        return [
          { suspect, mood: 'dead', severity: drag > 0 ? STICKS : 1, share: (1 - light) * DEAD_SHARE },
          { suspect, mood: 'unsteady', severity: 1, share: (1 - light) * (1 - DEAD_SHARE) },
          ...slight,
        ]
      if (!drags) return [{ suspect, mood: null, severity: 1, share: 1 - light }, ...slight]
      return [
        { suspect, mood: null, severity: HEAVY, share: (1 - light) * (1 - WORST_SHARE) },
        { suspect, mood: null, severity: WORST, share: (1 - light) * WORST_SHARE },
        ...slight,
      ]
    })
    this.variants = variants
    this.classOf = new Int32Array(variants.length).fill(-1)
    this.steadyDrag = new Float64Array(variants.length)
    this.stickingDrag = new Float64Array(variants.length)
    this.waveringDrag = new Float64Array(variants.length)
    this.looses = Uint8Array.from(variants, ({ suspect }) =>
      Number(seen[suspect]?.fault.relieved?.length === description.motors.length),
    )
    this.anyLooses = this.looses.includes(1)
    this.inTrain = Uint8Array.from(variants, ({ suspect }) => {
      const { effect } = (suspects[suspect] as Suspect).fault
      return Number(effect.kind === 'drag' && effect.where === 'train')
    })
    const known = new Map<string, number>()
    for (const [index, { suspect: of, mood, severity }] of variants.entries()) {
      const suspect = suspects[of] as Suspect
      const circuit = severity < 1 ? circuitSuspectOf(suspect, description, 'light') : seen[of]
      if (!circuit) continue
      if (circuit.fault.drag !== undefined) {
        // What is heavy at one place of a turn either stops there or drags itself past it.
        this.classOf[index] = -2
        const by = mood === null ? this.steadyDrag : mood === 'dead' ? this.stickingDrag : this.waveringDrag
        by[index] = circuit.fault.drag * severity
        for (const grade of dragGrades) this.addDrag(suspect, mood === null ? 'always' : circuit.shows, mood, grade)
        continue
      }
      const key = `${circuit.key}/${mood ?? 'always'}`
      const found = known.get(key) ?? this.classes.push({ suspect, circuit, mood }) - 1
      known.set(key, found)
      this.classOf[index] = found
    }
  }

  get count(): number {
    return this.classes.length
  }

  /** Whether circuit or drive show anything of a variant. */
  shows(variant: number): boolean {
    return this.classOf[variant] !== -1
  }

  /** The same for variants that do the same alone and together with whatever else. */
  patternOf(variant: number): string {
    const known = this.classOf[variant] as number
    return known === -2
      ? `drag ${this.steadyDrag[variant] ?? 0} ${this.stickingDrag[variant] ?? 0} ${this.waveringDrag[variant] ?? 0}`
      : String(known)
  }

  get(index: number): CircuitClass {
    return this.classes[index] as CircuitClass
  }

  /**
   * Writes the classes of a set of variants, ascending, each once, and says how many.
   *
   * @param into room for one each, and for `DRAG_MOODS` more
   */
  write(variants: ArrayLike<number>, count: number, into: Int32Array): number {
    let [found, steady, sticking, wavering] = [0, 0, 0, 0]
    let loose = false
    if (this.anyLooses) for (let at = 0; at < count; at++) loose ||= this.looses[variants[at] as number] === 1
    for (let at = 0; at < count; at++) {
      const variant = variants[at] as number
      const known = this.classOf[variant] as number
      if (known === -2) {
        // What the motor does not turn does not hold it.
        if (loose && this.inTrain[variant] === 1) continue
        steady += this.steadyDrag[variant] as number
        sticking = Math.max(sticking, this.stickingDrag[variant] as number)
        wavering = Math.max(wavering, this.waveringDrag[variant] as number)
      } else if (known >= 0) found = addOnce(known, into, found)
    }
    if (steady > 0) found = addOnce(this.dragClassOf('always', steady), into, found)
    if (sticking > 0) found = addOnce(this.dragClassOf('dead', sticking), into, found)
    if (wavering > 0) found = addOnce(this.dragClassOf('unsteady', wavering), into, found)
    return found
  }

  private dragClassOf(mood: 'always' | Mood, times: number): number {
    const known = this.graded[mood].get(times)
    if (known !== undefined) return known
    const found = this.dragClass.get(`${mood}:${gradeOf(times)}`) as number
    this.graded[mood].set(times, found)
    return found
  }

  private addDrag(suspect: Suspect, shows: CircuitSuspect['shows'], mood: Mood | null, grade: number): void {
    const name = `${mood ?? 'always'}:${grade}`
    if (this.dragClass.has(name)) return
    this.dragClass.set(
      name,
      this.classes.push({
        suspect,
        circuit: { fault: { drag: grade }, slips: [], shows, key: `drag:${grade}` },
        mood,
      }) - 1,
    )
  }
}

/** Puts one more into the first `count` entries, which ascend, unless it is there. */
function addOnce(entry: number, into: Int32Array, count: number): number {
  let place = count
  while (place > 0 && (into[place - 1] as number) > entry) place--
  if (place > 0 && into[place - 1] === entry) return count
  for (let at = count; at > place; at--) into[at] = into[at - 1] as number
  into[place] = entry
  return count + 1
}

function gradeOf(times: number): number {
  return dragGrades.reduce((best, grade) =>
    Math.abs(Math.log(times / grade)) < Math.abs(Math.log(times / best)) ? grade : best,
  )
}
