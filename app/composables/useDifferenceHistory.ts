import type { Difference } from '~~/core/engine/difference-schema'

/** One list of differences with its undo and redo: every step is written to the book at once, and can be taken back. */
export function useDifferenceHistory(
  current: () => readonly Difference[],
  write: (next: readonly Difference[]) => Promise<void>,
) {
  const past = shallowRef<ReadonlyArray<readonly Difference[]>>([])
  const future = shallowRef<ReadonlyArray<readonly Difference[]>>([])

  async function change(next: readonly Difference[]): Promise<void> {
    past.value = [...past.value, [...current()]]
    future.value = []
    await write(next)
  }
  async function step(from: typeof past, to: typeof future): Promise<void> {
    const last = from.value.at(-1)
    if (!last) return
    from.value = from.value.slice(0, -1)
    to.value = [...to.value, [...current()]]
    await write(last)
  }
  function forget(): void {
    past.value = []
    future.value = []
  }
  return {
    change,
    forget,
    undo: () => step(past, future),
    redo: () => step(future, past),
    mayUndo: computed(() => past.value.length > 0),
    mayRedo: computed(() => future.value.length > 0),
  }
}
