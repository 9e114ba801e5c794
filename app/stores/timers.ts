import { defineStore } from 'pinia'
import { v7 as newId } from 'uuid'
import type { TimerBook } from '~~/messages/book'
import { timersWith } from '~~/messages/changes'
import type { StationId } from '~~/messages/vocabulary'
import { withPending } from './pending-overlay'

/** How often it is asked what others have begun or stopped: a wait lasts minutes. */
const ASK_EVERY_MS = 10_000

/**
 * The waits of the shop, on every screen, by the server's clock: how far this device's is off is measured at each
 * answer, and a tick counts on from there even where that clock is set meanwhile.
 */
export const useTimerStore = defineStore('timers', () => {
  const outbox = useOutbox()
  const stored = shallowRef<Pick<TimerBook, 'timers'>>({ timers: [] })
  const dialogOpen = ref(false)
  /** What the server's clock says, ms since 1970. */
  const now = ref(Date.now())
  let heard = { server: Date.now(), here: performance.now() }
  const serverNow = (): number => heard.server + performance.now() - heard.here

  const timers = computed(
    () =>
      withPending(stored.value, outbox.entries, (book, changes) => ({ timers: timersWith(book.timers, changes) }))
        .timers,
  )
  const ringing = computed(() => timers.value.filter((timer) => Date.parse(timer.endsAt) <= now.value))

  async function load(): Promise<void> {
    if (document.hidden && timers.value.length === 0) return
    try {
      const asked = performance.now()
      const book = await $fetch<TimerBook>('/api/timers')
      const here = performance.now()
      // The answer was written somewhere between asking and hearing.
      heard = { server: Date.parse(book.now), here: (asked + here) / 2 }
      stored.value = { timers: book.timers }
    } catch {
      // What is known goes on running; it is asked again in a moment.
    }
  }
  let clock: ReturnType<typeof setInterval> | undefined
  function start(): void {
    if (clock) return
    clock = setInterval(() => {
      now.value = serverNow()
    }, 500)
    setInterval(() => void load(), ASK_EVERY_MS)
    useEventListener(document, 'visibilitychange', () => void load())
    void load()
  }
  outbox.onAcknowledged((_lane, changes) => {
    if (changes.timers) stored.value = { timers: timersWith(stored.value.timers, changes) }
  })

  /** Begins a wait of so many minutes, for a job's station or for nobody's. */
  function begin(label: string, minutes: number, at: { jobId: string; station: StationId } | null): Promise<void> {
    const endsAt = new Date(serverNow() + minutes * 60_000).toISOString()
    now.value = serverNow()
    const fields = { jobId: at?.jobId ?? null, station: at?.station ?? null, label, endsAt }
    return outbox.send('timer.begin', { id: newId(), fields })
  }
  const stop = (id: string): Promise<void> => outbox.send('timer.stop', { id })
  return { timers, ringing, now, dialogOpen, start, begin, stop }
})
