import FFT from 'fft.js'

export interface RippleOptions {
  /** Samples a second. */
  readonly rate: number
  /** Segments of the commutator. */
  readonly segments: number
  /** rad/s the motor may turn at, lowest and highest; from volts, ohms and the usual magnet of its kind. */
  readonly plausible: readonly [low: number, high: number]
}

export interface RippleSpeed {
  /** rad/s of the motor. */
  readonly radPerSecond: number
  /** One standard deviation of it, from the length of the record. */
  readonly deviation: number
  /** How far the ripple stands above what lies around it, as a ratio of amplitudes. */
  readonly clearness: number
  /** The other speed the same ripple could mean, where the order is in doubt; null otherwise. */
  readonly orElse: number | null
}

/** A ripple that stands out less than this is taken for noise. */
const LEAST_CLEARNESS = 6
/** Nor is it a commutator's ripple when it is smaller than this share of the current. */
const LEAST_SHARE = 0.002
/** A line at half the ripple's frequency with this share of its size leaves the order in doubt. */
const DOUBT_SHARE = 0.8

/**
 * Speed of a brushed motor from the ripple of its current: 2N ripples a turn with an odd number of segments N, N with
 * an even one (a commutation at either brush in turn). The strongest line in the plausible band of a windowed spectrum,
 * its place between the bins found by a parabola through the logarithms of its neighbours.
 *
 * @param amps current at a fixed rate, at least 64 readings
 * @returns null when no ripple stands out, or the rate is too low for the band
 */
export function rippleSpeed(
  amps: ArrayLike<number>,
  { rate, segments, plausible: [low, high] }: RippleOptions,
): RippleSpeed | null {
  if (amps.length < 64) return null
  const ripplesPerTurn = segments % 2 === 1 ? 2 * segments : segments
  const toHertz = (speed: number): number => (speed * ripplesPerTurn) / (2 * Math.PI)
  if (toHertz(low) > 0.45 * rate) return null
  const { amplitudes, hertzPerBin, mean } = spectrum(amps, rate)
  const first = Math.max(2, Math.floor(toHertz(low) / hertzPerBin))
  const last = Math.min(
    amplitudes.length - 2,
    Math.ceil(toHertz(Math.min(high, (0.45 * rate * 2 * Math.PI) / ripplesPerTurn)) / hertzPerBin),
  )
  if (last <= first) return null
  let peak = first
  for (let bin = first; bin <= last; bin++) if ((amplitudes[bin] as number) > (amplitudes[peak] as number)) peak = bin
  const around = [...amplitudes.slice(first, last + 1)].sort((one, other) => one - other)
  const floor = around[Math.floor(around.length / 2)] ?? 0
  const clearness = (amplitudes[peak] as number) / Math.max(floor, 1e-12)
  // A Hann window halves a line's sum: four over the count brings it back to amperes.
  if (clearness < LEAST_CLEARNESS || (4 * (amplitudes[peak] as number)) / amps.length < LEAST_SHARE * Math.abs(mean))
    return null
  const hertz = (peak + betweenBins(amplitudes, peak)) * hertzPerBin
  const radPerSecond = (hertz * 2 * Math.PI) / ripplesPerTurn
  const halved = amplitudes[Math.round(hertz / 2 / hertzPerBin)] ?? 0
  const doubtful = halved > DOUBT_SHARE * (amplitudes[peak] as number) && radPerSecond * 2 <= high
  return {
    radPerSecond,
    deviation: (0.1 * hertzPerBin * 2 * Math.PI) / ripplesPerTurn,
    clearness,
    orElse: doubtful ? radPerSecond * 2 : null,
  }
}

/** Amplitudes of a Hann-windowed record without its mean and its slow drift, padded to a power of two. */
function spectrum(
  amps: ArrayLike<number>,
  rate: number,
): { amplitudes: Float64Array; hertzPerBin: number; mean: number } {
  const count = amps.length
  const size = 2 ** Math.ceil(Math.log2(count))
  const { mean, slope } = straightLine(amps)
  const windowed = new Array<number>(size).fill(0)
  for (let index = 0; index < count; index++) {
    windowed[index] =
      ((amps[index] as number) - mean - slope * (index - (count - 1) / 2)) *
      (0.5 - 0.5 * Math.cos((2 * Math.PI * index) / (count - 1)))
  }
  const transform = new FFT(size)
  const complex = transform.createComplexArray() as number[]
  transform.realTransform(complex, windowed)
  const amplitudes = new Float64Array(size / 2)
  for (let bin = 0; bin < size / 2; bin++)
    amplitudes[bin] = Math.hypot(complex[2 * bin] as number, complex[2 * bin + 1] as number)
  return { amplitudes, hertzPerBin: rate / size, mean }
}

function straightLine(values: ArrayLike<number>): { mean: number; slope: number } {
  const middle = (values.length - 1) / 2
  let [sum, product, square] = [0, 0, 0]
  for (let index = 0; index < values.length; index++) sum += values[index] as number
  const mean = sum / values.length
  for (let index = 0; index < values.length; index++) {
    product += (index - middle) * ((values[index] as number) - mean)
    square += (index - middle) ** 2
  }
  return { mean, slope: product / square }
}

function betweenBins(amplitudes: Float64Array, peak: number): number {
  const [left, middle, right] = [-1, 0, 1].map((step) => Math.log(Math.max(amplitudes[peak + step] ?? 0, 1e-15))) as [
    number,
    number,
    number,
  ]
  const bend = left - 2 * middle + right
  return bend === 0 ? 0 : Math.max(-0.5, Math.min(0.5, (0.5 * (left - right)) / bend))
}
