import { problemSentence } from '~/stores/problem-sentence'
import { defineStore } from 'pinia'
import type { MeterRow, WorkshopBook } from '~~/messages/book'
import { workshopBookWith } from '~~/messages/changes'
import { withPending } from './pending-overlay'

/** Settings, meters and people; read once, each write's rows put in as its receipt brings them. */
export const useWorkshopStore = defineStore('workshop', () => {
  const outbox = useOutbox()
  const stored = shallowRef<WorkshopBook | null>(null)
  const book = computed(() => stored.value && withPending(stored.value, outbox.entries, workshopBookWith))
  const failure = ref<string | null>(null)

  async function load(): Promise<void> {
    try {
      stored.value = await $fetch<WorkshopBook>('/api/workshop')
      failure.value = null
    } catch (error) {
      failure.value = problemSentence(error)
    }
  }
  async function need(): Promise<void> {
    if (!stored.value) await load()
  }
  outbox.onAcknowledged((_lane, changes) => {
    if (stored.value) stored.value = workshopBookWith(stored.value, changes)
  })

  const currency = computed(() => book.value?.workshop.currency ?? 'GBP')
  const metersFor = (quantity: 'voltage' | 'current' | 'resistance'): MeterRow[] =>
    (book.value?.meters ?? []).filter((meter) => meter.measures === quantity && !meter.retired)
  return { book, failure, currency, load, need, metersFor }
})
