import type { EngineTypeFields, JobFields } from '../../messages/book-entries'
import type { SheetFields } from '../../messages/bench-entries'
import type { ReadingFields } from '../../messages/readings/reading-kinds'

export const emptyEngineType: EngineTypeFields = {
  maker: 'Kestering',
  name: 'Orrin tank',
  variantMarks: '',
  yearsMade: '',
  gaugeMm: 16.5,
  scaleId: '00',
  power: 'dc',
  nominalVolts: 12,
  construction: 'tank-can',
  motorKind: 'open-frame',
  poles: 3,
  gearRatio: 30,
  wheelDiameterMm: 15,
  pickupLayout: '',
  notes: '',
}

export const someJob: JobFields = {
  complaint: 'Stops on the turnout',
  trial: '',
  trialAttempts: 10,
  wanted: '',
  moneyLimit: null,
  sentimental: false,
  consent: '',
  conditionOnArrival: '',
  dueOn: null,
  estimateMinutes: 60,
  arrivals: [],
}

export const someSheet: SheetFields = {
  station: 'first-run',
  withMeter: true,
  roomCelsius: 20,
  warmedUp: false,
  supply: 'smooth-dc',
  voltageMeterId: null,
  currentMeterId: null,
  remarks: '',
}

export function runningReading(volts: number, milliamps: number): Extract<ReadingFields, { kind: 'running' }> {
  return {
    kind: 'running',
    direction: 'forward',
    vouched: false,
    quantities: {
      voltage: { typed: String(volts), value: volts, resolution: 0.1, meter: null },
      current: { typed: String(milliamps), value: milliamps / 1000, resolution: 0.001, meter: null },
    },
  }
}
