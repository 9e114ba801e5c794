import type { SimulatedSupply } from './simulated-supply'
import type { SweepInstrument } from './sweep-steps'

/**
 * The simulated supply spoken to directly, without a line between.
 *
 * @param said every command told, in order
 */
export function spokenTo(supply: SimulatedSupply, said: string[] = []): Required<SweepInstrument> {
  const tell = (line: string): Promise<void> => {
    said.push(line)
    supply.execute(line)
    return Promise.resolve()
  }
  const read = (query: string): Promise<number> => Promise.resolve(Number(supply.execute(query)))
  return {
    setVolts: (volts) => tell(`VOLT ${volts}`),
    setAmpsLimit: (amps) => tell(`CURR ${amps}`),
    output: (on) => tell(`OUTP ${on ? 'ON' : 'OFF'}`),
    reverse: (reversed) => tell(`OUTP:POL ${reversed ? 'INV' : 'NORM'}`),
    setHertz: (hertz) => tell(`FREQ ${hertz}`),
    measureVolts: () => read('MEAS:VOLT?'),
    measureAmps: () => read('MEAS:CURR?'),
    async record(seconds) {
      await tell(`TRAC:REC ${seconds}`)
      return {
        rate: await read('TRAC:RATE?'),
        amps: (supply.execute('TRAC:DATA?') ?? '')
          .split(',')
          .map(Number)
          .filter((_, index) => index % 2 === 1),
      }
    },
  }
}
