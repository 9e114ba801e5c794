import { jobSlices, type JobBook, type LoadedJob } from '~~/messages/book'

/**
 * A job's book as a screen draws it: a slice it did not ask for is a mistake of that screen and is said, where an
 * empty list would pass for the truth.
 */
export function loadedOnly(book: LoadedJob): JobBook {
  const missing = jobSlices.filter((slice) => book[slice] === undefined)
  const guards = missing.map(
    (slice) =>
      [
        slice,
        {
          enumerable: false,
          get(): never {
            throw new Error(`The slice “${slice}” of this job was not asked for by the screen that draws it.`)
          },
        },
      ] as const,
  )
  return Object.defineProperties({ ...book }, Object.fromEntries(guards)) as JobBook
}
