import { EXCHANGE_MOTOR } from '../../knowledge/knowledge-schema'
import type { BenchCosts } from '../acts/bench-costs'
import type { Belief } from '../belief/belief'
import type { CompiledEngine } from '../compiled-engine'
import type { BenchTest } from '../places/bench-tests'

/** From this chance on a repair is worth more than another look that saves little. */
export const SURE_CHANCE = 0.9
/** A repair less likely to be needed is not made before everything that tells has been asked. */
export const REPAIR_CHANCE = 0.5
/** Nothing dear is exchanged while something cheaper has this chance. */
const WOULD_DO = 0.12
export const DEAR_MINUTES = 15
/** So often one remedy at one place is advised in a search. */
const MOST_REPAIRS = 2
/** A look that shows a fault this often and did not, speaks against mending it. */
const SHOWS_IT = 0.7

/** A group of repair, and the chance that it is needed. */
export interface Repair {
  readonly group: number
  readonly chance: number
}

/** Which repair makes sense at all, and which of them is the readiest. */
export class SensibleRepairs {
  constructor(
    private readonly engine: CompiledEngine,
    private readonly costs: BenchCosts,
  ) {}

  /** What is likelier to be needed than not; where nothing else is, even what was seen good: then all speaks for it but that look. */
  likely(belief: Belief, chances: Float64Array, off: ReadonlySet<string>): Repair | null {
    const repair = this.readiest(belief, chances, off)
    return repair && repair.chance >= REPAIR_CHANCE
      ? repair
      : this.readiest(belief, chances, off, { seenGood: true, least: REPAIR_CHANCE })
  }

  /**
   * The repair with most chance a minute, of those that make sense.
   *
   * @param chances by group, that it is needed
   * @param off parts that are off
   * @param seenGood what was seen good counts as well
   * @param least chance it has to have
   */
  readiest(
    belief: Belief,
    chances: Float64Array,
    off: ReadonlySet<string>,
    { seenGood = false, least = 0.02 }: { readonly seenGood?: boolean; readonly least?: number } = {},
  ): Repair | null {
    const { costs } = this
    const sensible = costs.groups.flatMap((_, group) => {
      const chance = chances[group] as number
      return chance > least && this.makesSense(belief, group, chances, seenGood)
        ? [{ group, chance, cost: costs.repair(group, off).total }]
        : []
    })
    return sensible.reduce<(typeof sensible)[number] | null>(
      (best, entry) =>
        !best ||
        entry.chance >= SURE_CHANCE > (best.chance >= SURE_CHANCE) ||
        (entry.chance >= SURE_CHANCE === best.chance >= SURE_CHANCE &&
          entry.chance / entry.cost > best.chance / best.cost)
          ? entry
          : best,
      null,
    )
  }

  /** Nothing mended a third time, nor what was just seen or measured good; nothing dear while something cheaper would do. */
  private makesSense(belief: Belief, group: number, chances: Float64Array, seenGood = false): boolean {
    const { engine, costs } = this
    const { suspect, suspects } = costs.groups[group] as (typeof costs.groups)[number]
    if (suspects.includes(engine.unlisted)) return false
    if (this.mendings(belief, group).length >= MOST_REPAIRS) return false
    const chance = chances[group] as number
    if (!seenGood && chance < SURE_CHANCE && this.seenGoodSince(belief, group)) return false
    const dear = (entry: typeof suspect): boolean =>
      entry.remedy.id === EXCHANGE_MOTOR || (entry.remedy.minutes >= DEAR_MINUTES && entry.remedy.parts.length > 0)
    if (!dear(suspect)) return true
    return (
      chance >= REPAIR_CHANCE &&
      costs.groups.every(
        (other, index) =>
          (chances[index] as number) < WOULD_DO ||
          index === group ||
          dear(other.suspect) ||
          !this.makesSense(belief, index, chances, seenGood),
      )
    )
  }

  /** Whether a look or a meter at the piece itself shows it as good as always. */
  shows(test: number, index: number): boolean {
    const { engine } = this
    const { fault, place } = engine.suspects[index] as CompiledEngine['suspects'][number]
    const known = engine.tests[test] as BenchTest
    if (known.test.reading.kind === 'component-ohms') return known.place.id === place.id
    const silent = fault.signs.reduce(
      (rest, sign) => (sign.test === known.test.id ? rest * (1 - sign.chance) : rest),
      1,
    )
    return engine.givesSign(test, index) && known.test.reading.kind === 'signs' && silent < 1 - SHOWS_IT
  }

  /** Whether everything a repair mends was seen or measured good since it was made last, if it was. */
  seenGoodSince(belief: Belief, group: number): boolean {
    const lastTouched = Math.max(-1, ...this.mendings(belief, group))
    const { suspects } = this.costs.groups[group] as (typeof this.costs.groups)[number]
    return suspects.every((index) => this.seenGood(belief, index, lastTouched))
  }

  /** The states since which a repair is made. */
  private mendings({ history }: Belief, group: number): number[] {
    const { engine, costs } = this
    return history.events.flatMap((event) =>
      event.kind === 'repaired' && costs.groupOf[engine.indexOfSuspect(event.suspect)] === group ? [event.state] : [],
    )
  }

  /** Whether it was looked at or measured since it was last touched, and found as it should be. */
  seenGood({ seenHere }: Belief, index: number, since: number): boolean {
    const { engine } = this
    return seenHere.some((finding) => {
      const test = engine.indexOfTest(finding.test)
      const [well] = (engine.tests[test] as BenchTest).test.outcomes
      return finding.state >= since && well?.id === finding.outcome && this.shows(test, index)
    })
  }
}
