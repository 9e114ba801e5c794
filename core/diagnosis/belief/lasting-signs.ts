/** What one look can show: the first outcome is what a sound engine gives, and a later one hides an earlier. */
export interface SignsOfTest {
  readonly outcomes: number
  /** By suspect and outcome: chance that a suspect, being there, does not show it. */
  readonly silence: Float64Array
  /** By outcome: how often it is seen with nothing wrong. */
  readonly leaks: readonly number[]
}

/** One look: who was there then, what was noted, and how far it goes towards “anything may be noted”. */
export interface Look {
  readonly suspects: readonly number[]
  readonly outcome: number
  readonly spread: number
}

/** A fault that was found by one of these looks: by which outcome, and at which of them first. */
export interface ShownFrom {
  readonly suspect: number
  readonly outcome: number
  readonly look: number
}

/** More looks than a number has bits, or more kinds of signs than can be gone through, are judged in another way. */
const MOST_LOOKS = 30
const MOST_KINDS = 12

/**
 * Chance of what was noted at several looks at one thing, in whatever states. A fault shows its sign or does not, and
 * goes on doing so as long as it is there; only the reading is made anew each time. So a fault that happens not to
 * smell is not cleared once more by every look at a machine that does not smell, whatever else was mended in between.
 * What was found by a look is of those that show: it may have been overlooked before, but where it is seen no more
 * after its repair it is gone, and not one of those that never show.
 *
 * @param looks in the order of their states
 * @param shown what was found by one of them
 * @returns null where there is too much to go through
 * Two quiet looks at a fault heard in 0.7 of all cases, nothing misread: 0.3, and not 0.09
 */
export function chanceOfLooks(
  { outcomes, silence, leaks }: SignsOfTest,
  looks: readonly Look[],
  shown: readonly ShownFrom[] = [],
): number | null {
  if (looks.length > MOST_LOOKS) return null
  const everywhere = 2 ** looks.length - 1
  const presence = new Map<number, number>()
  for (const [look, { suspects }] of looks.entries())
    for (const suspect of suspects) presence.set(suspect, (presence.get(suspect) ?? 0) | (1 << look))

  // Signs of one outcome that are there at the same looks are one: whether any of them shows. Later outcomes first.
  const kinds: Array<{ readonly outcome: number; readonly present: number; readonly shows: number }> = []
  for (let outcome = outcomes - 1; outcome > 0; outcome--) {
    const silent = new Map<number, number>([[everywhere, 1 - (leaks[outcome] ?? 0)]])
    const hides = (present: number, own: number): void => {
      if (present !== 0 && own !== 1) silent.set(present, (silent.get(present) ?? 1) * own)
    }
    for (const [suspect, present] of presence) {
      const own = silence[suspect * outcomes + outcome] as number
      const found = shown.find((entry) => entry.suspect === suspect && entry.outcome === outcome)
      const before = found ? 2 ** found.look - 1 : everywhere
      hides(present & before, own)
      hides(present & ~before, 0)
    }
    for (const [present, quiet] of silent) if (quiet < 1) kinds.push({ outcome, present, shows: 1 - quiet })
  }
  if (kinds.length > MOST_KINDS) return null

  const noted = (open: number, outcome: number): number => {
    let chance = 1
    for (let look = 0; look < looks.length; look++) {
      if ((open & (1 << look)) === 0) continue
      const { outcome: seen, spread } = looks[look] as Look
      chance *= (seen === outcome ? 1 - spread : 0) + spread / outcomes
    }
    return chance
  }
  /** Looks that are still open show none of the kinds gone through so far. */
  const from = (kind: number, open: number): number => {
    if (open === 0) return 1
    const here = kinds[kind]
    if (!here) return noted(open, 0)
    const at = open & here.present
    if (at === 0) return from(kind + 1, open)
    const showing = here.shows * noted(at, here.outcome) * from(kind + 1, open & ~at)
    return here.shows === 1 ? showing : showing + (1 - here.shows) * from(kind + 1, open)
  }
  return from(0, everywhere)
}
