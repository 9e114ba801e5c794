/** How one make of supply is spoken to; `{}` stands for the number. */
export interface SupplyCommands {
  readonly identify: string
  readonly setVolts: string
  readonly setAmpsLimit: string
  readonly outputOn: string
  readonly outputOff: string
  readonly polarityNormal: string
  readonly polarityReversed: string
  readonly measureVolts: string
  readonly measureAmps: string
  readonly nextError: string
  /** Empty where it has no watchdog. */
  readonly watchdog: string
  /** To record a stretch of so many seconds, to read it as volts and amps in turn, and its rate; empty where it cannot. */
  readonly record: string
  readonly recorded: string
  readonly recordRate: string
  /** To give AC of so many Hz, 0 for DC; empty or missing where it cannot. */
  readonly frequency?: string
}

export const usualCommands: SupplyCommands = {
  identify: '*IDN?',
  setVolts: 'VOLT {}',
  setAmpsLimit: 'CURR {}',
  outputOn: 'OUTP ON',
  outputOff: 'OUTP OFF',
  polarityNormal: 'OUTP:POL NORM',
  polarityReversed: 'OUTP:POL INV',
  measureVolts: 'MEAS:VOLT?',
  measureAmps: 'MEAS:CURR?',
  nextError: 'SYST:ERR?',
  watchdog: 'OUTP:WATC {}',
  record: 'TRAC:REC {}',
  recorded: 'TRAC:DATA?',
  recordRate: 'TRAC:RATE?',
  frequency: 'FREQ {}',
}
