/** A table that stands in the database while its tables are being changed, and says what to go back to. Not part of the book. */
export const CHANGE_MARK = 'echoppe_update'
