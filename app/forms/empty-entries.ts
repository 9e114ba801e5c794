import { v7 as newId } from 'uuid'
import type { ParcelFields } from '~~/messages/parcel-entries'
import type { EngineFields, EngineTypeFields, JobFields, OwnerFields } from '~~/messages/book-entries'

/** What a new entry holds before anything is typed. */
export const emptyOwner = (): OwnerFields => ({ name: '', email: '', phone: '', address: '', notes: '', isShop: false })

export const emptyType = (): EngineTypeFields => ({
  maker: '',
  name: '',
  variantMarks: '',
  yearsMade: '',
  gaugeMm: 16.5,
  scaleId: 'h0-87',
  power: 'dc',
  nominalVolts: 12,
  construction: 'other',
  motorKind: 'unknown',
  poles: null,
  gearRatio: null,
  wheelDiameterMm: null,
  pickupLayout: '',
  notes: '',
})

export const emptyEngine = (): Omit<EngineFields, 'ownerId' | 'typeId'> => ({
  nickname: '',
  runningNumber: '',
  marks: '',
  condition: '',
  history: '',
  differences: '',
  units: [{ id: newId(), name: 'Locomotive', powered: true, marks: '' }],
})

export const emptyJob = (): JobFields => ({
  complaint: '',
  trial: '',
  trialAttempts: 10,
  wanted: '',
  moneyLimit: null,
  sentimental: false,
  consent: '',
  conditionOnArrival: '',
  dueOn: null,
  estimateMinutes: null,
  arrivals: [],
  told: [],
  past: null,
})

export const emptyParcel = (ownerId: string): Omit<ParcelFields, 'arrivedOn'> => ({
  ownerId,
  came: '',
  condition: '',
  items: [],
  packed: [],
  sentBackOn: null,
  remarks: '',
})
