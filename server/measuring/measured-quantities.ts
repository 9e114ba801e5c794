import type { InstrumentRow } from '../../messages/book'
import type { RecordedQuantity } from '../../messages/readings/recorded-quantity'

/** Volts and amps as an instrument read them, with its accuracy as it is now; what the leads lose is not the engine's. */
export function measuredQuantities(
  row: InstrumentRow,
  terminalVolts: number,
  signedAmps: number,
): { volts: number; amps: number; quantities: { voltage: RecordedQuantity; current: RecordedQuantity } } {
  const amps = Math.abs(signedAmps)
  const volts = Math.abs(terminalVolts) - amps * row.leadOhms
  return {
    volts,
    amps,
    quantities: { voltage: quantity(row, volts, row.voltage, 3), current: quantity(row, amps, row.current, 4) },
  }
}

function quantity(
  row: InstrumentRow,
  value: number,
  { percentOfReading, resolution, digits }: InstrumentRow['voltage'],
  places: number,
): RecordedQuantity {
  return {
    typed: '',
    value: Number(value.toFixed(places + 1)),
    resolution,
    meter: { id: row.id, name: row.name, percentOfReading, digits },
  }
}
