export type SuspicionGrade = 'high' | 'middle' | 'low'

/** How strongly a suspicion is drawn, wherever it is drawn; null where it is too slight to be. */
export function suspicionGrade(chance: number): SuspicionGrade | null {
  return chance >= 0.4 ? 'high' : chance >= 0.15 ? 'middle' : chance >= 0.05 ? 'low' : null
}
