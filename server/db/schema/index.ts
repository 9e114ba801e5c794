/** The tables of the book, room by room. */
export * from './shop'
export * from './engines'
export * from './jobs'
export * from './bench-work'
export * from './photographs'
export * from './timers-and-journal'
export * from './care'
export * from './parcels'
