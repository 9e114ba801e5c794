<script setup lang="ts">
import type { ContinuityColumn } from '~~/core/continuity/expected-continuity'
import { showOhms, type ContinuityReading, type JudgedWheel } from '~~/core/continuity/judge-continuity'
import type { EngineDescription } from '~~/core/engine/description-schema'
import type { PickupPoint } from '~~/core/engine/pickup-map'
import type { JobBook } from '~~/messages/book'
import { verdictSigns, verdictWords } from '~/drawing/verdict-signs'

/** Continuity wheel by wheel: one big prompt, three keys, and every wheel with what it said. */
const props = defineProps<{ book: JobBook; description: EngineDescription }>()
const session = useSessionStore()
const sheet = useContinuitySheet(
  () => props.book,
  () => props.description,
)
const { plan, judged, before, columns, current, chosen, placeOf, latest } = sheet
const headings: Readonly<Record<ContinuityColumn, string>> = {
  rim: 'Rim',
  own: 'Own lead',
  other: 'Other lead',
  chassis: 'Frame',
}

const typing = ref(false)
const typed = ref('')
const complaint = ref('')
const ohmsBox = ref<HTMLInputElement>()
// By its name: the same cell is a new object whenever the book is read again.
watch(
  () => `${current.value?.point} ${current.value?.column}`,
  () => {
    typing.value = false
    typed.value = ''
    complaint.value = ''
  },
)
const prompt = computed(() => (current.value ? placeOf(current.value) : null))
const wheelOf = (point: string): JudgedWheel | undefined => judged.value.find((entry) => entry.wheel.point === point)
/** What was last said of the cell in hand, or of the one just measured. */
const said = computed(() => {
  const cell = current.value
  return cell ? (wheelOf(cell.point)?.cells[cell.column] ?? null) : null
})
/** What the reading just taken said, while the next is being asked for. */
const lastSaid = computed(() => {
  const cell = latest.value
  const judgedCell = cell && wheelOf(cell.point)?.cells[cell.column]
  return cell && judgedCell
    ? { ...judgedCell, name: `${wheelOf(cell.point)?.wheel.name ?? ''}, ${headings[cell.column].toLowerCase()}` }
    : null
})
const doubtful = computed(() =>
  judged.value.flatMap((entry) =>
    columns.value.flatMap((column) => {
      const cell = entry.cells[column]
      return cell && !['good', 'idle'].includes(cell.verdict)
        ? [
            {
              key: `${entry.wheel.point}.${column}`,
              point: entry.wheel.point,
              column,
              name: `${entry.wheel.name}, ${headings[column].toLowerCase()}`,
              ...cell,
            },
          ]
        : []
    }),
  ),
)
const trucks = computed(() =>
  [...new Set(judged.value.map((entry) => entry.wheel.truck))].map((truck) => ({
    id: truck,
    name: props.description.trucks.find((entry) => entry.id === truck)?.name ?? 'Rollers and shoes',
    wheels: judged.value.filter((entry) => entry.wheel.truck === truck),
  })),
)
/** The wheel’s worst verdict stands for it on the drawing. */
const order = ['short', 'broken', 'high', 'uncertain', 'good', 'idle'] as const
const signs = computed(() =>
  Object.fromEntries(
    judged.value.flatMap((entry) => {
      const verdicts = new Set(Object.values(entry.cells).map((cell) => cell.verdict))
      const worst = order.find((verdict) => verdicts.has(verdict))
      return worst ? [[entry.wheel.point, verdictSigns[worst]]] : []
    }),
  ),
)
const title = (point: PickupPoint): string => {
  const entry = wheelOf(point.id)
  const cells = entry
    ? columns.value.flatMap((column) =>
        entry.cells[column] ? [`${headings[column].toLowerCase()} ${verdictWords[entry.cells[column].verdict]}`] : [],
      )
    : []
  return `${entry?.wheel.name ?? 'Plastic wheel'}${cells.length > 0 ? `: ${cells.join(', ')}` : entry ? ', not measured' : ''}`
}
const rails = computed(() =>
  (['plus', 'minus'] as const).map((rail) => {
    const collecting = judged.value.filter((entry) => entry.wheel.collects && entry.wheel.rail === rail)
    return {
      rail,
      name: props.description.nodes.find((node) => node.id === props.description.rails[rail])?.name ?? rail,
      fitted: collecting.length,
      measured: collecting.filter((entry) => entry.cells.own).length,
      carry: collecting.filter((entry) => entry.cells.own?.verdict === 'good').length,
    }
  }),
)
const readingWords = (reading: ContinuityReading | undefined): string =>
  !reading ? '' : reading.kind === 'ohms' ? showOhms(reading.ohms) : reading.kind
const inSelected = (point: string, column: ContinuityColumn): boolean =>
  current.value?.point === point && current.value.column === column

function note(kind: 'closed' | 'open'): void {
  if (current.value && session.mayWrite) void sheet.write(current.value, { kind })
}
function askOhms(): void {
  if (!current.value || !session.mayWrite) return
  typing.value = true
  void nextTick(() => ohmsBox.value?.focus())
}
async function noteOhms(): Promise<void> {
  if (current.value) complaint.value = await sheet.writeOhms(current.value, typed.value)
}
function strike(): void {
  if (current.value) void sheet.write(current.value, { kind: 'struck' })
}
function choose(
  point: string,
  column: ContinuityColumn = columns.value.find(
    (entry) => wheelOf(point)?.wheel.expected[entry] && !wheelOf(point)?.cells[entry],
  ) ?? 'rim',
): void {
  if (wheelOf(point)?.wheel.expected[column]) chosen.value = { point, column }
}
const emit = defineEmits<{ leave: [] }>()
// Both hands hold probes: the pedal writes the commonest reading.
useNextAction({
  label: computed(() => (current.value ? 'Closed' : 'Back to the search')),
  run: () => (current.value ? note('closed') : emit('leave')),
  back: sheet.back,
})
useBenchKeys([
  { key: '1', label: 'Closed', run: () => note('closed') },
  { key: '2', label: 'Open', run: () => note('open') },
  { key: '3', label: 'Type the ohms', run: askOhms },
])
</script>

<template>
  <div class="sheet">
    <p v-if="plan.wheels.length === 0" class="quiet">
      Nothing of this engine touches a rail with metal: there is no continuity to take.
    </p>
    <article v-else-if="prompt && current" class="card" :aria-label="`Next reading: ${prompt.what}`">
      <div class="over">
        <span class="label">{{ chosen ? 'Reading of your choice' : 'Next reading' }}</span><span class="quiet"
          >Supply off, engine off the track.</span
        >
      </div>
      <h2>{{ prompt.what }}</h2>
      <p>{{ prompt.how }}</p>
      <p v-if="said" class="sign" :class="`sign--${verdictSigns[said.verdict].tone}`">{{ said.words }}</p>
      <form v-if="typing" class="ohms" novalidate @submit.prevent="noteOhms">
        <label class="entry"
          ><input
            ref="ohmsBox"
            v-model="typed"
            inputmode="decimal"
            autocomplete="off"
            aria-label="Resistance in ohms"
            @keydown.esc="typing = false"
          /><span class="unit">Ω</span></label
        ><v-btn type="submit" color="primary" size="large">Enter <kbd>↵</kbd></v-btn>
        <p class="message" :class="complaint ? 'sign sign--fault' : ''" aria-live="polite">{{ complaint }}</p>
      </form>
      <div v-else class="outcomes">
        <button type="button" class="outcome" :disabled="!session.mayWrite" @click="note('closed')">
          <kbd>1</kbd><span>Closed</span>
        </button>
        <button type="button" class="outcome" :disabled="!session.mayWrite" @click="note('open')">
          <kbd>2</kbd><span>Open</span>
        </button>
        <button type="button" class="outcome" :disabled="!session.mayWrite" @click="askOhms">
          <kbd>3</kbd><span>Ohms …</span>
        </button>
      </div>
      <p v-if="lastSaid && !said" class="last">
        <span class="sign" :class="`sign--${verdictSigns[lastSaid.verdict].tone}`">{{ lastSaid.name }}</span>
        {{ lastSaid.words }}
      </p>
      <footer v-if="chosen || said">
        <button v-if="said && session.mayWrite" type="button" class="plain" @click="strike">Strike it out</button
        ><button v-if="chosen" type="button" class="plain" @click="chosen = null">On with the next</button>
      </footer>
    </article>
    <article v-else class="card" aria-label="Sheet full">
      <span class="label">Sheet full</span>
      <h2>Every wheel is measured</h2>
      <p>
        {{
          doubtful.length === 0 ? 'All of it as it should be.' : 'What is marked below goes to the search by itself.'
        }}
        Tap a reading to take it again.
      </p>
    </article>

    <EngineFromBelow
      :description="description"
      :signs="signs"
      :title="title"
      :selected="current?.point ?? null"
      selectable
      @select="choose($event)"
    />
    <div class="rails">
      <p v-for="entry in rails" :key="entry.rail">
        <b>{{ entry.name }}</b>
        <span class="figure count"
          >{{ entry.carry }}<i>/{{ entry.fitted }}</i></span
        >
        <span class="quiet"
          >{{ entry.fitted === 1 ? 'point carries' : 'points carry'
          }}{{ entry.measured < entry.fitted ? `, ${entry.fitted - entry.measured} not measured` : '' }}</span
        >
      </p>
    </div>
    <div class="grid" tabindex="0" role="group" aria-label="All readings">
      <table>
        <thead>
          <tr>
            <th scope="col">Wheel</th>
            <th v-for="column in columns" :key="column" scope="col">{{ headings[column] }}</th>
          </tr>
        </thead>
        <tbody v-for="truck in trucks" :key="truck.id ?? 'none'">
          <tr class="truck">
            <th :colspan="columns.length + 1" scope="rowgroup">{{ truck.name }}</th>
          </tr>
          <tr v-for="entry in truck.wheels" :key="entry.wheel.point">
            <th scope="row">
              {{ entry.wheel.name
              }}<span v-if="!entry.wheel.collects" class="quiet kind">{{ entry.wheel.tyre ? 'tyre' : 'idle' }}</span>
            </th>
            <td v-for="column in columns" :key="column">
              <button
                v-if="entry.wheel.expected[column]"
                type="button"
                class="cell"
                :class="{ now: inSelected(entry.wheel.point, column) }"
                :aria-label="`${entry.wheel.name}, ${headings[column]}: ${entry.cells[column] ? `${readingWords(entry.readings[column])}, ${verdictWords[entry.cells[column].verdict]}` : 'not measured'}`"
                @click="choose(entry.wheel.point, column)"
              >
                <svg
                  v-if="entry.cells[column]"
                  viewBox="-9 -9 18 18"
                  class="mark"
                  :class="`tone-${verdictSigns[entry.cells[column].verdict].tone}`"
                  aria-hidden="true"
                >
                  <path :d="verdictSigns[entry.cells[column].verdict].path" />
                </svg>
                <span :class="{ figure: entry.readings[column]?.kind === 'ohms' }">{{
                  readingWords(entry.readings[column]) || '–'
                }}</span>
                <span v-if="before?.[entry.wheel.point]?.[column]" class="was"
                  >was {{ readingWords(before[entry.wheel.point]?.[column]) }}</span
                >
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <section v-if="doubtful.length > 0" aria-label="What the sheet says">
      <h2>What the sheet says</h2>
      <ul class="ruled-list">
        <li v-for="entry in doubtful" :key="entry.key">
          <button type="button" class="doubt" @click="choose(entry.point, entry.column)">
            <span class="sign" :class="`sign--${verdictSigns[entry.verdict].tone}`"
              ><b>{{ entry.name }}</b></span
            ><span>{{ entry.words }}</span>
          </button>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.sheet {
  display: grid;
  gap: 14px;
  min-width: 0;
  grid-template-columns: minmax(0, 1fr);
}
.over {
  display: flex;
  justify-content: space-between;
  gap: 16px;
}
.last {
  color: var(--soft);
  font-size: 0.92rem;
}
.last .sign {
  font-weight: 600;
  margin-right: 6px;
}
.card {
  border: 2px solid var(--green);
  background: var(--sheet);
  padding: 14px 18px 10px;
  border-radius: 3px;
  display: grid;
  gap: 8px;
}
.card h2 {
  font-size: 1.5rem;
}
.outcomes {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 10px;
}
.outcome {
  border: 1.5px solid var(--green);
  border-radius: 3px;
  min-height: 66px;
  padding: 8px 14px;
  display: flex;
  gap: 12px;
  align-items: center;
  font-weight: 650;
  font-size: 1.1rem;
  background: var(--paper);
}
.outcome:hover:not(:disabled),
.outcome:focus-visible {
  background: var(--green);
  color: var(--on-green);
}
.ohms {
  display: flex;
  gap: 12px;
  align-items: center;
  min-height: 66px;
  flex-wrap: wrap;
}
.entry {
  display: flex;
  align-items: baseline;
  border-bottom: 2px solid var(--brass);
  background: var(--paper);
  padding: 2px 10px;
  width: 220px;
}
.entry input {
  font: 600 32px/1.3 var(--mono);
  color: var(--ink);
  width: 100%;
  min-width: 0;
  outline: none;
  border: 0;
  background: none;
}
.unit {
  color: var(--soft);
  font-weight: 550;
}
footer {
  display: flex;
  gap: 20px;
  align-items: center;
  flex-wrap: wrap;
}
.plain {
  font-weight: 600;
  color: var(--green);
  min-height: var(--target);
}
.rails {
  display: flex;
  gap: 6px 36px;
  flex-wrap: wrap;
}
.count {
  font-size: 1.5rem;
  font-weight: 650;
  margin: 0 4px 0 8px;
}
.count i {
  font-style: normal;
  color: var(--soft);
  font-weight: 500;
}
.grid {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
  min-width: 560px;
}
thead th {
  text-align: left;
  color: var(--soft);
  font-size: 0.82rem;
  font-weight: 550;
  padding: 4px 10px 4px 0;
}
.truck th {
  text-align: left;
  padding: 12px 0 4px;
  font-weight: 650;
  border-bottom: 1px solid var(--rule);
}
tbody th[scope='row'] {
  text-align: left;
  font-weight: 500;
  padding-right: 14px;
  width: 38%;
}
tbody tr:not(.truck) {
  border-bottom: 1px solid var(--rule);
}
td {
  padding: 0 10px 0 0;
}
.kind {
  margin-left: 10px;
}
.cell {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: var(--target);
  width: 100%;
  padding: 0 8px;
  border-radius: 3px;
  white-space: nowrap;
}
.cell:hover {
  background: var(--sunk);
}
.now {
  box-shadow: inset 0 0 0 2px var(--brass);
}
.mark {
  width: 18px;
  height: 18px;
  flex: none;
}
.mark path {
  fill: none;
  stroke: currentColor;
  stroke-width: 2.4;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.tone-sound {
  color: var(--sound-ink);
}
.tone-care {
  color: var(--amber-ink);
}
.tone-fault {
  color: var(--red);
}
.tone-ask {
  color: var(--soft);
}
.was {
  color: var(--soft);
  font-size: 0.8rem;
}
.doubt {
  display: grid;
  grid-template-columns: minmax(220px, 34%) 1fr;
  gap: 14px;
  width: 100%;
  text-align: left;
  min-height: var(--target);
  align-items: center;
}
@media (max-width: 600px) {
  .outcomes {
    grid-template-columns: 1fr 1fr 1fr;
  }
  .outcome {
    padding: 8px;
  }
  .outcome kbd {
    display: none;
  }
  .outcome {
    justify-content: center;
  }
  .doubt {
    grid-template-columns: 1fr;
    gap: 2px;
    padding: 8px 0;
  }
}
</style>
