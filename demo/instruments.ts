import { usualCommands } from '../bench/supply/supply-commands'
import type { InstrumentFields } from '../messages/bench-entries'

const simulated = (name: string, leadOhms: number): InstrumentFields => ({
  name,
  kind: 'simulated',
  host: '',
  port: 5025,
  leadOhms,
  commands: { ...usualCommands },
  voltage: { percentOfReading: 0.05, digits: 2, resolution: 0.001 },
  current: { percentOfReading: 0.1, digits: 3, resolution: 0.0001 },
  retired: false,
})

/** The bench supplies of the demo shop: simulated ones. */
export const instruments: readonly InstrumentFields[] = [
  simulated('Simulated bench supply', 0.05),
  simulated('Simulated supply by the window', 0.08),
]
