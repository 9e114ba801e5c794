/**
 * The messages of the long forms: each is checked in the browser before it leaves its form, by the schema the server
 * will hold it against, so that nobody reads of a number too large when the form is long gone.
 */
export const formMessages = [
  'owner.save',
  'engine-type.save',
  'engine.save',
  'component.save',
  'job.take-in',
  'job.edit',
] as const
export type FormMessage = (typeof formMessages)[number]
