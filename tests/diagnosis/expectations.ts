import { SeededRandom } from '../../bench/casualty/random'
import type { BenchTest } from '../../core/diagnosis/places/bench-tests'
import { BenchHand } from '../../bench/hand/bench-hand'
import { bareConstruction, diagnosisFor } from './search-casualty'
import { drawTrueFaults, type TrueFault } from '../../bench/hand/true-faults'

/**
 * `npm run searches:expectations -- CONSTRUCTION [EACH]`: sets each kind of fault alone into a stand-in, makes every
 * test on it that circuit and drive answer, and names those that come out as the diagnosis does not expect of any
 * suspect mended by the same. Faults of one name at several places are thrown together: what hangs on the place is
 * named too, and is no contradiction.
 */
const [construction = 'open-frame', each = '3'] = process.argv.slice(2)
const REPEATS = 2
const MOST_SEEDS = 3000
/** Named from this mean chance of what came on down. */
const UNEXPECTED = 0.3

/** How often each outcome came, and what each variant makes of the chances. */
interface Comparison {
  readonly seen: Map<string, number>
  readonly expected: Map<string, ReadonlyMap<string, number>>
}

const { engine } = diagnosisFor(construction)
const read = [...engine.tests.entries()].filter(([, { test }]) => test.reading.kind !== 'signs')
const drawn = new Map<string, number>()
const comparisons = new Map<string, Map<string, Comparison>>()
for (let seed = 1; seed < MOST_SEEDS; seed++) {
  const [fault, ...others] = drawTrueFaults(engine.description, engine.places, new SeededRandom(seed))
  if (!fault || others.length > 0) continue
  const name = `${fault.name} at ${fault.place.role}`
  const before = drawn.get(name) ?? 0
  if (before >= Number(each)) continue
  drawn.set(name, before + 1)
  const hand = new BenchHand(engine.description, [fault], seed, bareConstruction(construction))
  const variants = variantsOf(hand, fault)
  const byTest = comparisons.get(name) ?? new Map<string, Comparison>()
  comparisons.set(name, byTest)
  for (const [index, test] of read) compare(byTest, index, test, hand, variants)
}
for (const [name, byTest] of comparisons) {
  for (const [test, { seen, expected }] of byTest) {
    const [best] = [...expected]
      .map(([variant, chances]) => ({ variant, chances, fits: fit(seen, chances) }))
      .sort((first, second) => second.fits - first.fits)
    if (!best || best.fits >= UNEXPECTED) continue
    console.log(
      `${name} | ${test}: ${[...seen].map(([outcome, times]) => `${outcome} × ${times}`).join(', ')} | nearest ${best.variant}: ${[...best.chances].map(([outcome, chance]) => `${outcome} ${chance.toFixed(2)}`).join(', ')}`,
    )
  }
}

/** Variants of the suspects that what mends this fault would mend, another motor apart. */
function variantsOf(hand: BenchHand, fault: TrueFault): number[] {
  return [...engine.variants.entries()].flatMap(([index, { suspect }]) => {
    const { remedy, place } = engine.suspects[suspect] as (typeof engine.suspects)[number]
    return hand.mends(fault, remedy.id, place.id) && remedy.id !== 'exchange-motor' ? [index] : []
  })
}

function compare(
  byTest: Map<string, Comparison>,
  index: number,
  test: BenchTest,
  hand: BenchHand,
  variants: readonly number[],
): void {
  const comparison = byTest.get(test.id) ?? {
    seen: new Map<string, number>(),
    expected: new Map<string, ReadonlyMap<string, number>>(),
  }
  byTest.set(test.id, comparison)
  for (let repeat = 0; repeat < REPEATS; repeat++) {
    const outcome = hand.make(test)
    if (outcome !== null) comparison.seen.set(outcome, (comparison.seen.get(outcome) ?? 0) + 1)
  }
  const chances = new Float64Array(test.test.outcomes.length)
  for (const variant of variants) {
    const { suspect, mood, severity } = engine.variants[variant] as (typeof engine.variants)[number]
    engine.chances(index, [suspect], engine.circuitRow([variant], 1), chances)
    comparison.expected.set(
      `${engine.suspects[suspect]?.id ?? ''} ${mood ?? 'steady'} × ${severity.toFixed(1)}`,
      new Map(test.test.outcomes.map(({ id }, outcome) => [id, chances[outcome] as number])),
    )
  }
}

/** Geometric mean of the chances of what came. */
function fit(seen: ReadonlyMap<string, number>, chances: ReadonlyMap<string, number>): number {
  const times = [...seen.values()].reduce((sum, count) => sum + count, 0)
  return times === 0
    ? 1
    : Math.exp(
        [...seen].reduce((sum, [outcome, count]) => sum + count * Math.log(chances.get(outcome) ?? 1e-9), 0) / times,
      )
}
