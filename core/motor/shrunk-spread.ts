import { median, medianAbsoluteDeviation } from 'simple-statistics'

/** What is taken for usual before this shop has seen any: the logarithm of a figure, how far types and examples lie apart. */
export interface ClassPrior {
  readonly centre: number
  /** Standard deviation of types about the class, of the logarithm. */
  readonly betweenTypes: number
  /** Standard deviation of sound examples about their type, of the logarithm. */
  readonly withinType: number
}

/** What to expect of a sound example. */
export interface Expected {
  /** Of the logarithm. */
  readonly centre: number
  /** Standard deviation of one further sound example, the doubt about the centre included. */
  readonly deviation: number
  /** Examples of this shop that went in. */
  readonly examples: number
}

/** 1/Φ⁻¹(3/4): turns a median absolute deviation into a standard deviation of normal scatter. */
const MAD_TO_DEVIATION = 1.4826
/** As many examples the class's spread counts for. */
const PRIOR_EXAMPLES = 4
/** A median knows as much as so many means' worth of readings: 2/π for normal scatter. */
const MEDIAN_EFFICIENCY = 2 / Math.PI

/**
 * Median and spread of the shop's own examples, drawn towards the class while they are few. The spread is a weighted
 * mean of the two variances, the centre the precision-weighted mean of median and class (normal–normal shrinkage).
 *
 * @param logs logarithms of the figure, one an engine
 * @returns what a further sound example should read
 * @example shrunkSpread([], { centre: 1.5, betweenTypes: 0.3, withinType: 0.1 }).centre // 1.5
 */
export function shrunkSpread(logs: readonly number[], prior: ClassPrior): Expected {
  const count = logs.length
  const within =
    (PRIOR_EXAMPLES * prior.withinType ** 2 +
      (count > 1 ? count * (MAD_TO_DEVIATION * medianAbsoluteDeviation([...logs])) ** 2 : 0)) /
    (PRIOR_EXAMPLES + (count > 1 ? count : 0))
  const precisionOfShop = (count * MEDIAN_EFFICIENCY) / within
  const precisionOfClass = 1 / prior.betweenTypes ** 2
  const precision = precisionOfShop + precisionOfClass
  const centre = ((count > 0 ? precisionOfShop * median([...logs]) : 0) + precisionOfClass * prior.centre) / precision
  return { centre, deviation: Math.sqrt(within + 1 / precision), examples: count }
}
