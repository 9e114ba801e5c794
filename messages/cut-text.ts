const characters = new Intl.Segmenter('en', { granularity: 'grapheme' })

/**
 * The beginning of a text, at most so many code units long, never with half a character at its end: an accent stays
 * with its letter, a flag or a face stays whole.
 */
export function cutText(text: string, most: number): string {
  if (text.length <= most) return text
  let end = 0
  // A character is never longer than a few dozen units: more than that behind the edge need not be looked at.
  for (const { index, segment } of characters.segment(text.slice(0, most + 64))) {
    if (index + segment.length > most) break
    end = index + segment.length
  }
  return text.slice(0, end)
}
