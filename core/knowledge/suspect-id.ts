/** A suspect is a fault at a place; the book keeps it by this one name. A fault's own id has no “@” in it. */
export const suspectId = (fault: string, place: string): string => `${fault}@${place}`

/**
 * The fault of a suspect as the book keeps it.
 *
 * @example faultOfSuspect('tyre-perished@tyres') // 'tyre-perished'
 */
export const faultOfSuspect = (suspect: string): string => suspect.split('@', 1)[0] ?? suspect
