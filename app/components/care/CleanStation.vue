<script setup lang="ts">
import { neverInWords, type CleaningStep, type OfferedWay } from '~~/core/care/cleaning-card'
import type { CleaningGroup } from '~~/core/care/cleaning-groups'
import { atStart } from '~~/core/engine/name-in-sentence'
import { careKnowledge } from '~~/core/knowledge/care/care-knowledge'
import type { JobBook } from '~~/messages/book'
import { dryAt } from '~~/work/care-state'
import { cleaningOfJob } from '~~/work/care-of-job'
import { showMoment } from '~~/work/describe-due'
import { minutesInFigures } from '~~/work/minutes-in-figures'
import { stripState } from '~~/work/strip-state'

/** Cleaning: what is dirty said in one key a group, then one step large at a time, with what is never taken and why. */
const props = defineProps<{ book: JobBook }>()
const session = useSessionStore()
const workshop = useWorkshopStore()
const timers = useTimerStore()
onMounted(() => void workshop.need())
const bookNow = computed(() => props.book)
const { ready, described } = useDescribedEngine(bookNow)
const steps = useCareSteps(bookNow)

const description = computed(() => described.value.description)
const cleaning = computed(() => cleaningOfJob(props.book, description.value, workshop.book?.shelf ?? []))
const state = computed(() => cleaning.value.state)
const isDone = (step: CleaningStep): boolean => state.value.cleaned.has(step.id) || state.value.left.has(step.id)
const open = computed(() => cleaning.value.card.steps.filter((step) => !isDone(step)))
const step = computed(() => open.value[0] ?? null)
const off = computed(() => new Set(stripState(props.book.strip, props.book.search).off.keys()))
const lit = computed(() => new Set(step.value?.group.parts ?? []))

/** Asked first where something is likely and nobody has said anything; else when it is wanted. */
const saying = ref(false)
watch(
  ready,
  (now) => {
    if (now && state.value.soils.size === 0 && cleaning.value.suggested.size > 0) saying.value = session.mayWrite
  },
  { immediate: true },
)
const word = ref('')
/** The way that is to be taken against its rule, by its words. */
const against = ref<string | null>(null)
watch(
  () => step.value?.id,
  () => {
    against.value = null
    word.value = ''
  },
)
const elapsed = useElapsedMinutes(() => step.value?.id)
const wordsOf = (entry: CleaningStep): string => `${entry.group.words}: ${entry.soil.words}`

function say(group: CleaningGroup, soils: string[]): void {
  const named = soils.map((id) => careKnowledge.soils.find((row) => row.id === id)?.words ?? id)
  const words = named.length > 0 ? `${group.words}: ${named.join(', ')}` : group.words
  void steps.add({ kind: 'soil', group: group.id, soils, words })
}
async function clean(): Promise<void> {
  const now = step.value
  if (!now?.way || against.value !== null || !session.mayWrite) return
  await steps.add({
    kind: 'cleaned',
    step: now.id,
    subject: now.group.subject,
    soil: now.soil.id,
    agent: now.way.agent,
    method: now.way.method,
    pieces: Math.max(1, now.group.pieces),
    minutes: elapsed(now.way.minutes),
    driesMinutes: Math.round(now.driesMinutes),
    words: `${wordsOf(now)}. ${now.way.words}`,
  })
}
async function leave(): Promise<void> {
  const now = step.value
  if (now && session.mayWrite) await steps.add({ kind: 'left', step: now.id, words: wordsOf(now) })
}
async function take(way: OfferedWay, because = ''): Promise<void> {
  const now = step.value
  if (!now || !session.mayWrite) return
  if (way.level === 'never' && because.trim() === '') {
    against.value = way.words
    return
  }
  against.value = null
  await steps.add({
    kind: 'way',
    step: now.id,
    agent: way.agent,
    method: way.method,
    word: because.trim(),
    words: `${wordsOf(now)}, by ${way.words}`,
  })
}
/** The next best way, by one key. */
async function other(): Promise<void> {
  const way = step.value?.others[0]
  if (way) await take(way)
}
const undo = useUndoLast(
  () => state.value.standing.findLast((row) => row.entry.kind === 'cleaned' || row.entry.kind === 'left'),
  steps.strike,
)

const dry = computed(() => {
  const end = dryAt(state.value)
  return end !== null && end > timers.now ? end : null
})
const rings = computed(() => timers.timers.some((timer) => timer.jobId === props.book.job.id && timer.label === DRYING))
const DRYING = 'Dry after cleaning'
async function ringWhenDry(): Promise<void> {
  if (dry.value === null || rings.value || !session.mayWrite) return
  const minutes = (dry.value - timers.now) / 60_000
  await timers.begin(DRYING, minutes, { jobId: props.book.job.id, station: 'rebuild' })
}
const drying = (value: number): string => (value >= 120 ? `${Math.round(value / 60)} h` : `${value} min`)

useBenchKeys([
  { key: 'd', label: 'What is dirty with what', run: () => (saying.value = !saying.value) },
  { key: 'o', label: 'Another way', run: () => void other() },
  { key: 'l', label: 'Leave this', run: () => void leave() },
  { key: 'w', label: 'Ring when it is dry', run: () => void ringWhenDry() },
])
useNextAction({
  label: computed(() => (step.value ? `Cleaned: ${wordsOf(step.value)}` : '')),
  active: computed(() => !saying.value && step.value !== null && step.value.way !== null && session.mayWrite),
  run: () => void clean(),
  back: () => void undo(),
})
</script>

<template>
  <div v-if="ready" class="clean">
    <SoilsByGroup
      v-if="saying"
      :groups="cleaning.groups"
      :soils="state.soils"
      :suggested="cleaning.suggested"
      :may-write="session.mayWrite"
      @say="say"
      @done="saying = false"
    />
    <template v-else>
      <header class="head">
        <h2>
          {{ open.length > 0 ? `${open.length} to clean` : 'Clean' }}
          <span v-if="cleaning.card.steps.length > 0" class="quiet">
            {{ minutesInFigures(cleaning.card.minutes) }} in all<template v-if="cleaning.card.agents.length > 0"
              >, out of {{ cleaning.card.agents.map((agent) => agent.words).join(', ') }}</template
            ></span
          >
        </h2>
        <button v-if="session.mayWrite" type="button" class="plain" @click="saying = true">
          What is dirty <kbd>D</kbd>
        </button>
      </header>
      <p v-if="dry !== null" class="sign sign--care dry">
        <span>Dry at {{ showMoment(new Date(dry).toISOString()) }}: no power before.</span>
        <button v-if="!rings && session.mayWrite" type="button" class="plain" @click="ringWhenDry">
          Ring then <kbd>W</kbd>
        </button>
      </p>
      <div class="bench">
        <article v-if="step" class="card" :class="{ stopped: !step.way }" :aria-label="`Clean: ${wordsOf(step)}`">
          <header>
            <span class="label"
              >{{ cleaning.card.steps.length - open.length + 1 }} of {{ cleaning.card.steps.length }}</span
            >
            <span v-if="step.way" class="figure"
              >{{ minutesInFigures(step.way.minutes)
              }}<span v-if="step.ownTimes > 0" class="label">, {{ step.ownTimes }} own</span></span
            >
          </header>
          <h2>{{ step.group.words }}</h2>
          <p class="soil">{{ step.soil.words }}</p>
          <p v-if="step.way" class="way">{{ atStart(step.way.words) }}</p>
          <p v-else class="sign sign--fault" role="alert">
            Nothing that stands on the shelf may be taken here.
            <template v-if="step.missing.length > 0">{{ step.missing.join(' or ') }} would do.</template>
          </p>
          <p v-for="entry in step.way?.because ?? []" :key="entry.why" class="sign sign--care">{{ entry.why }}</p>
          <p v-if="step.overruled" class="sign sign--fault">Against the rule: “{{ step.overruled }}”</p>
          <EngineDrawing
            :description="description"
            :off="off"
            :in-hand="step.group.parts[0] ?? null"
            :lit="lit"
            still
            :title="`${step.group.words} marked on the engine`"
          />
          <p v-for="caution in step.cautions" :key="caution" class="sign sign--care">{{ caution }}</p>
          <p v-for="look in step.lookAfter" :key="look" class="quiet">Afterwards: {{ look }}</p>
          <p v-if="step.driesMinutes > 0" class="quiet">Dries {{ drying(step.driesMinutes) }} before power.</p>
          <p v-if="step.way && step.missing.length > 0" class="quiet">
            Better, but not on the shelf: {{ step.missing.join(', ') }}.
          </p>
          <footer v-if="session.mayWrite">
            <button v-if="step.others.length > 0" type="button" class="plain" @click="other">
              Rather {{ step.others[0]?.words }} <kbd>O</kbd>
            </button>
            <button type="button" class="plain" @click="leave">Leave it <kbd>L</kbd></button>
            <button v-if="state.cleaned.size + state.left.size > 0" type="button" class="plain" @click="undo">
              Undo <kbd>U</kbd>
            </button>
          </footer>
        </article>
        <article v-else class="card done" aria-label="Everything is clean">
          <h2>
            {{
              cleaning.card.steps.length > 0 ? 'Everything said to be dirty is clean' : 'Nothing is said to be dirty'
            }}
          </h2>
          <EngineDrawing :description="description" :off="off" :in-hand="null" title="The engine as it is now" />
          <footer v-if="session.mayWrite && state.cleaned.size > 0">
            <button type="button" class="plain" @click="undo">Undo <kbd>U</kbd></button>
          </footer>
        </article>
        <div class="beside">
          <section v-if="step && step.never.length > 0" aria-label="Never here" class="never">
            <h3>Never here</h3>
            <ul>
              <li v-for="way in step.never" :key="way.words">
                <b class="sign sign--fault">{{ atStart(way.words) }}</b>
                <span>{{ neverInWords(way) }}</span>
                <button v-if="session.mayWrite && against !== way.words" type="button" class="plain" @click="take(way)">
                  All the same …
                </button>
                <form v-else-if="against === way.words" class="overrule" @submit.prevent="take(way, word)">
                  <v-text-field v-model="word" v-focus-first label="Why, in a word" maxlength="300" hide-details />
                  <v-btn type="submit" variant="outlined" :disabled="word.trim() === ''">Overrule it</v-btn>
                </form>
              </li>
            </ul>
          </section>
          <section v-if="step && step.others.length > 1" aria-label="Other ways">
            <h3>Other ways</h3>
            <ul class="others">
              <li v-for="way in step.others.slice(0, 5)" :key="way.words">
                <button type="button" :disabled="!session.mayWrite" @click="take(way)">{{ atStart(way.words) }}</button>
                <span class="figure quiet">{{ minutesInFigures(way.minutes) }}</span>
                <span v-if="way.level === 'care'" class="quiet">with care</span>
              </li>
            </ul>
          </section>
          <section v-if="open.length > 1" aria-label="What follows">
            <h3>Then</h3>
            <ol class="line">
              <li v-for="next in open.slice(1, 9)" :key="next.id">
                <span>{{ wordsOf(next) }}</span>
                <span class="quiet">{{ next.way?.words ?? 'nothing that is here' }}</span>
              </li>
              <li v-if="open.length > 9" class="quiet">and {{ open.length - 9 }} more</li>
            </ol>
          </section>
        </div>
      </div>
    </template>
    <Cautions station="clean" />
    <StationNotes :book="book" station="clean" />
  </div>
</template>

<style scoped>
.clean {
  display: grid;
  gap: 12px;
  grid-template-columns: minmax(0, 1fr);
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 14px;
}
.dry {
  display: flex;
  gap: 4px 18px;
  align-items: center;
  flex-wrap: wrap;
}
.soil {
  color: var(--soft);
  font-weight: 600;
}
.way {
  font-size: 1.3rem;
  font-weight: 650;
  color: var(--green);
}
.never ul,
.others,
.line {
  list-style: none;
  margin: 0;
  padding: 0;
}
.never li {
  display: grid;
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}
.overrule {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 10px;
  align-items: center;
}
.others li {
  display: flex;
  gap: 10px;
  align-items: center;
  border-top: 1px solid var(--rule);
}
.others button {
  min-height: var(--target);
  flex: 1;
  color: var(--green);
  font-weight: 600;
}
.line li {
  display: grid;
  padding: 5px 0;
  border-top: 1px solid var(--rule);
}
</style>
