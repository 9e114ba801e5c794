import type { EngineTypeFields } from '../shared/messages/book-entries'
import type { EngineLooks } from './draw-photograph'

/** Invented makers and types on invented railways, each of a generic construction, with the motor's usual constants. */
export interface DemoType {
  readonly key: string
  readonly fields: EngineTypeFields
  /** Healthy motor and drag, from which the demo's readings are made. */
  readonly motor: { readonly resistance: number; readonly backEmf: number; readonly restCurrent: number; readonly currentPerSpeed: number }
  /** As it is drawn in the demo's photographs. */
  readonly looks: EngineLooks
}

const type = (key: string, maker: string, name: string, rest: Partial<EngineTypeFields>, motor: DemoType['motor'], looks: EngineLooks): DemoType => ({
  key,
  fields: {
    maker, name, variantMarks: '', yearsMade: '', gaugeMm: 16.5, scaleId: 'h0-87', power: 'dc', nominalVolts: 12, construction: 'other', motorKind: 'open-frame', poles: 3,
    gearRatio: null, wheelDiameterMm: null, pickupLayout: '', notes: '', ...rest,
  },
  motor,
  looks,
})

export const engineTypes: readonly DemoType[] = [
  type('orrin', 'Kestering', 'Orrin tank 0-6-0', { yearsMade: '1958 to 1971', variantMarks: 'Block magnet, brass bunker rail', construction: 'tank-open', motorKind: 'open-frame', gearRatio: 30, wheelDiameterMm: 15.2, gaugeMm: 16.5, scaleId: '00', pickupLayout: 'Wipers on three wheel backs of the right side; return through the frame', notes: 'The hidden screw sits under the chimney.' }, { resistance: 24, backEmf: 0.0094, restCurrent: 0.11, currentPerSpeed: 2.2e-5 }, { steam: true, axles: 3 }),
  type('vale', 'Kestering', 'Vale mixed traffic 4-6-0', { yearsMade: '1963 to 1978', construction: 'tender-pickup', motorKind: 'open-frame', poles: 5, gearRatio: 28, wheelDiameterMm: 22.6, scaleId: '00', pickupLayout: 'Locomotive collects right, tender left; drawbar carries the left rail', notes: 'Drawbar pin oxidises: measure across it first.' }, { resistance: 21, backEmf: 0.0102, restCurrent: 0.13, currentPerSpeed: 2.5e-5 }, { steam: true, axles: 5 }),
  type('saltmark', 'Wexmoor', 'Saltmark diesel Bo-Bo', { yearsMade: '1966 to 1984', construction: 'side-brush-bogie', motorKind: 'side-brush', gearRatio: 14.8, wheelDiameterMm: 11, pickupLayout: 'Motor bogie collects left, trailing bogie right; two tyres on the motor bogie' }, { resistance: 16, backEmf: 0.0088, restCurrent: 0.16, currentPerSpeed: 4e-5 }, { steam: false, axles: 4 }),
  type('harbour', 'Wexmoor', 'Harbour shunter C', { yearsMade: '1970 to 1981', construction: 'side-brush-bogie', motorKind: 'side-brush', gearRatio: 24, wheelDiameterMm: 10.2, pickupLayout: 'All six wheels, wipers on the backs' }, { resistance: 18, backEmf: 0.0086, restCurrent: 0.14, currentPerSpeed: 3.6e-5 }, { steam: false, axles: 3 }),
  type('ridge', 'Lunadorf', 'Ridge diesel Co-Co', { yearsMade: '1979 to 1995', construction: 'centre-motor', motorKind: 'can', poles: 5, gearRatio: 15, wheelDiameterMm: 12.1, pickupLayout: 'All axles of both bogies, bronze strips on the treads' }, { resistance: 14, backEmf: 0.0075, restCurrent: 0.12, currentPerSpeed: 3e-5 }, { steam: false, axles: 6 }),
  type('railbus', 'Lunadorf', 'Two-axle railbus', { yearsMade: '1974 to 1986', construction: 'motor-bogie-unit', motorKind: 'can', gearRatio: 18, wheelDiameterMm: 10.5, pickupLayout: 'Live wheels on one side of each axle' }, { resistance: 26, backEmf: 0.0069, restCurrent: 0.08, currentPerSpeed: 2e-5 }, { steam: false, axles: 2 }),
  type('fjell', 'Ostmark & Brye', 'Fjell mallet', { yearsMade: '1981 to 1992', construction: 'articulated', motorKind: 'can', poles: 5, gearRatio: 34, wheelDiameterMm: 13.4, pickupLayout: 'Both trucks collect both rails, six points a rail' }, { resistance: 12, backEmf: 0.0082, restCurrent: 0.2, currentPerSpeed: 4.5e-5 }, { steam: true, axles: 6 }),
  type('glen', 'Brisk & Tolley', 'Glen railcar', { yearsMade: '1988 to 2001', power: 'dcc', gaugeMm: 32, scaleId: '0-45', construction: 'axle-cup', motorKind: 'can', poles: 5, gearRatio: 12, wheelDiameterMm: 22, pickupLayout: 'Axle ends in metal cups, eight points' }, { resistance: 8.5, backEmf: 0.012, restCurrent: 0.18, currentPerSpeed: 4e-5 }, { steam: false, axles: 4 }),
  type('moor', 'Brisk & Tolley', 'Moor narrow-gauge 0-4-0', { yearsMade: '1985 to 1999', gaugeMm: 9, scaleId: 'h0-87', construction: 'narrow-gauge', motorKind: 'can', gearRatio: 40, wheelDiameterMm: 8.4, pickupLayout: 'Four wheels, wipers on the backs' }, { resistance: 32, backEmf: 0.0058, restCurrent: 0.05, currentPerSpeed: 1.4e-5 }, { steam: true, axles: 2 }),
  type('pilgrim', 'Ferrovella', 'Pilgrim Pacific, split frame', { yearsMade: '1976 to 1988', gaugeMm: 9, scaleId: 'n-160', construction: 'split-frame', motorKind: 'open-frame', poles: 5, gearRatio: 26, wheelDiameterMm: 11.5, pickupLayout: 'Frame halves are the poles; six drivers each side' }, { resistance: 30, backEmf: 0.0064, restCurrent: 0.09, currentPerSpeed: 2.6e-5 }, { steam: true, axles: 6 }),
  type('tarn', 'Ferrovella', 'Tarn electric B-B', { yearsMade: '1969 to 1983', gaugeMm: 12, scaleId: 'tt-120', construction: 'side-brush-bogie', motorKind: 'side-brush', gearRatio: 16, wheelDiameterMm: 9.8, pickupLayout: 'Trucks collect one rail each; roof return switch' }, { resistance: 20, backEmf: 0.0074, restCurrent: 0.11, currentPerSpeed: 3e-5 }, { steam: false, axles: 4 }),
  type('kontor', 'Halbrook', 'Kontor 2-6-4 three-rail', { yearsMade: '1952 to 1964', power: 'ac', nominalVolts: 16, gaugeMm: 16.5, scaleId: 'h0-87', construction: 'three-rail-single', motorKind: 'ac-series', poles: 3, pickupLayout: 'Centre shoe; both rails return', notes: 'Lock-out lever under the cab.' }, { resistance: 9, backEmf: 0.02, restCurrent: 0.4, currentPerSpeed: 0 }, { steam: true, axles: 6 }),
  type('atlas', 'Halbrook', 'Gauge O twin-motor diesel', { yearsMade: '1955 to 1966', power: 'ac', nominalVolts: 18, gaugeMm: 32, scaleId: '0-48', construction: 'three-rail-twin', motorKind: 'ac-series', poles: 3, pickupLayout: 'Two centre rollers; horn relay' }, { resistance: 3, backEmf: 0.04, restCurrent: 1.1, currentPerSpeed: 0 }, { steam: false, axles: 4 }),
]
