import { Type, type Static } from 'typebox'
import { ByKind, closed, Id, Line, NeededLine, OneOf, OrNull } from './parts'
import { stationIds } from './vocabulary'

/** When a part was photographed: before it came off, lying open, or as it went back. */
export const photographMoments = { off: 'coming off', back: 'going back' } as const

/** What a photograph shows, so that it stands where it is wanted: at a part's step, or at a finding. */
export const PhotographSubject = ByKind(
  Type.Union([
    Type.Object({ kind: Type.Literal('part'), part: NeededLine(120), moment: OneOf(photographMoments) }, closed),
    Type.Object({ kind: Type.Literal('finding'), finding: Id }, closed),
  ]),
)
export type PhotographSubject = Static<typeof PhotographSubject>

/** A place in the picture: shares of its width and height, from the upper left. */
const Share = Type.Number({ minimum: 0, maximum: 1 })

/** A ring or an arrow put on a spot, with words. A ring runs through `to`; an arrow comes from there and points at the spot. */
export const PhotographMark = Type.Object(
  {
    shape: OneOf({ ring: 'Ring', arrow: 'Arrow' }),
    x: Share,
    y: Share,
    toX: Share,
    toY: Share,
    words: Line(80),
  },
  closed,
)
export type PhotographMark = Static<typeof PhotographMark>

export const MOST_MARKS = 12

/** What is said of a photograph; its bytes are never changed. */
export const PhotographFields = Type.Object(
  {
    caption: Line(200),
    about: OrNull(PhotographSubject),
    marks: Type.Array(PhotographMark, { maxItems: MOST_MARKS }),
  },
  closed,
)
export type PhotographFields = Static<typeof PhotographFields>

/** Where a phone's pictures are to stand: what the bench has in hand. */
export const PhoneAim = Type.Object(
  { station: OneOf(stationIds), about: OrNull(PhotographSubject), words: Line(200) },
  closed,
)
export type PhoneAim = Static<typeof PhoneAim>
