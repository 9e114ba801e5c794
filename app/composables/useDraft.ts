import { plainCopy } from '~/forms/plain-copy'
/**
 * What is being typed, kept in this browser at every keystroke until it is sent. A closed tab or an empty
 * battery loses nothing. `handOver` passes it on and frees the form at once for the next entry; `clear` throws it
 * away.
 *
 * @param key unique for the form, with the id of what it belongs to
 * @param initial what an empty form holds
 */
export function useDraft<T extends object>(key: string, initial: () => T) {
  const storageKey = `echoppe.draft.${key}`
  const leavingKey = `${storageKey}.leaving`
  const draft = ref<T>(read()) as Ref<T>
  let leaving = 0

  function read(): T {
    try {
      // Something left the form but never arrived in the queue: the page died in between.
      const kept = localStorage.getItem(storageKey) ?? localStorage.getItem(leavingKey)
      localStorage.removeItem(leavingKey)
      return kept ? { ...initial(), ...(JSON.parse(kept) as T) } : initial()
    } catch {
      return initial()
    }
  }

  const stop = watch(
    draft,
    (value) => {
      if (JSON.stringify(value) === JSON.stringify(initial())) localStorage.removeItem(storageKey)
      else remember(storageKey, JSON.stringify(value))
    },
    { deep: true, flush: 'sync' },
  )
  onScopeDispose(stop)

  const touched = computed(() => JSON.stringify(draft.value) !== JSON.stringify(initial()))
  function clear(): void {
    draft.value = initial()
  }

  /**
   * Empties the form and gives what it held to `keep`, so that the next entry can be typed, and a second press of
   * the key finds nothing to send, while the first is being put away. When it cannot be kept it is put back.
   */
  async function handOver(keep: (value: T) => Promise<void>): Promise<void> {
    const value = plainCopy(draft.value) as T
    remember(leavingKey, JSON.stringify(value))
    leaving += 1
    clear()
    const emptied = JSON.stringify(draft.value)
    const untouched = (): boolean => JSON.stringify(draft.value) === emptied
    try {
      await keep(value)
      // What was handed over may be what the form now starts from.
      if (untouched()) clear()
    } catch (error) {
      if (untouched()) draft.value = value
      throw error
    } finally {
      leaving -= 1
      if (leaving === 0) localStorage.removeItem(leavingKey)
    }
  }
  return { draft, touched, clear, handOver }
}

function remember(storageKey: string, text: string): void {
  try {
    localStorage.setItem(storageKey, text)
  } catch {
    // Storage full or forbidden: the form still works, only a closed tab would lose it.
  }
}

/** Whether something is being typed into a form that may not be on the screen. */
export const isDrafted = (key: string): boolean => localStorage.getItem(`echoppe.draft.${key}`) !== null

/** Puts something back into a form that is not on the screen. */
export function keepDraft(key: string, value: object): void {
  localStorage.setItem(`echoppe.draft.${key}`, JSON.stringify(value))
}
