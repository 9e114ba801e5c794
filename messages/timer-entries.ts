import { Type, type Static } from 'typebox'
import { closed, Id, Instant, NeededLine, OneOf, OrNull } from './parts'
import { stationIds } from './vocabulary'

/** A wait at the bench: glue, a bath, drying, a run-in. It belongs to its job, if it has one. */
export const TimerFields = Type.Object(
  {
    jobId: OrNull(Id),
    /** The station it was begun at. */
    station: OrNull(OneOf(stationIds)),
    label: NeededLine(120),
    /** By the server's clock, as the screen that began it reckons that: a device's own may be wrong. */
    endsAt: Instant,
  },
  closed,
)
export type TimerFields = Static<typeof TimerFields>
