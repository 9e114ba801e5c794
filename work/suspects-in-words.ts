import type { Suspect } from '../core/diagnosis/places/suspects'

const SHORTEST_WORD = 3
/** Words with as many letters in common at their beginning are one: tyre and tyres, crack and cracked. */
const SAME_BEGINNING = 4
/** Of what the text says, weighed by how few suspects it fits, so much must be met. */
const LEAST_SHARE = 0.34
const tellNothing = new Set(
  'the and its his has was are not for one two with from that this too all off out very'.split(' '),
)

const tellingWords = (text: string): string[] => [
  ...new Set(
    (text.toLowerCase().match(/\p{L}+/gu) ?? []).filter(
      (word) => word.length >= SHORTEST_WORD && !tellNothing.has(word),
    ),
  ),
]
const alike = (one: string, other: string): boolean => {
  const shared = Math.min(one.length, other.length)
  return shared < SAME_BEGINNING ? one === other : one.slice(0, SAME_BEGINNING) === other.slice(0, SAME_BEGINNING)
}

/**
 * Suspects that somebody's own words may mean, the most alike first; a word that fits few of them says more than one
 * that fits many.
 *
 * “tyre gone, rear” gives the missing tyre before the cracked one
 */
export function suspectsInWords(text: string, suspects: readonly Suspect[]): Suspect[] {
  const asked = tellingWords(text)
  const words = suspects.map((suspect) => tellingWords(suspect.name))
  const fits = asked.map((word) => words.map((own) => own.some((other) => alike(word, other))))
  const weights = fits.map((row) => {
    const count = row.filter(Boolean).length
    return count === 0 ? 0 : Math.log(1 + suspects.length / count)
  })
  const most = weights.reduce((sum, weight) => sum + weight, 0)
  if (most === 0) return []
  return suspects
    .map((suspect, index) => ({
      suspect,
      share: weights.reduce((sum, weight, word) => sum + (fits[word]?.[index] ? weight : 0), 0) / most,
      length: words[index]?.length ?? 0,
    }))
    .filter((entry) => entry.share >= LEAST_SHARE)
    .sort(
      (one, other) => other.share - one.share || one.length - other.length || other.suspect.prior - one.suspect.prior,
    )
    .map((entry) => entry.suspect)
}
