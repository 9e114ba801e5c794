import { defineStore } from 'pinia'
import type { JobBook } from '~~/shared/book'
import { withPending } from './pending-overlay'

/** The job on the screen: as the server has it, with what waits laid over it. */
export const useJobStore = defineStore('job', () => {
  const outbox = useOutbox()
  const stored = shallowRef<JobBook | null>(null)
  const failure = ref<string | null>(null)
  const loading = ref(false)
  let wanted: string | null = null

  const book = computed(() => {
    const base = stored.value
    if (!base) return null
    const mine = (entry: { lane: string }): boolean => entry.lane === base.job.id
    return withPending(base, [...outbox.acknowledged.filter(mine), ...outbox.entries.filter(mine)])
  })

  /** Reads the job from the server; what was on the screen stays there while it does. */
  async function open(id: string): Promise<void> {
    if (wanted !== id) stored.value = null
    wanted = id
    loading.value = true
    const acknowledgedBefore = [...outbox.acknowledged]
    try {
      const fresh = await $fetch<JobBook>(`/api/jobs/${id}`)
      if (wanted !== id) return
      stored.value = fresh
      failure.value = null
      outbox.forgetAcknowledged(acknowledgedBefore.filter((entry) => entry.lane === id))
    } catch (error) {
      if (wanted === id) failure.value = problemSentence(error)
    } finally {
      loading.value = false
    }
  }

  outbox.onAcknowledged((lane) => {
    if (lane === wanted) void open(lane)
  })

  return { book, failure, loading, open }
})
