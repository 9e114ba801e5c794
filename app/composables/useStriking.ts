/** Strikes an entry out, and each but once: a second press before the first is seen would be refused. */
export function useStriking(add: (entry: { kind: 'struck'; entryId: string; words: string }) => Promise<void>) {
  const asked = new Set<string>()
  return async (entryId: string, words: string): Promise<void> => {
    if (asked.has(entryId)) return
    asked.add(entryId)
    await add({ kind: 'struck', entryId, words })
  }
}
