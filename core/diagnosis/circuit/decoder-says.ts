import { SUPPLY_OHMS } from './bench-supply'
import type { ElectricalFault } from './electrical-signature'

/** What a decoder says on the programming track. */
export interface Programming {
  readonly answers: boolean
  readonly dcOperation: boolean
  readonly addressKnown: boolean
}

/** What the functions of a decoder do as they are told. */
export interface Functions {
  /** Whether it hears, once it has its current. */
  readonly heard: boolean
  /** How often a lamp stays dark all the same, though it is whole. */
  readonly dark: number
}

/** A programming track feeds so many volts and gives way at so many amperes; an answer is at least so many more (NMRA S-9.2.3). */
const PROGRAMMING_VOLTS = 12
const PROGRAMMING_LIMIT_AMPS = 0.25
const ANSWER_AMPS = 0.06

/**
 * The answer is a pulse through the motor: without contact, without a motor or beside a short circuit there is none.
 *
 * @param awakeOhms from rail to rail with the decoder passing current on
 * @param silentOhms the same with it passing none
 */
export function programmingOf(awakeOhms: number, silentOhms: number, faults: readonly ElectricalFault[]): Programming {
  const answering = PROGRAMMING_VOLTS / (awakeOhms + SUPPLY_OHMS) - PROGRAMMING_VOLTS / (silentOhms + SUPPLY_OHMS)
  const allows = (power: 'dc' | 'dcc'): boolean =>
    faults.every(({ decoderRunsOn }) => !decoderRunsOn || decoderRunsOn.includes(power))
  return {
    answers:
      faults.every(({ decoderRunsOn }) => decoderRunsOn?.length !== 0) &&
      silentOhms > PROGRAMMING_VOLTS / PROGRAMMING_LIMIT_AMPS &&
      answering >= ANSWER_AMPS,
    dcOperation: allows('dc'),
    addressKnown: allows('dcc'),
  }
}

export function functionsOf(faults: readonly ElectricalFault[]): Functions {
  return {
    heard: faults.every(
      ({ decoderRunsOn, functionsObey }) => !decoderRunsOn || decoderRunsOn.includes('dcc') || functionsObey === true,
    ),
    dark: 1 - faults.reduce((lit, { functionDark = 0 }) => lit * (1 - functionDark), 1),
  }
}
