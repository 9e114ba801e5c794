import type { StallRemedy } from '../core/mechanism/stall-remedies'
import type { StallRisk } from '../core/mechanism/stall-risk'
import { priceOfMinutes } from './money'

/** What leaves no more stops than this a pass is enough. Judged. */
const ENOUGH = 0.025
/** From so many stops a pass on it is not fit to run there. Judged. */
const UNFIT = 0.1
const RARE = 0.01

type Stops = Pick<StallRisk, 'stopsPerPass'>

export interface EnoughAgainstStalling {
  readonly remedy: StallRemedy
  /** With everything cleaned besides. */
  readonly cleaned: boolean
  readonly stops: number
  /** Parts and time, in hundredths of the shop's currency. */
  readonly price: number
}

export const isEnough = ({ stopsPerPass }: Stops): boolean => stopsPerPass <= ENOUGH

/**
 * The cheapest remedy that leaves hardly a stop, alone or with cleaning.
 *
 * @param remedies of this engine over these pieces
 * @param hourlyRate in hundredths of the shop's currency
 * @returns null where none is enough
 */
export function cheapestEnough(remedies: readonly StallRemedy[], hourlyRate: number): EnoughAgainstStalling | null {
  const cost = ({ price, minutes }: StallRemedy): number => price + priceOfMinutes(minutes, hourlyRate)
  const cleaning = remedies.find(({ row }) => row.kind === 'clean')
  const options = remedies.flatMap((remedy): EnoughAgainstStalling[] => [
    { remedy, cleaned: false, stops: remedy.risk.stopsPerPass, price: cost(remedy) },
    ...(remedy.withCleaning
      ? [
          {
            remedy,
            cleaned: true,
            stops: remedy.withCleaning.stopsPerPass,
            price: cost(remedy) + (cleaning ? cost(cleaning) : 0),
          },
        ]
      : []),
  ])
  return options.filter(({ stops }) => stops <= ENOUGH).sort((one, other) => one.price - other.price)[0] ?? null
}

/** Stops a pass with as many figures as they are worth. */
export const stopsInFigures = (stops: number): string =>
  stops < 0.0005 ? '0' : stops < RARE ? stops.toFixed(3) : stops < UNFIT ? stops.toFixed(2) : stops.toFixed(1)

/** What a pass over the dead pieces comes to, in a sentence. */
export function stallVerdict(
  { longestWithoutMm, stopsPerPass }: StallRisk,
  coastMm: number,
): { readonly tone: 'fault' | 'care' | 'sound'; readonly words: string } {
  if (longestWithoutMm > coastMm)
    return {
      tone: 'fault',
      words: `For ${longestWithoutMm} mm no point of one rail stands on live metal, and it rolls ${coastMm.toFixed(1)} mm: it stops there however clean it is.`,
    }
  if (stopsPerPass >= UNFIT)
    return {
      tone: 'fault',
      words:
        longestWithoutMm > 0
          ? `It can roll over the ${longestWithoutMm} mm without contact; what stops it is contacts that do not touch.`
          : 'Some point always stands on live metal; what stops it is contacts that do not touch.',
    }
  if (stopsPerPass >= RARE)
    return { tone: 'care', words: 'It mostly rides through; a few passes in a hundred end there.' }
  return { tone: 'sound', words: 'It rides through.' }
}
