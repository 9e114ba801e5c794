<script setup lang="ts">
import { addDays, format, parseISO } from 'date-fns'
import { v7 as newId } from 'uuid'
import { emptyJob } from '~/forms/empty-entries'
import { problemSentence } from '~/stores/problem-sentence'
import type { CareBook, CareLine, DueLine, EngineTag, Page } from '~~/messages/book'

/** The care book: what is due next on every engine by its running hours, hours of a show in one entry, and the calendar. */
const router = useRouter()
const session = useSessionStore()
const outbox = useOutbox()
const book = shallowRef<CareBook | null>(null)
const failure = ref('')

async function load(): Promise<void> {
  try {
    book.value = await $fetch<CareBook>('/api/care')
    failure.value = ''
  } catch (error) {
    failure.value = problemSentence(error)
  }
}
onMounted(load)
onBeforeUnmount(outbox.onAcknowledged(() => void load()))

const day = (inDays: number): string => format(addDays(parseISO(book.value?.today ?? ''), inDays), 'd MMM yyyy')
function when(due: DueLine): string {
  if (due.state === 'due') return 'due'
  if (due.inDays === null) return 'does not run'
  return due.inDays > 3650 ? 'not for years' : day(due.inDays)
}
function between(due: DueLine): string {
  if (due.state === 'due' || due.inDays === null || due.earliest === null || due.inDays > 3650) return ''
  return due.latest === null || due.latest > 3650
    ? `from ${day(due.earliest)}`
    : due.latest === due.earliest
      ? ''
      : `${day(due.earliest)} to ${day(due.latest)}`
}
const signOf = { due: 'sign sign--fault', soon: 'sign sign--care', later: '' } as const

/** A service job from a due line, by one key. */
async function serve(line: CareLine): Promise<void> {
  if (!session.mayWrite) return
  const jobId = newId()
  const due = line.due.filter((entry) => entry.state !== 'later')
  const words = (due.length > 0 ? due : line.due).map(
    (entry) => `${entry.name}: ${entry.spent.toFixed(1)} h of ${entry.every} h`,
  )
  await outbox.send('job.take-in', {
    jobId,
    owner: { existing: line.ownerId },
    type: null,
    engine: { existing: line.engineId },
    job: { ...emptyJob(), complaint: `Service. ${words.join('; ')}.` },
  })
  await router.push(`/jobs/${jobId}/first-run`)
}

const engines = shallowRef<readonly EngineTag[]>([])
const search = ref('')
watchDebounced(
  search,
  async (text) => {
    try {
      engines.value = (await $fetch<Page<EngineTag>>('/api/engines', { query: { search: text, pageSize: 40 } })).rows
    } catch {
      // The list stays as it was; what is chosen already is not lost.
    }
  },
  { debounce: 180, immediate: true },
)
const { draft, handOver } = useDraft('care.hours', () => ({
  day: format(new Date(), 'yyyy-MM-dd'),
  show: '',
  hours: '',
  meter: '',
  meterReplaced: false,
  engines: [] as string[],
}))
const chosen = ref<EngineTag[]>([])
const items = computed(() => {
  const known = new Set(engines.value.map((engine) => engine.id))
  return [...engines.value, ...chosen.value.filter((engine) => !known.has(engine.id))].map((engine) => ({
    value: engine.id,
    title: `${engine.name}, ${engine.ownerName}`,
  }))
})
watch(
  () => draft.value.engines,
  (ids) => {
    const all = new Map([...chosen.value, ...engines.value].map((engine) => [engine.id, engine]))
    chosen.value = ids.flatMap((id) => all.get(id) ?? [])
  },
)
const number = (text: string): number | null => {
  const value = Number(text.trim().replace(',', '.'))
  return text.trim() === '' || !Number.isFinite(value) || value < 0 ? null : value
}
const single = computed(() => draft.value.engines.length === 1)
const problem = computed(() => {
  if (draft.value.engines.length === 0) return 'Choose the engines that ran.'
  if (number(draft.value.hours) === null && !(single.value && number(draft.value.meter) !== null))
    return 'Hours in digits, 0 or more.'
  return ''
})
const tried = ref(false)
async function keep(): Promise<void> {
  tried.value = true
  if (problem.value || !session.mayWrite) return
  tried.value = false
  await handOver((fields) =>
    outbox.send('running.book', {
      id: newId(),
      fields: {
        day: fields.day,
        show: fields.show.trim(),
        engines: fields.engines.map((engineId) => ({
          engineId,
          hours: number(fields.hours),
          meter: fields.engines.length === 1 ? number(fields.meter) : null,
          meterReplaced: fields.meterReplaced,
        })),
      },
    }),
  )
}

const address = ref('')
async function makeFeed(): Promise<void> {
  try {
    const { token } = await $fetch<{ token: string }>('/api/care/feeds', { method: 'POST' })
    address.value = `${window.location.origin}/calendar/${token}.ics`
    await load()
  } catch (error) {
    failure.value = problemSentence(error)
  }
}
async function revoke(id: string): Promise<void> {
  try {
    await $fetch(`/api/care/feeds/${id}`, { method: 'DELETE' })
    address.value = ''
    await load()
  } catch (error) {
    failure.value = problemSentence(error)
  }
}
const FEW = 40
const many = ref(false)
const lines = computed(() => (many.value ? (book.value?.lines ?? []) : (book.value?.lines ?? []).slice(0, FEW)))
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Care book</h1>
      <NuxtLink to="/engines" class="push">Engines & owners</NuxtLink>
    </div>
    <p v-if="failure" class="sign sign--care" role="alert">{{ failure }}</p>
    <div class="columns columns--with-side">
      <section aria-label="What is due">
        <p v-if="book && book.lines.length === 0" class="quiet">
          No hours are booked yet. Enter those of a show, or of one engine, and what is due next stands here with its
          day.
        </p>
        <table v-else-if="book" class="due">
          <thead>
            <tr>
              <th>Engine</th>
              <th v-for="entry in book.lines[0]?.due ?? []" :key="entry.id">{{ entry.name }}</th>
              <th><span class="label">Last ran</span></th>
              <th />
            </tr>
          </thead>
          <tbody>
            <tr v-for="line in lines" :key="line.engineId">
              <td>
                <NuxtLink :to="`/engines/${line.engineId}`"
                  ><b>{{ line.name }}</b></NuxtLink
                >
                <span class="quiet">{{ line.owner }}{{ line.shortened ? '; garden or carpet, so sooner' : '' }}</span>
              </td>
              <td v-for="due in line.due" :key="due.id">
                <b :class="signOf[due.state]">{{ when(due) }}</b>
                <span class="quiet"
                  ><span class="figure">{{ due.spent.toFixed(1) }}</span> of {{ due.every }} h</span
                >
                <span v-if="between(due)" class="quiet">{{ between(due) }}</span>
              </td>
              <td>
                <template v-if="line.lastRan"
                  >{{ format(parseISO(line.lastRan.day), 'd MMM') }}
                  <span class="quiet">{{ line.lastRan.show || `${line.lastRan.hours} h` }}</span></template
                >
              </td>
              <td>
                <button v-if="session.mayWrite" type="button" class="plain" @click="serve(line)">Take in</button>
              </td>
            </tr>
          </tbody>
        </table>
        <button v-if="(book?.lines.length ?? 0) > FEW && !many" type="button" class="plain" @click="many = true">
          All {{ book?.lines.length }}
        </button>
        <p class="quiet">
          After 8 h of running treads and rails are wiped, after 24 h it is oiled lightly: one usual schedule among
          several. Days follow the pace of the last half year; the span holds four times out of five.
        </p>
      </section>
      <aside class="side">
        <form v-if="session.mayWrite" aria-label="Book hours" @submit.prevent="keep">
          <h2>Hours that ran</h2>
          <v-autocomplete
            v-model="draft.engines"
            v-model:search="search"
            :items="items"
            label="Engines"
            multiple
            chips
            closable-chips
            no-filter
          />
          <v-text-field v-model="draft.hours" :label="single ? 'Hours' : 'Hours each'" inputmode="decimal" />
          <v-text-field v-model="draft.day" label="On" type="date" />
          <v-text-field v-model="draft.show" label="At which show, if any" maxlength="120" />
          <template v-if="single">
            <v-text-field v-model="draft.meter" label="Its hour meter shows" inputmode="decimal" />
            <v-checkbox v-model="draft.meterReplaced" label="Another meter than last time" hide-details />
          </template>
          <p v-if="tried && problem" class="sign sign--care" role="alert">{{ problem }}</p>
          <v-btn type="submit" color="primary" variant="flat">Book it</v-btn>
        </form>
        <section aria-label="Calendar">
          <h2>Calendar</h2>
          <p><a href="/api/care/calendar">As a file for a calendar</a></p>
          <p v-if="address" class="address">
            <span class="label">Told once; whoever has it reads what is due</span><code>{{ address }}</code>
          </p>
          <ul class="ruled-list">
            <li v-for="feed in book?.feeds ?? []" :key="feed.id" class="feed">
              <span>{{ feed.person }}, {{ format(parseISO(feed.madeAt), 'd MMM yyyy') }}</span>
              <button v-if="session.mayWrite" type="button" class="plain" @click="revoke(feed.id)">Take it back</button>
            </li>
          </ul>
          <button v-if="session.mayWrite" type="button" class="plain" @click="makeFeed">A secret address</button>
        </section>
      </aside>
    </div>
    <Head><Title>Care book</Title></Head>
  </div>
</template>

<style scoped>
.due {
  width: 100%;
  border-collapse: collapse;
}
.due th {
  text-align: left;
  font-weight: 600;
  padding: 6px 10px 6px 0;
  border-bottom: 2px solid var(--steel);
}
.due td {
  padding: 8px 10px 8px 0;
  border-bottom: 1px solid var(--rule);
  vertical-align: top;
}
.due td > .quiet {
  display: block;
}
@media (max-width: 700px) {
  .due thead {
    display: none;
  }
  .due tr {
    display: grid;
    grid-template-columns: 1fr 1fr;
    padding: 8px 0;
    border-bottom: 1px solid var(--rule);
  }
  .due td {
    border: 0;
    padding: 3px 0;
  }
}
.side {
  display: grid;
  gap: 26px;
  align-content: start;
}
.side form {
  display: grid;
  gap: 6px;
}
.feed {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.address code {
  display: block;
  overflow-wrap: anywhere;
  font-size: 0.86rem;
}
</style>
