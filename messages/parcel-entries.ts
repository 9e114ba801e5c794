import { Type, type Static } from 'typebox'
import { closed, Day, Id, Line, NeededLine, OrNull, Prose } from './parts'

/** A parcel with several engines: how it came, what lay loose in it, and what of it is packed again. */

export const ParcelItem = Type.Object(
  {
    id: Id,
    what: NeededLine(200),
    /** What was in the bag or box. */
    held: Line(400),
    /** The job it belongs to, where that is known. */
    jobId: OrNull(Id),
    /** Lent for the work, a tender or a shell of another engine: it goes back whatever becomes of the job. */
    borrowed: Type.Boolean(),
  },
  closed,
)
export type ParcelItem = Static<typeof ParcelItem>

export const ParcelFields = Type.Object(
  {
    ownerId: Id,
    arrivedOn: Day,
    /** By post, by hand, in which box. */
    came: Line(200),
    condition: Prose,
    items: Type.Array(ParcelItem, { maxItems: 200 }),
    /** Of engines the job, of loose things their own id: what lies in the box that goes back. */
    packed: Type.Array(Id, { maxItems: 400 }),
    sentBackOn: OrNull(Day),
    /** Why something stays behind. */
    remarks: Line(400),
  },
  closed,
)
export type ParcelFields = Static<typeof ParcelFields>
