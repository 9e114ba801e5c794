/** One thing that was said with a chance, and whether it turned out so. */
export interface Prediction {
  readonly chance: number
  readonly right: boolean
}

/** Predictions of about the same chance, together. */
export interface ReliabilityBand {
  readonly from: number
  readonly to: number
  readonly count: number
  readonly meanChance: number
  readonly right: number
  /** 95 % interval of the share that was right. */
  readonly low: number
  readonly high: number
}

const EDGES = [0, 0.1, 0.3, 0.5, 0.7, 0.9, 1] as const
/** Two-sided 95 % of the normal distribution. */
const Z = 1.959964

/**
 * Wilson's score interval of a share (Wilson 1927, Probable inference, the law of succession, and statistical
 * inference).
 */
export function wilsonInterval(right: number, count: number): readonly [low: number, high: number] {
  if (count === 0) return [0, 1]
  const share = right / count
  const centre = (share + Z ** 2 / (2 * count)) / (1 + Z ** 2 / count)
  const half = (Z / (1 + Z ** 2 / count)) * Math.sqrt((share * (1 - share)) / count + Z ** 2 / (4 * count ** 2))
  return [Math.max(0, centre - half), Math.min(1, centre + half)]
}

/** How often what was given a chance turned out so: of what was given 70 %, about 70 % should. Empty bands are left out. */
export function reliability(predictions: readonly Prediction[]): ReliabilityBand[] {
  return EDGES.slice(1).flatMap((to, index): ReliabilityBand[] => {
    const from = EDGES[index] as number
    const here = predictions.filter(({ chance }) => chance >= from && (chance < to || (to === 1 && chance <= 1)))
    if (here.length === 0) return []
    const right = here.filter((entry) => entry.right).length
    const [low, high] = wilsonInterval(right, here.length)
    return [
      {
        from,
        to,
        count: here.length,
        meanChance: here.reduce((sum, entry) => sum + entry.chance, 0) / here.length,
        right,
        low,
        high,
      },
    ]
  })
}
