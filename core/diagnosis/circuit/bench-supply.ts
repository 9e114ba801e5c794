import type { EngineDescription } from '../../engine/description-schema'

/** What runs an engine on the bench: it gives so many volts, and gives way at so many amperes. */
export interface BenchSupply {
  readonly volts: number
  readonly limitAmps: number
}

/** A small DC supply, or the transformer of a three-rail machine: common practice. */
export const supplies: Readonly<Record<EngineDescription['power'], BenchSupply>> = {
  dc: { volts: 9, limitAmps: 2 },
  dcc: { volts: 9, limitAmps: 2 },
  ac: { volts: 14, limitAmps: 4 },
}

/** Ω of a supply with its leads. */
export const SUPPLY_OHMS = 0.1
/** Ω of one with a poor joint on the way to the rails: from memory. */
export const POOR_SUPPLY_OHMS = 120
