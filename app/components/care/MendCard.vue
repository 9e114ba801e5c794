<script setup lang="ts">
import { atStart } from '~~/core/engine/name-in-sentence'
import { v7 as newId } from 'uuid'
import type { JobBook } from '~~/messages/book'
import type { FindingState } from '~~/messages/vocabulary'
import type { MendTask, MendWay } from '~~/work/mend-of-job'

/** A confirmed finding as work: the shop's way first, the others with their price; mended in one key. */
const props = defineProps<{ book: JobBook; task: MendTask; others: number }>()
const session = useSessionStore()
const timers = useTimerStore()
const bookNow = computed(() => props.book)
const { setState } = useFindingState(bookNow)
const strip = useStripSteps(bookNow)
const search = useSearchSteps(bookNow, ref(null))
/** The whole list, for what its words do not tell. */
const choices = computed(() => props.task.mayBe.map((suspect) => ({ value: suspect.id, title: atStart(suspect.name) })))
const naming = useOnce()
const name = (id: string | null): Promise<void> =>
  naming('name', async () => {
    const suspect = props.task.mayBe.find((entry) => entry.id === id)
    if (suspect && session.mayWrite) await search.nameFinding(props.task.finding.id, suspect)
  })

const picked = ref(0)
watch(
  () => props.task.finding.id,
  () => {
    picked.value = 0
  },
)
const way = computed<MendWay | null>(() => props.task.ways[picked.value] ?? null)

async function settle(state: FindingState): Promise<void> {
  if (!session.mayWrite) return
  const { finding } = props.task
  const now = way.value
  const remedy = state === 'mended' && now ? now.name : finding.remedy
  await setState(finding, state, remedy)
  if (state !== 'mended' || !now) return
  const at = { jobId: props.book.job.id, station: 'mend' as const }
  if (now.waitMinutes > 0) await timers.begin(`${now.waitFor}: ${finding.what}`.slice(0, 120), now.waitMinutes, at)
  if (now.provisional)
    await strip.add({
      kind: 'provisional',
      thing: newId(),
      words: `${now.name}: ${finding.what}`.slice(0, 200),
      gone: false,
    })
}
const wait = (minutes: number): string => (minutes >= 120 ? `${Math.round(minutes / 60)} h` : `${minutes} min`)

useBenchKeys([
  ...[0, 1, 2].map((index) => ({
    key: String(index + 1),
    label: `Way ${index + 1} to mend it`,
    run: () => {
      if (props.task.ways[index]) picked.value = index
    },
  })),
  { key: 'l', label: 'Leave it', run: () => void settle('left') },
  { key: 'd', label: 'Declined by the owner', run: () => void settle('declined') },
])
useNextAction({
  label: computed(() => `Mended: ${props.task.finding.what}`),
  active: computed(() => session.mayWrite),
  run: () => void settle('mended'),
})
</script>

<template>
  <article class="card" :aria-label="`Mend: ${task.finding.what}`">
    <header>
      <span class="label">{{ others > 0 ? `${others + 1} to mend` : 'To mend' }}</span>
      <span v-if="way" class="figure">{{ way.minutes }} min</span>
    </header>
    <h2>{{ task.finding.what }}</h2>
    <p v-if="task.finding.place" class="quiet">{{ task.finding.place }}</p>
    <p v-if="!way && task.finding.remedy" class="way">{{ task.finding.remedy }}</p>
    <div
      v-if="!task.suspect && task.mayBe.length > 0 && session.mayWrite"
      class="which"
      role="group"
      aria-label="Which is it"
    >
      <span class="label">Which is it? Then it counts in the search, and its remedy stands here.</span>
      <button
        v-for="suspect in task.mayBe.slice(0, task.alike)"
        :key="suspect.id"
        type="button"
        @click="name(suspect.id)"
      >
        {{ atStart(suspect.name) }}
      </button>
      <v-autocomplete
        :items="choices"
        label="Something else this engine can have"
        :model-value="null"
        @update:model-value="name"
      />
    </div>
    <div v-if="task.question" role="radiogroup" :aria-label="task.question" class="ways">
      <span class="label">{{ task.question }}</span>
      <button
        v-for="(entry, index) in task.ways"
        :key="entry.option"
        type="button"
        role="radio"
        :aria-checked="index === picked"
        @click="picked = index"
      >
        <kbd>{{ index + 1 }}</kbd>
        <span
          ><b>{{ entry.name }}</b> <span v-if="index === 0" class="label">this shop’s way</span
          ><span class="quiet">{{ entry.because }}</span></span
        >
        <span class="figure">{{ entry.minutes }} min</span>
      </button>
    </div>
    <p v-else-if="way" class="way">{{ way.name }}</p>
    <template v-if="way">
      <dl class="needs">
        <template v-if="way.parts.length > 0">
          <dt>Parts</dt>
          <dd>{{ way.parts.join(', ') }}</dd>
        </template>
        <template v-if="way.products.length > 0">
          <dt>Products</dt>
          <dd>
            <span v-for="(product, index) in way.products" :key="product.words"
              >{{ index > 0 ? ', ' : '' }}{{ product.words
              }}<b v-if="product.here === false" class="gone"> (not on the shelf)</b></span
            >
          </dd>
        </template>
        <template v-if="way.waitMinutes > 0">
          <dt>{{ way.waitFor }}</dt>
          <dd>{{ wait(way.waitMinutes) }}, a timer begins</dd>
        </template>
      </dl>
      <p v-if="way.running">Set on the running machine: watch the live current and keep the best setting.</p>
      <p v-if="way.provisional" class="sign sign--care">Provisional: it is listed until it is gone or signed off.</p>
      <p v-if="way.caution" class="sign sign--care">{{ way.caution }}</p>
    </template>
    <footer v-if="session.mayWrite">
      <button type="button" class="plain" @click="settle('left')">Leave it <kbd>L</kbd></button>
      <button type="button" class="plain" @click="settle('declined')">Declined <kbd>D</kbd></button>
    </footer>
  </article>
</template>

<style scoped>
.which {
  display: grid;
  gap: 4px;
  max-width: 560px;
}
.which button {
  min-height: var(--target);
  padding: 8px 12px;
  border-left: 3px solid var(--brass);
  text-align: left;
  font-weight: 550;
}
.which button:hover {
  background: var(--sunk);
}
.ways {
  display: grid;
  gap: 4px;
}
.ways button {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: 10px;
  align-items: start;
  padding: 8px 10px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  min-height: var(--target);
}
.ways button[aria-checked='true'] {
  border: 2px solid var(--brass);
  padding: 7px 9px;
}
.ways .quiet {
  display: block;
}
.way {
  font-size: 1.3rem;
  font-weight: 650;
  color: var(--green);
}
.needs {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 2px 14px;
  margin: 0;
}
.needs dt {
  color: var(--soft);
}
.needs dd {
  margin: 0;
}
.gone {
  color: var(--amber-ink);
}
.link {
  display: inline-flex;
  align-items: center;
}
</style>
