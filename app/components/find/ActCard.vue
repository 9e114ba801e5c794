<script setup lang="ts">
import { atStart } from '~~/core/engine/name-in-sentence'
import type { ActReport, ObservationReport } from '~~/core/diagnosis/report/search-report'
import { rowsOfAct } from '~~/work/rows-of-act'

/** One act as one big card: what to do once, and under it everything that can be noted at it, a row and a key each. */
const props = defineProps<{
  act: ActReport
  /** By observation: the outcome noted in this state. */
  noted: ReadonlyMap<string, string>
  partName: (id: string) => string
  mayWrite: boolean
  overruled: boolean
  /** Something was noted, and the rest is still to come. */
  underWay: boolean
}>()
const emit = defineEmits<{
  note: [observation: ObservationReport, outcome: number]
  rest: [observations: readonly ObservationReport[]]
  enough: []
  couldNot: []
  another: []
}>()

const showAll = ref(false)
const shown = computed(() => rowsOfAct(props.act, props.noted, showAll.value))
const rows = computed(() => shown.value.rows)
const more = computed(() => shown.value.more)
const takesOff = computed(() => props.act.takesOff.map(props.partName))
const left = computed(() => shown.value.left)

/** The row the number keys speak of: the first not noted, unless another was gone to. */
const gone = ref<string | null>(null)
const current = computed(() => rows.value.find(({ id }) => id === gone.value) ?? left.value[0] ?? null)
watch(
  () => props.act.id,
  () => {
    gone.value = null
    showAll.value = false
  },
)
function step(by: number): void {
  const at = rows.value.findIndex(({ id }) => id === current.value?.id)
  gone.value = rows.value[(at + by + rows.value.length) % rows.value.length]?.id ?? null
}
function note(row: ObservationReport, outcome: number): void {
  if (!props.mayWrite || !row.outcomes[outcome]) return
  gone.value = null
  emit('note', row, outcome)
}
function rest(): void {
  if (!props.mayWrite) return
  if (left.value.length > 0) emit('rest', left.value)
  else emit('enough')
}
useBenchKeys([
  ...[0, 1, 2, 3, 4].map((index) => ({
    key: String(index + 1),
    label: `Outcome ${index + 1} of the marked row`,
    run: () => current.value && note(current.value, index),
  })),
  { key: 'ArrowDown', label: 'Next row', run: () => step(1) },
  { key: 'ArrowUp', label: 'Row before', run: () => step(-1) },
  { key: 'Enter', label: 'The rest as it should', run: rest },
  { key: 'e', label: 'That is all I saw', run: () => props.underWay && emit('enough') },
  { key: 'm', label: 'More that can be noted', run: () => (showAll.value = !showAll.value) },
  { key: 'n', label: 'Could not do it', run: () => props.mayWrite && emit('couldNot') },
  { key: 'a', label: 'Something else', run: () => emit('another') },
])
</script>

<template>
  <article class="card act" tabindex="-1" :aria-label="`Next: ${act.words}`">
    <header>
      <span class="label">{{ overruled ? 'Of your choice' : 'Next' }}</span>
      <span class="price"
        ><b class="figure">{{ act.totalMinutes < 10 ? act.totalMinutes.toFixed(1) : Math.round(act.totalMinutes) }}</b>
        min<template v-if="takesOff.length > 0"> with taking off and back</template></span
      >
    </header>
    <h2>{{ act.words }}</h2>
    <p class="how">{{ act.how }}</p>
    <ul v-if="takesOff.length > 0 || act.caution" class="needs">
      <li v-if="takesOff.length > 0"><span class="label">Takes off</span> {{ takesOff.join(', ') }}</li>
      <li v-if="act.caution" class="sign sign--care">{{ act.caution }}</li>
    </ul>
    <ol class="rows" aria-label="What can be noted">
      <li
        v-for="row in rows"
        :key="row.id"
        class="row"
        :class="{ current: row.id === current?.id, done: noted.has(row.id) }"
        :aria-current="row.id === current?.id ? 'step' : undefined"
      >
        <span class="what">{{ atStart(row.words.replace(/^Look at the /, '')) }}</span>
        <span class="outcomes" :class="{ many: row.outcomes.length > 4 }">
          <button
            v-for="(outcome, index) in row.outcomes"
            :key="outcome.id"
            type="button"
            class="outcome"
            :class="{ said: noted.get(row.id) === outcome.id, bad: index > 0 }"
            :aria-pressed="noted.get(row.id) === outcome.id"
            :tabindex="row.id === (current?.id ?? rows[0]?.id) ? 0 : -1"
            :disabled="!mayWrite"
            @click="note(row, index)"
          >
            <kbd v-if="row.id === current?.id">{{ index + 1 }}</kbd><span>{{ outcome.words }}</span>
          </button>
        </span>
      </li>
    </ol>
    <p class="why">{{ act.why }}</p>
    <footer v-if="mayWrite">
      <v-btn size="large" color="primary" @click="rest"
        >{{ left.length === 0 ? 'On' : left.length === rows.length ? 'All as it should' : 'The rest as it should' }}
        <kbd>Enter</kbd></v-btn
      >
      <button v-if="underWay" type="button" class="plain" @click="emit('enough')">
        That is all I saw <kbd>E</kbd>
      </button>
      <button v-if="more > 0 || showAll" type="button" class="plain" @click="showAll = !showAll">
        {{ showAll ? 'Fewer rows' : `${more} more rows` }} <kbd>M</kbd>
      </button>
      <button v-if="!underWay" type="button" class="plain" @click="emit('couldNot')">
        Could not do it <kbd>N</kbd>
      </button>
      <button type="button" class="plain" @click="emit('another')">Something else <kbd>A</kbd></button>
    </footer>
  </article>
</template>

<style scoped>
.act {
  gap: 6px;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
.price {
  color: var(--soft);
}
.price b {
  color: var(--ink);
  font-size: 1.25rem;
}
.how {
  font-size: 1.05rem;
  max-width: 72ch;
}
.why {
  color: var(--soft);
  max-width: 78ch;
}
.needs {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
}
.needs .label {
  margin-right: 6px;
}
.rows {
  list-style: none;
  margin: 2px 0 0;
  padding: 0;
  border-top: 1px solid var(--rule);
}
.row {
  display: grid;
  grid-template-columns: minmax(150px, 0.62fr) 2fr;
  gap: 4px 16px;
  align-items: center;
  padding: 3px 0 3px 10px;
  border-bottom: 1px solid var(--rule);
  border-left: 4px solid transparent;
}
.row.current {
  border-left-color: var(--green);
  background: var(--paper);
}
.what {
  font-weight: 600;
  line-height: 1.2;
}
.row.done .what {
  font-weight: 500;
  color: var(--soft);
}
.outcomes {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  gap: 6px;
}
/* More than four words do not fit one line at a metre's reading size. */
.outcomes.many {
  grid-auto-flow: row;
  grid-template-columns: repeat(3, minmax(0, 1fr));
}
.outcome {
  border: 1px solid var(--rule);
  border-radius: 3px;
  min-height: 44px;
  padding: 2px 8px;
  display: flex;
  gap: 7px;
  align-items: center;
  text-align: left;
  line-height: 1.15;
  font-size: 0.95rem;
  background: var(--sheet);
}
.current .outcome {
  border-color: var(--green);
}
.outcome:hover:not(:disabled),
.outcome:focus-visible {
  border-color: var(--green);
}
.outcome.said {
  background: var(--green);
  border-color: var(--green);
  color: var(--on-green);
  font-weight: 650;
}
.outcome.said.bad {
  background: var(--amber-ink);
  border-color: var(--amber-ink);
  color: var(--sheet);
}
footer {
  display: flex;
  gap: 8px 20px;
  align-items: center;
  flex-wrap: wrap;
  margin-top: 6px;
}
footer kbd {
  margin-left: 6px;
}
@media (max-width: 760px) {
  .row {
    grid-template-columns: 1fr;
  }
}
@media (max-width: 480px) {
  .outcomes {
    grid-auto-flow: row;
  }
  .outcomes.many {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
}
</style>
