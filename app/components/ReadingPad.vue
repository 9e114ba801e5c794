<script setup lang="ts">
import { plainCopy } from '~/forms/plain-copy'
import type { MeterRow, ReadingRow, SheetRow } from '~~/messages/book'
import { readingKinds, typedKinds, type ReadingFields, type TypedKind } from '~~/messages/readings/reading-kinds'
import { lineQuantities } from '~~/messages/readings/recorded-quantity'
import { isDirected, understandLine, type ReadingLine, type SpeedBy } from '~~/messages/readings/typed-line'

/** One line at a time: digits, Enter, next. Letters choose the way: f, r, h in any box. */
const props = defineProps<{
  sheet: SheetRow
  meters: { voltage: MeterRow | null; current: MeterRow | null }
  trial: string
  attempts: number
  corrected: ReadingRow | null
  keep: (fields: ReadingFields) => Promise<void>
}>()
const emit = defineEmits<{ typing: [fields: ReadingFields | null]; leave: [] }>()

const initial = (): ReadingLine & { speedBy: SpeedBy; distance: string } => ({
  kind: props.sheet.withMeter ? 'running' : 'timed',
  direction: 'forward',
  typed: {},
  speedBy: 'none',
  distance: '',
})
const { draft } = useDraft(`reading.${props.sheet.id}`, initial)
const root = ref<HTMLElement>()
const tried = ref(false)
const boxesOf = (kind: TypedKind) =>
  readingKinds[kind].boxes(draft.value.speedBy).map((entry) => ({ ...entry, ...lineQuantities[entry.name] }))
const boxes = computed(() => boxesOf(draft.value.kind))
const understood = computed(() => understandLine(draft.value, draft.value.speedBy, props.meters))
const kinds = computed<TypedKind[]>(() =>
  typedKinds.filter((kind) =>
    readingKinds[kind].offered.some((by) => by === (props.sheet.withMeter ? 'meter' : 'watch')),
  ),
)
const directed = computed(() => isDirected(draft.value.kind))
watch(
  () => understood.value.fields,
  (fields) => emit('typing', fields && draft.value.kind !== 'dead' ? fields : null),
)
onBeforeUnmount(() => emit('typing', null))

watch(
  () => props.corrected,
  (line) => {
    const kind = typedKinds.find((entry) => entry === line?.kind)
    if (!line || !kind) return
    const typed = Object.fromEntries(
      Object.entries(line.quantities).map(([name, quantity]) => [name, quantity?.typed ?? '']),
    )
    draft.value = {
      ...draft.value,
      kind,
      direction: 'direction' in line ? line.direction : 'forward',
      typed,
      speedBy:
        line.kind !== 'running'
          ? draft.value.speedBy
          : line.quantities.rotation
            ? 'rotation'
            : line.quantities.duration
              ? 'timed'
              : draft.value.speedBy,
    }
    focusBox(0)
  },
)

function choose(kind: TypedKind, direction = draft.value.direction): void {
  const spoken = kind === 'locked' ? 'forward' : direction
  draft.value = {
    ...draft.value,
    kind,
    direction: spoken,
    typed: kind === 'trial' ? { attempts: String(props.attempts) } : keepShared(kind),
  }
  tried.value = false
  focusBox(0)
}

/** Volts and amps already typed stay when only the kind of line changes; a distance stays with its run. */
function keepShared(kind: TypedKind): ReadingLine['typed'] {
  const names = new Set(boxesOf(kind).map((entry) => entry.name))
  const kept = Object.fromEntries(Object.entries(draft.value.typed).filter(([name]) => names.has(name as never)))
  return names.has('distance') && !kept.distance ? { ...kept, distance: draft.value.distance } : kept
}

function onKey(event: KeyboardEvent, index: number): void {
  if (event.key === 'Enter') {
    event.preventDefault()
    const input = boxes.value[index + 1]
    if (input && !(draft.value.typed[input.name] ?? '').trim()) return focusBox(index + 1)
    return void commit()
  }
  if (
    event.ctrlKey ||
    event.metaKey ||
    event.altKey ||
    event.key.length !== 1 ||
    (draft.value.typed[boxes.value[index]?.name ?? 'voltage'] ?? '') !== ''
  )
    return
  const ways: Record<string, () => void> = {
    f: () =>
      choose(
        directed.value ? (draft.value.kind === 'locked' ? 'running' : draft.value.kind) : (kinds.value[0] ?? 'running'),
        'forward',
      ),
    r: () =>
      choose(
        directed.value ? (draft.value.kind === 'locked' ? 'running' : draft.value.kind) : (kinds.value[0] ?? 'running'),
        'reverse',
      ),
    ...(props.sheet.withMeter ? { h: () => choose('locked') } : {}),
  }
  const way = ways[event.key.toLowerCase()]
  if (way) {
    event.preventDefault()
    way()
  }
}

function focusBox(index: number): void {
  void nextTick(() => root.value?.querySelectorAll<HTMLInputElement>('.box input')[index]?.focus())
}

async function commit(): Promise<void> {
  const { fields, errors, missing } = understood.value
  tried.value = true
  if (!fields) {
    const wrong = boxes.value.findIndex((entry) => errors[entry.name] || entry.name === missing)
    return focusBox(Math.max(0, wrong))
  }
  const handedOver = plainCopy(draft.value)
  const keeping = props.keep(fields)
  const distance = draft.value.typed.distance ?? draft.value.distance
  draft.value = {
    ...draft.value,
    distance,
    typed:
      draft.value.kind === 'trial'
        ? { attempts: String(props.attempts) }
        : boxes.value.some((entry) => entry.name === 'distance')
          ? { distance }
          : {},
  }
  tried.value = false
  focusBox(boxes.value[0]?.name === 'distance' && distance ? 1 : 0)
  const emptied = JSON.stringify(draft.value)
  await keeping.catch((error: unknown) => {
    if (JSON.stringify(draft.value) === emptied) draft.value = handedOver
    throw error
  })
}

const messageOf = (name: keyof ReadingLine['typed']): string =>
  understood.value.errors[name] ?? (tried.value && understood.value.missing === name ? 'Still empty.' : '')
const message = computed(() => boxes.value.map((entry) => messageOf(entry.name)).find(Boolean) ?? '')
useBenchKeys([{ key: 'm', label: 'Type a reading', run: () => focusBox(0) }])
</script>

<template>
  <form ref="root" class="pad" :class="{ correcting: corrected }" novalidate @submit.prevent="commit">
    <div class="kinds">
      <div v-if="sheet.withMeter" class="choice" role="radiogroup" aria-label="What is read">
        <button
          type="button"
          role="radio"
          :aria-checked="draft.kind === 'running' && draft.direction === 'forward'"
          :class="{ on: draft.kind === 'running' && draft.direction === 'forward' }"
          @click="choose('running', 'forward')"
        >
          Forward<kbd>F</kbd>
        </button>
        <button
          type="button"
          role="radio"
          :aria-checked="draft.kind === 'running' && draft.direction === 'reverse'"
          :class="{ on: draft.kind === 'running' && draft.direction === 'reverse' }"
          @click="choose('running', 'reverse')"
        >
          Reverse<kbd>R</kbd>
        </button>
        <button
          v-for="kind in kinds.slice(1)"
          :key="kind"
          type="button"
          role="radio"
          :aria-checked="draft.kind === kind"
          :class="{ on: draft.kind === kind }"
          @click="choose(kind)"
        >
          {{ readingKinds[kind].name }}<kbd v-if="kind === 'locked'">H</kbd>
        </button>
      </div>
      <div v-else class="choice" role="radiogroup" aria-label="What is read">
        <button
          v-for="kind in kinds"
          :key="kind"
          type="button"
          role="radio"
          :aria-checked="draft.kind === kind"
          :class="{ on: draft.kind === kind }"
          @click="choose(kind)"
        >
          {{ readingKinds[kind].name }}
        </button>
      </div>
      <div v-if="directed && !sheet.withMeter" class="choice" role="radiogroup" aria-label="Direction">
        <button
          type="button"
          role="radio"
          :aria-checked="draft.direction === 'forward'"
          :class="{ on: draft.direction === 'forward' }"
          @click="choose(draft.kind, 'forward')"
        >
          Forward<kbd>F</kbd>
        </button>
        <button
          type="button"
          role="radio"
          :aria-checked="draft.direction === 'reverse'"
          :class="{ on: draft.direction === 'reverse' }"
          @click="choose(draft.kind, 'reverse')"
        >
          Reverse<kbd>R</kbd>
        </button>
      </div>
    </div>
    <p v-if="draft.kind === 'trial'" class="quiet">The complaint as a trial: {{ trial }}</p>
    <p v-else-if="draft.kind === 'dead'" class="quiet">
      Nothing moves. The voltage tried, if it was read; Enter keeps it.
    </p>
    <div class="boxes">
      <label
        v-for="(entry, index) in boxes"
        :key="`${draft.kind}-${entry.name}`"
        class="box"
        :class="{ wrong: messageOf(entry.name) }"
      >
        <span class="label">{{ entry.label }}</span>
        <span class="entry"
          ><input
            v-model="draft.typed[entry.name]"
            :inputmode="entry.kind === 'count' ? 'numeric' : 'decimal'"
            autocomplete="off"
            spellcheck="false"
            enterkeyhint="next"
            :aria-label="`${entry.label} in ${entry.unit}`"
            :aria-invalid="messageOf(entry.name) ? true : undefined"
            :aria-describedby="messageOf(entry.name) ? 'pad-message' : undefined"
            @keydown="onKey($event, index)"
          /><span class="unit">{{ entry.unit }}</span></span
        >
      </label>
      <v-btn type="submit" color="primary" class="enter">{{ corrected ? 'Correct' : 'Enter' }} <kbd>↵</kbd></v-btn>
    </div>
    <div class="foot">
      <p id="pad-message" class="message" :class="message ? 'sign sign--fault' : ''" aria-live="polite">
        {{ message }}
      </p>
      <label v-if="draft.kind === 'running'" class="speed quiet"
        >Speed by
        <select v-model="draft.speedBy">
          <option value="none">none</option>
          <option value="rotation">motor rpm</option>
          <option value="timed">timed distance</option>
        </select></label
      >
      <button v-if="corrected" type="button" class="leave" @click="emit('leave')">Leave the line as it is</button>
    </div>
  </form>
</template>

<style scoped>
.pad {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  padding-bottom: 6px;
}
.correcting {
  border-left: 4px solid var(--brass);
  padding-left: 12px;
}
.kinds {
  display: flex;
  gap: 8px 16px;
  flex-wrap: wrap;
}
.choice {
  display: flex;
  flex-wrap: wrap;
  row-gap: 4px;
}
.choice button {
  border: 1px solid var(--rule);
  margin-left: -1px;
  padding: 0 10px;
  min-height: var(--target);
  font-weight: 550;
  display: inline-flex;
  gap: 7px;
  align-items: center;
  color: var(--soft);
  font-size: 0.94rem;
}
.choice button.on {
  background: var(--sheet);
  color: var(--ink);
  font-weight: 650;
  box-shadow: inset 0 -3px 0 var(--brass);
}
.boxes {
  display: flex;
  gap: 12px;
  align-items: end;
  flex-wrap: wrap;
}
.box {
  display: grid;
  flex: 1 1 104px;
  min-width: 0;
  max-width: 190px;
}
.entry {
  display: flex;
  align-items: baseline;
  border-bottom: 2px solid var(--steel);
  background: var(--sheet);
  padding: 2px 8px;
}
.box:focus-within .entry {
  border-bottom-color: var(--brass);
}
.box.wrong .entry {
  border-bottom-color: var(--red);
}
.entry input {
  font: 600 32px/1.3 var(--mono);
  font-variant-numeric: tabular-nums;
  color: var(--ink);
  width: 100%;
  min-width: 0;
  outline: none;
  border: 0;
  background: none;
  padding: 0;
}
.unit {
  color: var(--soft);
  font-weight: 550;
  padding-left: 4px;
}
.enter {
  height: 54px !important;
}
.message {
  flex: 1;
  font-size: 0.94rem;
  line-height: 1.3;
}
.foot {
  display: flex;
  gap: 16px;
  align-items: center;
  justify-content: space-between;
  min-height: 40px;
}
.speed select {
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
  border: 0;
  border-bottom: 1px solid var(--steel);
  border-radius: 0;
  min-height: 36px;
  padding: 0 6px;
}
.speed {
  flex: none;
}
@media (max-width: 600px) {
  .choice kbd,
  .enter kbd {
    display: none;
  }
  .choice button {
    flex: 1;
    justify-content: center;
  }
}
.leave {
  color: var(--soft);
  font-weight: 550;
  min-height: var(--target);
}
</style>
