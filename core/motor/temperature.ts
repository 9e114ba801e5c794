/** Referring motor constants to 20 °C: a warm winding measured against a cold one looks like a fault. */
export const REFERENCE_CELSIUS = 20

/** Copper by IEC 60034-1 (published): resistance is proportional to θ + 235. */
const COPPER_ZERO_CELSIUS = 235

/** Remanence of a ferrite magnet per kelvin, about −0.2 % (from memory). */
export const FERRITE_PER_KELVIN = -0.002

/**
 * Winding resistance at 20 °C.
 *
 * @param resistance measured, Ω
 * @param windingCelsius temperature of the winding when measured, °C
 * @throws RangeError below −200 °C
 * @example resistanceAt20(12, 60) // 10.37
 */
export function resistanceAt20(resistance: number, windingCelsius: number): number {
  if (!(windingCelsius > -200)) throw new RangeError('A winding is not that cold.')
  return (resistance * (COPPER_ZERO_CELSIUS + REFERENCE_CELSIUS)) / (COPPER_ZERO_CELSIUS + windingCelsius)
}

/**
 * Back-EMF constant at 20 °C for a ferrite magnet at `magnetCelsius`.
 *
 * @example backEmfAt20(0.01, 60) // 0.01087
 */
export function backEmfAt20(backEmf: number, magnetCelsius: number): number {
  return backEmf / (1 + FERRITE_PER_KELVIN * (magnetCelsius - REFERENCE_CELSIUS))
}

/**
 * Winding temperature from two resistances: (θ₂ + 235)/(θ₁ + 235) = R₂/R₁ (IEC 60034-1, copper).
 *
 * @param coldResistance Ω at `coldCelsius`
 * @param warmResistance Ω now
 * @returns °C now
 * @throws RangeError unless both resistances are above zero
 * @example windingTemperature(10, 20, 12) // 71
 */
export function windingTemperature(coldResistance: number, coldCelsius: number, warmResistance: number): number {
  if (!(coldResistance > 0 && warmResistance > 0)) throw new RangeError('Winding resistances must be above zero.')
  return (warmResistance / coldResistance) * (coldCelsius + COPPER_ZERO_CELSIUS) - COPPER_ZERO_CELSIUS
}
