/** Books whose pages are a screen of their own, by the path of the screen. */
const BOOK_OF_SCREEN = /^\/(engines|owners|parcels)\/([0-9a-f-]{36})(\/|$)/

const begun = new Map<string, Promise<unknown>>()

/**
 * The book of the screen an address leads to is read while the server says who is there and the screen's code comes;
 * whoever is not let in gets nothing, and reads it again once signed in.
 *
 * @param path of the screen
 */
export function readAhead(path: string): void {
  const [, books, id] = BOOK_OF_SCREEN.exec(path) ?? []
  if (books === undefined) return
  const address = `/api/${books}/${id}`
  const read = ($fetch as (from: string) => Promise<unknown>)(address)
  begun.set(address, read)
  read.catch(() => begun.delete(address))
  // What was waiting and is through by now may not be in it.
  const stop = useOutbox().onAcknowledged(() => {
    begun.delete(address)
    stop()
  })
}

/** What an address holds: what was begun to be read, once, or read now. */
export function readOf(address: string): Promise<unknown> {
  const read = begun.get(address)
  begun.delete(address)
  // Which of all routes it is the compiler need not find out.
  return read ?? ($fetch as (from: string) => Promise<unknown>)(address)
}
