/** A key pressed again before its first press is on the screen means the same thing: what is under way is not begun twice. */
export function useOnce() {
  const underWay = new Set<string>()
  return async (what: string, run: () => Promise<void>): Promise<void> => {
    if (underWay.has(what)) return
    underWay.add(what)
    try {
      await run()
      await nextTick()
    } finally {
      underWay.delete(what)
    }
  }
}
