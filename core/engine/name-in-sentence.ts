/**
 * A name as it stands within a sentence: “Front truck” becomes “front truck”.
 *
 * @param name as it stands alone, with a capital first
 * @example inSentence('Can motor') // 'can motor'
 */
export function inSentence(name: string): string {
  return name.charAt(0).toLowerCase() + name.slice(1)
}

/**
 * Words as they begin a sentence: “gear oil” becomes “Gear oil”.
 *
 * @example atStart('a lead is off') // 'A lead is off'
 */
export function atStart(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1)
}
