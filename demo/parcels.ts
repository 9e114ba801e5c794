import { v7 as newId } from 'uuid'
import type { ParcelFields } from '../messages/parcel-entries'

/** Parcels with several engines, and what lay loose in them. */
export interface DemoParcel {
  readonly owner: string
  readonly daysAgo: number
  readonly came: string
  readonly condition: string
  /** Keys of the engines that came in it, as far as they are on the bench. */
  readonly engines: readonly string[]
  readonly items: ReadonlyArray<{
    readonly what: string
    readonly held: string
    /** Key of the engine it belongs to. */
    readonly of: string | null
    readonly borrowed: boolean
  }>
}

export const parcels: readonly DemoParcel[] = [
  {
    owner: 'Kwame Asantegra',
    daysAgo: 9,
    came: 'by post, a wine carton with newspaper',
    condition: 'One corner crushed; nothing rattled. The lid of the smaller box had come open.',
    engines: ['glen-15', 'ridge-55'],
    items: [
      {
        what: 'Paper bag marked “15”',
        held: 'Five screws of two lengths, two fibre washers, a brush spring',
        of: 'glen-15',
        borrowed: false,
      },
      { what: 'Handrail, bent', held: '', of: 'ridge-55', borrowed: false },
      {
        what: 'Tender of another engine',
        held: 'A weight of lead wire',
        of: 'glen-15',
        borrowed: true,
      },
    ],
  },
]

/** @param jobOf by key of the engine its job; empty before there is one */
export function parcelFields(
  { came, condition, items }: DemoParcel,
  ownerId: string,
  jobOf: ReadonlyMap<string, string>,
  arrived: Date,
): ParcelFields {
  return {
    ownerId,
    arrivedOn: arrived.toISOString().slice(0, 10),
    came,
    condition,
    items: items.map(({ of, ...item }) => ({ id: newId(), ...item, jobId: (of && jobOf.get(of)) || null })),
    packed: [],
    sentBackOn: null,
    remarks: '',
  }
}
