import { Type, type TSchema } from 'typebox'

/** Pieces from which every schema is made. */

/** No more fields than are named. */
export const closed = { additionalProperties: false } as const

export const OrNull = <T extends TSchema>(schema: T) => Type.Union([schema, Type.Null()])

/** One of these words, or of the keys of a table of words. */
export function OneOf<const K extends string>(values: Readonly<Record<K, unknown>> | readonly K[]) {
  const keys = (Array.isArray(values) ? [...values] : Object.keys(values)) as K[]
  return Type.Unsafe<K>({ type: 'string', enum: keys })
}
