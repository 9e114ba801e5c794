import { problemSentence } from '~/stores/problem-sentence'
import type { BenchMessage, BenchRow, LiveBenchState, LiveReading } from '~~/messages/live-bench'
import { READINGS_PER_SECOND, RING_SECONDS } from '~~/messages/live-bench'

/** The last minute of one supply, outside Vue: it changes twenty times a second, and only the drawing looks at it. */
export type ReadingRing = LiveReading[]

/** Listens to every bench while the calling component is on the screen. */
export function useBenchStream() {
  const states = shallowRef<ReadonlyMap<string, LiveBenchState>>(new Map())
  const takenBy = shallowRef<ReadonlyMap<string, string>>(new Map())
  const rings = new Map<string, ReadingRing>()
  const failure = ref('')
  const cut = ref(false)
  let stream: EventSource | null = null

  function put(state: LiveBenchState): void {
    states.value = new Map(states.value).set(state.instrumentId, state)
  }
  function hear(message: BenchMessage): void {
    if (message.kind === 'state') return put(message.state)
    const ring = message.fresh ? [] : (rings.get(message.instrumentId) ?? [])
    ring.push(...message.readings)
    if (ring.length > RING_SECONDS * READINGS_PER_SECOND)
      ring.splice(0, ring.length - RING_SECONDS * READINGS_PER_SECOND)
    rings.set(message.instrumentId, ring)
  }
  async function load(): Promise<void> {
    try {
      const rows = await $fetch<BenchRow[]>('/api/benches')
      states.value = new Map(rows.flatMap(({ live }) => (live ? [[live.instrumentId, live] as const] : [])))
      takenBy.value = new Map(rows.flatMap((row) => (row.takenBy ? [[row.instrumentId, row.takenBy] as const] : [])))
      failure.value = ''
    } catch (error) {
      failure.value = problemSentence(error)
    }
  }
  onMounted(async () => {
    await load()
    stream = new EventSource('/api/benches/live')
    stream.onopen = () => {
      if (cut.value) void load()
      cut.value = false
    }
    stream.onmessage = (message) => hear(JSON.parse(message.data as string) as BenchMessage)
    stream.onerror = () => {
      cut.value = true
    }
  })
  onBeforeUnmount(() => stream?.close())

  async function post<T>(instrumentId: string, what: string, body: object = {}): Promise<T | null> {
    failure.value = ''
    try {
      const answer = await $fetch<T & { state?: LiveBenchState }>(`/api/benches/${instrumentId}/${what}`, {
        method: 'POST',
        body,
      })
      if (answer.state) put(answer.state)
      return answer
    } catch (error) {
      // How the benches stand is read again first: reading it clears what was said before.
      await load()
      failure.value = problemSentence(error)
      return null
    }
  }
  return { states, takenBy, rings, failure, cut, load, post }
}
