import { Type, type TSchema } from '@sinclair/typebox'

/** Pieces from which the messages are made. Patterns instead of formats, so a compiled validator needs nothing else. */

export const Id = Type.String({ pattern: '^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$', description: 'uuid v7' })
export const Instant = Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}T\\d{2}:\\d{2}:\\d{2}(\\.\\d{1,3})?Z$', description: 'UTC instant' })
export const Day = Type.String({ pattern: '^\\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\\d|3[01])$', description: 'calendar day' })

export const Line = (maxLength = 200) => Type.String({ maxLength })
export const NeededLine = (maxLength = 200) => Type.String({ minLength: 1, maxLength, pattern: '\\S' })
export const Prose = Type.String({ maxLength: 8000 })
export const Minutes = Type.Integer({ minimum: 0, maximum: 60_000 })
/** Money in the smallest unit of the shop's currency. */
export const Money = Type.Integer({ minimum: 0, maximum: 100_000_000 })

export const OrNull = <T extends TSchema>(schema: T) => Type.Union([schema, Type.Null()])

export function OneOf<K extends string>(values: Readonly<Record<K, unknown>> | readonly K[]) {
  const keys = (Array.isArray(values) ? values : Object.keys(values)) as K[]
  return Type.Unsafe<K>({ type: 'string', enum: keys })
}

export const closed = { additionalProperties: false } as const
