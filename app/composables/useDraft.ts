/**
 * What is being typed, kept in this browser at every keystroke until it is sent. A closed tab or an empty
 * battery loses nothing. `clear` forgets it once the entry is in the queue.
 *
 * @param key unique for the form, with the id of what it belongs to
 * @param initial what an empty form holds
 */
export function useDraft<T extends object>(key: string, initial: () => T) {
  const storageKey = `echoppe.draft.${key}`
  const draft = ref<T>(read()) as Ref<T>

  function read(): T {
    try {
      const kept = localStorage.getItem(storageKey)
      return kept ? { ...initial(), ...JSON.parse(kept) as T } : initial()
    } catch {
      return initial()
    }
  }

  const stop = watch(draft, (value) => {
    try {
      if (JSON.stringify(value) === JSON.stringify(initial())) localStorage.removeItem(storageKey)
      else localStorage.setItem(storageKey, JSON.stringify(value))
    } catch {
      // Storage full or forbidden: the form still works, only a closed tab would lose it.
    }
  }, { deep: true, flush: 'sync' })
  onScopeDispose(stop)

  const touched = computed(() => JSON.stringify(draft.value) !== JSON.stringify(initial()))
  function clear(): void {
    draft.value = initial()
  }
  return { draft, touched, clear }
}

/** Puts something back into a form that is not on the screen. */
export function keepDraft(key: string, value: object): void {
  localStorage.setItem(`echoppe.draft.${key}`, JSON.stringify(value))
}
