/** The supply turns its output off when nobody speaks to it so long: the server may have died. */
export const WATCHDOG_SECONDS = 2
