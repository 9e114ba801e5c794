/**
 * Whether somebody's words ask for a thing that goes by certain others: one of them begins a word of the text.
 *
 * @example asksFor('Decoder and sound, please', ['decoder']) // true
 */
export function asksFor(text: string, words: readonly string[]): boolean {
  const lower = text.toLowerCase()
  return words.some((word) => new RegExp(`\\b${word}`, 'u').test(lower))
}
