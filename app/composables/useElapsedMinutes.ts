/**
 * How long the step in hand has been on the screen, by a clock that nobody sets. Much shorter than planned is a slip of
 * the pedal; much longer, and somebody was called away: then nothing is said.
 *
 * @param step what changes when another step comes up
 */
export function useElapsedMinutes(step: () => unknown): (planned: number) => number | null {
  let begun = performance.now()
  watch(step, () => {
    begun = performance.now()
  })
  return (planned) => {
    const taken = (performance.now() - begun) / 60_000
    return taken >= 0.1 && taken <= 10 + 4 * planned ? Math.round(taken * 10) / 10 : null
  }
}
