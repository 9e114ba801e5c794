import { defineStore } from 'pinia'
import { problemSentence } from '~/stores/problem-sentence'
import type { JobBook, JobSlice, LoadedJob } from '~~/messages/book'
import { jobBookWith, type Changes } from '~~/messages/changes'
import { loadedOnly } from './loaded-slices'
import { jobWithPending } from './pending-overlay'

/** What every screen of a job draws: its head, its line, its ledger. */
const ALWAYS: readonly JobSlice[] = ['findings', 'notes', 'parts', 'sheets', 'photographs']

/**
 * The job on the screen: the slices asked for as the server has them, each write's rows put in as its receipt or the
 * news bring them, with what waits laid over it.
 */
export const useJobStore = defineStore('job', () => {
  const outbox = useOutbox()
  const stored = shallowRef<LoadedJob | null>(null)
  const failure = ref<string | null>(null)
  let wanted: string | null = null
  let slices = new Set<JobSlice>()
  /** Brought while something is being read: it may be newer than what the reading brings. */
  let meanwhile: Changes[] = []
  let reading = 0
  let asOf = ''
  let news: EventSource | null = null

  const book = computed<JobBook | null>(() => {
    const base = stored.value
    return (
      base &&
      loadedOnly(
        jobWithPending(
          base,
          outbox.entries.filter((entry) => entry.lane === base.job.id),
        ),
      )
    )
  })
  const has = (names: readonly JobSlice[]): boolean => names.every((name) => stored.value?.[name] !== undefined)

  /** Opens a job; what was on the screen of the same job stays there while it is read again. */
  async function open(id: string, names: readonly JobSlice[] = []): Promise<void> {
    if (wanted !== id) {
      forget()
      stored.value = null
      slices = new Set()
    }
    wanted = id
    slices = slices.union(new Set([...ALWAYS, ...names]))
    await read([...slices])
    if (wanted === id && stored.value) listen()
  }

  /** Reads slices that a screen needs beside those that are there. */
  async function need(names: readonly JobSlice[]): Promise<void> {
    const missing = names.filter((name) => !slices.has(name))
    if (missing.length === 0 || wanted === null) return
    slices = slices.union(new Set(missing))
    if (stored.value) await read(missing)
  }

  async function read(names: readonly JobSlice[]): Promise<void> {
    const id = wanted
    reading += 1
    try {
      const { asOf: at, ...fresh } = await $fetch<LoadedJob & { asOf: string }>(`/api/jobs/${id}`, {
        query: { slices: names.join(',') },
      })
      if (wanted !== id) return
      if (asOf === '') asOf = at
      stored.value = meanwhile.reduce(jobBookWith, { ...stored.value, ...fresh })
      failure.value = null
      // A screen may have asked for more while the first were on their way.
      const later = [...slices].filter((name) => !names.includes(name) && stored.value?.[name] === undefined)
      if (later.length > 0 && reading === 1) await read(later)
    } catch (error) {
      if (wanted === id) failure.value = problemSentence(error)
    } finally {
      reading -= 1
      if (reading === 0) meanwhile = []
    }
  }

  function take(changes: Changes): void {
    if (reading > 0) meanwhile.push(changes)
    if (stored.value) stored.value = jobBookWith(stored.value, changes)
  }

  /** Hears of what is written in this job elsewhere, as long as somebody looks at the page: browsers keep few lines open. */
  function listen(): void {
    if (news || document.hidden || wanted === null) return
    news = new EventSource(`/api/jobs/${wanted}/news?since=${encodeURIComponent(asOf)}`)
    news.onmessage = (message: MessageEvent<string>) => {
      asOf = message.lastEventId
      take(JSON.parse(message.data) as Changes)
    }
    news.addEventListener('reread', (message) => {
      asOf = message.lastEventId
      void read([...slices])
    })
  }
  function hangUp(): void {
    news?.close()
    news = null
  }
  function lookUp(): void {
    if (document.hidden) hangUp()
    else if (stored.value) listen()
    else if (wanted !== null) void open(wanted)
  }

  /** A job leaves the screen; the next one may be open already. */
  function close(id: string): void {
    if (wanted === id) forget()
  }
  function forget(): void {
    hangUp()
    wanted = null
    asOf = ''
    meanwhile = []
  }

  if (import.meta.client) useEventListener(document, 'visibilitychange', lookUp)
  outbox.onAcknowledged((lane, changes) => {
    take(changes)
    // Taken in a moment ago: now it is in the book.
    if (!stored.value && lane === wanted) void open(lane)
  })
  return { book, failure, has, open, need, close }
})
