import { SET_SIZE } from './hypothesis-sets'
import type { AtState, HypothesisSpace } from './hypothesis-space'

/** So many looks still make an exact number of bits, with room for what they met. */
const EXACT_BITS = 40
/** Chances closer than this come from the same faults. */
const SAME_SIGN = 1e-9

/** Fed elsewhere, with a little more or less on the way, a figure between two words keeps its word so often, and is called anew otherwise: from memory. */
export const KEEPS_ITS_WORD = 0.95

/** An earlier time the same signs were looked for, or a figure of the same kind was read. */
export interface EarlierLook {
  readonly test: number
  readonly state: number
  readonly outcome: number
}

/** Tells these earlier looks from any others. */
export function looksKey(looks: readonly EarlierLook[]): string {
  return looks.map((look) => `/${look.test}:${look.state}:${look.outcome}`).join('')
}

/** With the engine as it was then. */
type StatedLook = EarlierLook & { readonly at: AtState }

/**
 * Chance of every outcome of a test, set by set, after it was made before. A sign is there or it is not, however
 * often one looks, and a figure between two words is called by the same word again: only misreading is drawn anew,
 * as long as what gives the sign or the figure is still the same.
 *
 * @returns asks for one set; what it answers is overwritten by the next
 */
export function chancesAgain(
  space: HypothesisSpace,
  state: number,
  test: number,
  before: readonly EarlierLook[],
): (set: number) => Float64Array {
  const {
    engine,
    sets,
    hypotheses: { items },
  } = space
  const here = space.at(state)
  const known = engine.tests[test]?.test
  const out = new Float64Array(8)
  const present = new Int16Array(SET_SIZE + here.given.length)
  const looks = before.map((look) => ({ ...look, at: space.at(look.state) }))
  const weigh = looking(space, here, test, looks, out)
  if (known?.reading.kind !== 'signs') {
    const again = readAgain(space, here, test, looks, weigh)
    const holds = holdsUnlisted(space, here)
    return (set) => {
      const row = here.row(set)
      if (looks.length > 0 && (row.betweenWords(test) >= 0 || holds(set))) return again(set)
      engine.chances(test, present, here.presentIn(set, present), row, out)
      return out
    }
  }
  // Most sets have nothing to do with what is looked at: they all give the same, but for whether it runs.
  const matters = Uint8Array.from(items, (item) => (engine.givesSign(test, item.suspect) ? 1 : 0))
  const states = [here, ...looks.map((look) => look.at)]
  const plain = new Map<number, Float64Array>()
  return (set) => {
    const { members } = sets
    for (let at = set * SET_SIZE; at < set * SET_SIZE + SET_SIZE; at++) {
      const item = members[at] as number
      if (item >= 0 && matters[item] === 1) return weigh(set)
    }
    let running = 0
    if (known.needsRunning) for (const at of states) running = 2 * running + (at.row(set).turns ? 1 : 0)
    const found = plain.get(running)
    if (found) return found
    const made = weigh(set).slice()
    plain.set(running, made)
    return made
  }
}

/** Which of the earlier looks met the same figure decides: sets in which the same ones did have the same chances. */
function readAgain(
  space: HypothesisSpace,
  here: AtState,
  test: number,
  looks: readonly StatedLook[],
  weigh: (set: number) => Float64Array,
): (set: number) => Float64Array {
  const { engine } = space
  const holds = holdsUnlisted(space, here)
  const judgedRunning = [test, ...looks.map((look) => look.test)].some((made) => engine.tests[made]?.test.needsRunning)
  if (judgedRunning || looks.length > EXACT_BITS) return weigh
  const known = new Map<number, Float64Array>()
  return (set) => {
    if (holds(set)) return weigh(set)
    const words = here.row(set).betweenWords(test)
    let key = words
    for (let at = 0; at < looks.length; at++) {
      const look = looks[at] as (typeof looks)[number]
      key = 2 * key + (look.at.row(set).betweenWords(look.test) === words ? 1 : 0)
    }
    const found = known.get(key)
    if (found) return found
    const made = weigh(set).slice()
    known.set(key, made)
    return made
  }
}

function looking(
  { engine }: HypothesisSpace,
  here: AtState,
  test: number,
  before: readonly StatedLook[],
  out: Float64Array,
): (set: number) => Float64Array {
  const count = engine.tests[test]?.test.outcomes.length ?? 0
  const signs = engine.tests[test]?.test.reading.kind === 'signs'
  const present = new Int16Array(SET_SIZE + here.given.length)
  const byTest = [...new Set([test, ...before.map((look) => look.test)])].map((made) => ({
    made,
    looks: before
      .filter((look) => look.test === made)
      .map((look) => ({ ...look, present: new Int16Array(SET_SIZE + look.at.given.length) })),
  }))
  const [now, then, word, elsewhere] = [
    new Float64Array(count),
    new Float64Array(count),
    new Float64Array(count),
    new Float64Array(count),
  ]
  return (set) => {
    const variants = here.presentIn(set, present)
    const spread = engine.trueChances(test, present, variants, here.row(set), now)
    const anything = engine.holdsUnlisted(present, variants)
    out.set(now)
    elsewhere.fill(1)
    for (const { made, looks } of byTest) {
      // However often one looked there, it is one figure.
      word.fill(1)
      for (const look of looks) {
        const row = look.at.row(set)
        const there = look.at.presentIn(set, look.present)
        const misread = engine.trueChances(made, look.present, there, row, then)
        // What no row names shows the same again at the same test; of another test it says nothing.
        const same = anything
          ? made === test && engine.holdsUnlisted(look.present, there)
          : row.betweenWords(made) === here.row(set).betweenWords(test)
        if (signs ? !alike(now, then) : !same) continue
        for (let sign = 0; sign < count; sign++)
          word[sign] = (word[sign] as number) * ((sign === look.outcome ? 1 - misread : 0) + misread / count)
      }
      if (made === test)
        for (let sign = 0; sign < count; sign++) out[sign] = (out[sign] as number) * (word[sign] as number)
      else keep(elsewhere, word, now)
    }
    if (byTest.length > 1) keep(out, elsewhere, now)
    let sum = 0
    for (let sign = 0; sign < count; sign++) sum += out[sign] as number
    for (let sign = 0; sign < count; sign++) out[sign] = (1 - spread) * ((out[sign] as number) / sum) + spread / count
    return out
  }
}

/** Weighs by what was seen of the word: it is the figure's own word, or one called anew. */
function keep(weights: Float64Array, seen: Float64Array, chances: Float64Array): void {
  let anew = 0
  for (let sign = 0; sign < seen.length; sign++)
    anew += (1 - KEEPS_ITS_WORD) * (chances[sign] as number) * (seen[sign] as number)
  for (let sign = 0; sign < seen.length; sign++)
    weights[sign] = (weights[sign] as number) * (KEEPS_ITS_WORD * (seen[sign] as number) + anew)
}

/** Whether a set has in it, in this state, what no row names. */
export function holdsUnlisted(
  { engine, sets, hypotheses: { items } }: HypothesisSpace,
  here: AtState,
): (set: number) => boolean {
  if (here.given.includes(engine.unlisted)) return () => true
  const unlisted = Uint8Array.from(items, (item, index) =>
    item.suspect === engine.unlisted && here.has(index) ? 1 : 0,
  )
  return (set) => {
    const { members } = sets
    for (let at = set * SET_SIZE; at < set * SET_SIZE + SET_SIZE; at++)
      if ((members[at] as number) >= 0 && unlisted[members[at] as number] === 1) return true
    return false
  }
}

function alike(one: Float64Array, other: Float64Array): boolean {
  for (let sign = 0; sign < one.length; sign++)
    if (Math.abs((one[sign] as number) - (other[sign] as number)) > SAME_SIGN) return false
  return true
}
