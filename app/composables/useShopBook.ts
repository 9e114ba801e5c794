import type { Changes } from '~~/messages/changes'
import type { Standing } from '~~/messages/effects'
import { withPending } from '~/stores/pending-overlay'
import { problemSentence } from '~/stores/problem-sentence'
import { readOf } from '~/stores/read-ahead'

interface ShopBookOptions<B extends Standing> {
  /** Where it is read; another address is another book. */
  readonly address: () => string
  /** Puts changed rows into it. */
  readonly put: (book: B, changes: Changes) => B
  /** Whether rows have changed of which more must be read than the receipt brought. */
  readonly readsAnew?: (before: B | null, after: B | null, changes: Changes) => boolean
}

/** An engine's, an owner's, a parcel's page: as the server has it, with what its writes changed and what still waits laid over. */
export function useShopBook<B extends Standing>({ address, put, readsAnew = () => false }: ShopBookOptions<B>) {
  const outbox = useOutbox()
  const stored = shallowRef<B | null>(null) as Ref<B | null>
  const failure = ref('')
  const book = computed(() => stored.value && withPending(stored.value, outbox.entries, put))
  async function load(): Promise<void> {
    try {
      stored.value = (await readOf(address())) as B
      failure.value = ''
    } catch (error) {
      failure.value = problemSentence(error)
    }
  }
  watch(address, load, { immediate: true })
  onBeforeUnmount(
    outbox.onAcknowledged((_lane, changes) => {
      const before = stored.value
      if (before) stored.value = put(before, changes)
      if (readsAnew(before, stored.value, changes)) void load()
    }),
  )
  return { book, failure }
}
