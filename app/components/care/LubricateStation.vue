<script setup lang="ts">
import type { LubricationPoint } from '~~/core/care/lubrication-card'
import { atStart, inSentence } from '~~/core/engine/name-in-sentence'
import type { JobBook } from '~~/messages/book'
import { lubricationOfJob } from '~~/work/care-of-job'
import { stripState } from '~~/work/strip-state'

/** Oiling: every point of this mechanism numbered on its drawing, one large at a time; what gets none stands in red. */
const props = defineProps<{ book: JobBook }>()
const session = useSessionStore()
const workshop = useWorkshopStore()
onMounted(() => void workshop.need())
const bookNow = computed(() => props.book)
const { ready, described } = useDescribedEngine(bookNow)
const steps = useCareSteps(bookNow)

const description = computed(() => described.value.description)
const lubrication = computed(() => lubricationOfJob(props.book, description.value, workshop.book?.shelf ?? []))
const state = computed(() => lubrication.value.state)
const card = computed(() => lubrication.value.card)
const open = computed(() => card.value.points.filter((point) => !state.value.oiled.has(point.id)))
const point = computed(() => open.value[0] ?? null)
const off = computed(() => new Set(stripState(props.book.strip, props.book.search).off.keys()))
const nameOf = (id: string): string => description.value.parts.find((part) => part.id === id)?.name ?? id
const numbers = computed(() => new Map(card.value.points.map((entry, index) => [entry.id, index + 1])))
const marks = computed(() => [
  ...card.value.points.map((entry, index) => ({
    part: entry.part,
    text: String(index + 1),
    kind: state.value.oiled.has(entry.id)
      ? ('done' as const)
      : entry === point.value
        ? ('now' as const)
        : ('open' as const),
  })),
  ...[...new Set(card.value.none.map((entry) => entry.part))].map((part) => ({
    part,
    text: '×',
    kind: 'none' as const,
  })),
])

const wordsOf = (entry: LubricationPoint): string => `${entry.name}, ${entry.product}, ${entry.amount}`
const taken = (entry: LubricationPoint): string => entry.instead || entry.product || ''
async function oil(): Promise<void> {
  const now = point.value
  if (!now || !session.mayWrite) return
  await steps.add({
    kind: 'oiled',
    point: now.id,
    product: taken(now),
    quarters: now.quarters,
    words: wordsOf(now),
  })
}
async function tooMuch(): Promise<void> {
  const now = point.value
  if (now && session.mayWrite) await steps.add({ kind: 'soaked-off', point: now.id, words: now.name })
}
const undo = useUndoLast(
  () => state.value.standing.findLast((row) => row.entry.kind === 'oiled' || row.entry.kind === 'soaked-off'),
  steps.strike,
)
const drops = (value: number): string => (Number.isInteger(value) ? String(value) : value.toFixed(2).replace(/0$/, ''))
const given = computed(() => [...state.value.oiled.values()].reduce((sum, entry) => sum + entry.quarters, 0) / 4)

useBenchKeys([{ key: 'x', label: 'Too much here: soak it off', run: () => void tooMuch() }])
useNextAction({
  label: computed(() => (point.value ? `Done: ${numbers.value.get(point.value.id)}, ${point.value.name}` : '')),
  active: computed(() => point.value !== null && session.mayWrite),
  run: () => void oil(),
  back: () => void undo(),
})
</script>

<template>
  <div v-if="ready" class="lubricate">
    <div class="bench">
      <article v-if="point" class="card" :aria-label="`Oil: ${point.name}`">
        <header>
          <span class="label">{{ card.points.length - open.length + 1 }} of {{ card.points.length }} points</span>
          <span class="label"
            ><b class="figure">{{ drops(given) }}</b> of {{ drops(card.drops) }} drops given; usual
            {{ card.usual[0] }} to {{ card.usual[1] }}</span
          >
        </header>
        <h2>
          <span class="number">{{ numbers.get(point.id) }}</span> {{ point.name }}
        </h2>
        <p class="way">{{ atStart(point.product ?? '') }}: {{ point.amount }}</p>
        <p v-if="point.because" class="quiet">{{ point.because }}</p>
        <p v-if="point.refused" class="sign sign--fault">{{ point.refused }}</p>
        <p v-if="point.instead" class="sign sign--care">
          Not on the shelf: {{ inSentence(point.instead) }} does as well.
        </p>
        <p v-else-if="point.instead === ''" class="sign sign--care">
          Not on the shelf, and nothing there stands in for it.
        </p>
        <p v-if="point.lastAccessBefore" class="sign sign--care">
          The last time it can be reached: the {{ inSentence(nameOf(point.lastAccessBefore)) }} closes it.
        </p>
        <EngineDrawing
          :description="description"
          :off="off"
          :in-hand="point.part"
          :marks="marks"
          still
          :title="`Points to oil, number ${numbers.get(point.id)} in hand`"
        />
        <footer v-if="session.mayWrite">
          <button type="button" class="plain" :disabled="state.soakedOff.has(point.id)" @click="tooMuch">
            {{ state.soakedOff.has(point.id) ? 'Soaked off' : 'Too much here: soak it off' }} <kbd>X</kbd>
          </button>
          <button v-if="state.oiled.size > 0" type="button" class="plain" @click="undo">Undo <kbd>U</kbd></button>
        </footer>
      </article>
      <article v-else class="card done" aria-label="Everything is oiled">
        <h2>{{ drops(given) }} drops given</h2>
        <p>Run it to spread, wipe the excess, wipe the treads last of all.</p>
        <EngineDrawing
          :description="description"
          :off="off"
          :in-hand="null"
          :marks="marks"
          title="Every point that was oiled"
        />
        <footer v-if="session.mayWrite && state.oiled.size > 0">
          <button type="button" class="plain" @click="undo">Undo <kbd>U</kbd></button>
        </footer>
      </article>
      <div class="beside">
        <section aria-label="The card">
          <h3>The card</h3>
          <ol class="points">
            <li v-for="entry in card.points" :key="entry.id" :class="{ now: entry === point }">
              <span class="number" :class="{ given: state.oiled.has(entry.id) }">{{ numbers.get(entry.id) }}</span>
              <span
                >{{ entry.name }} <span class="quiet">{{ taken(entry) }}, {{ entry.amount }}</span></span
              >
              <span v-if="state.oiled.has(entry.id)" class="sign sign--sound">done</span>
            </li>
          </ol>
        </section>
        <section v-if="card.none.length > 0" aria-label="None here" class="none">
          <h3 class="sign sign--fault">None here</h3>
          <ul>
            <li v-for="entry in card.none" :key="entry.id">
              {{ entry.name }} <span class="quiet">{{ entry.because }}</span>
            </li>
          </ul>
        </section>
      </div>
    </div>
    <Cautions station="lubricate" />
    <StationNotes :book="book" station="lubricate" />
  </div>
</template>

<style scoped>
.lubricate {
  display: grid;
  gap: 12px;
  grid-template-columns: minmax(0, 1fr);
}
.way {
  font-size: 1.3rem;
  font-weight: 650;
  color: var(--green);
}
.number {
  display: inline-grid;
  place-items: center;
  flex: none;
  width: 1.9em;
  height: 1.9em;
  line-height: 1;
  border: 2px solid var(--brass);
  border-radius: 50%;
  font-family: var(--mono);
  font-size: 0.86em;
  font-weight: 700;
}
.number.given {
  border-color: var(--sound);
  color: var(--sound-ink);
}
.points,
.none ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.points li {
  display: grid;
  grid-template-columns: 34px minmax(0, 1fr) auto;
  gap: 8px;
  padding: 5px 0;
  border-top: 1px solid var(--rule);
  font-size: 0.92rem;
  align-items: start;
}
.points .now {
  background: var(--sheet);
  box-shadow: inset 3px 0 0 var(--brass);
  padding-left: 8px;
}
.points .quiet,
.none .quiet {
  display: block;
}
.none li {
  padding: 5px 0;
  border-top: 1px solid var(--rule);
  font-size: 0.92rem;
}
</style>
