/**
 * A chance beside others. What is only believed is never all or nothing.
 *
 * @example chanceInFigures(0.534) // '53\u00A0%'
 * @example chanceInFigures(0.998) // '>99\u00A0%'
 * @example chanceInFigures(0.004) // '<1\u00A0%'
 */
export function chanceInFigures(chance: number): string {
  const figure = chance < 0.01 ? '<1' : chance > 0.99 ? '>99' : String(Math.round(chance * 100))
  // The unit stays on the line of its figure.
  return `${figure}\u00A0%`
}
