import type { NoteRow } from '../messages/book'

/** Minutes of the notes that stand: a corrected note counts once. */
export function minutesUsed(notes: readonly NoteRow[]): number {
  const superseded = new Set(notes.map((note) => note.supersedesId))
  return notes.filter((note) => !superseded.has(note.id)).reduce((sum, note) => sum + note.minutes, 0)
}
