import { defineStore } from 'pinia'
import type { MeterRow, WorkshopBook } from '~~/shared/book'

/** Settings, meters and people; read once and again after every change. */
export const useWorkshopStore = defineStore('workshop', () => {
  const outbox = useOutbox()
  const book = shallowRef<WorkshopBook | null>(null)
  const failure = ref<string | null>(null)

  async function load(): Promise<void> {
    try {
      book.value = await $fetch<WorkshopBook>('/api/workshop')
      failure.value = null
    } catch (error) {
      failure.value = problemSentence(error)
    }
  }
  async function need(): Promise<void> {
    if (!book.value) await load()
  }
  outbox.onAcknowledged((lane) => {
    if (lane === WORKSHOP_LANE) void load()
  })

  const currency = computed(() => book.value?.workshop.currency ?? 'GBP')
  const metersFor = (quantity: 'voltage' | 'current' | 'resistance'): MeterRow[] => (book.value?.meters ?? []).filter((meter) => meter.measures === quantity && !meter.retired)
  return { book, failure, currency, load, need, metersFor }
})
