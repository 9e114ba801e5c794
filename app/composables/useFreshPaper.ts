import { until } from '@vueuse/core'

const LONGEST_WAIT_MS = 4000

/**
 * For links to what the server prints. Paper made while something entered is still on its way would lack it: the link
 * waits for that, and where it takes long nothing is opened and it is said.
 */
export function useFreshPaper() {
  const outbox = useOutbox()
  const late = ref(false)
  async function open(event: MouseEvent): Promise<void> {
    late.value = false
    if (outbox.waiting.length === 0) return
    const { href } = event.currentTarget as HTMLAnchorElement
    event.preventDefault()
    await until(() => outbox.waiting.length).toBe(0, { timeout: LONGEST_WAIT_MS })
    if (outbox.waiting.length === 0) window.open(href, '_blank', 'noopener')
    else late.value = true
  }
  return { open, late, words: 'What you entered has not reached the server yet, and the paper would lack it.' }
}
