import { carePointKinds } from '../engine/description-schema'

/** Every kind of point that a lubricant, or none, can be named for; rollers and felt pads are told by the part they are. */
export const lubricationPoints = [...carePointKinds, 'roller-spindle', 'felt-pad'] as const
export type LubricationPointKind = (typeof lubricationPoints)[number]
