/** Minutes of a step, to the tenth where they are few. minutesInFigures(4.25) is “4.3 min”, minutesInFigures(17.6) “18 min”. */
export const minutesInFigures = (minutes: number): string =>
  `${minutes < 9.95 ? minutes.toFixed(1) : Math.round(minutes)}\u00a0min`
