import { Type, type Static, type TUnion } from 'typebox'

export { closed, OneOf, OrNull } from '../core/schema/pieces'

/** Pieces from which the messages are made. */

export const Id = Type.String({
  pattern: '^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$',
  description: 'uuid v7',
})
/** An instant that has been or will be, within the working life of the program. */
export const Instant = Type.String({
  pattern: '^\\d{4}-\\d{2}-\\d{2}T\\d{2}:\\d{2}:\\d{2}(\\.\\d{1,3})?Z$',
  format: 'date-time',
  formatMinimum: '2000-01-01T00:00:00Z',
  formatMaximum: '2199-12-31T23:59:59Z',
  description: 'UTC instant',
})
/** A day of the calendar in the age of electric models and a while beyond. */
export const Day = Type.String({
  pattern: '^\\d{4}-\\d{2}-\\d{2}$',
  format: 'date',
  formatMinimum: '1850-01-01',
  formatMaximum: '2199-12-31',
  description: 'calendar day',
})

export const Line = (maxLength = 200) => Type.String({ maxLength })
/** A line with something to be seen in it: a letter, a digit, a sign. Spaces of no width are none. */
export const NeededLine = (maxLength = 200) =>
  Type.String({ minLength: 1, maxLength, pattern: '[\\p{L}\\p{N}\\p{P}\\p{S}]' })
export const Prose = Type.String({ maxLength: 8000 })
export const Minutes = Type.Integer({ minimum: 0, maximum: 60_000 })
/** Money in the smallest unit of the shop's currency. */
export const Money = Type.Integer({ minimum: 0, maximum: 100_000_000 })

/** One of several forms told apart by their `kind`: what is wrong is said of the form that was meant. */
export const ByKind = <T extends TUnion>(forms: T) =>
  Type.Unsafe<Static<T>>({ type: 'object', discriminator: { propertyName: 'kind' }, oneOf: forms.anyOf })
