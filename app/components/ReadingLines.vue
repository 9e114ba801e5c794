<script setup lang="ts">
import type { MachineFacts } from '~~/core/motor/sheet-reading'
import type { ReadingRow } from '~~/messages/book'
import { readingKinds } from '~~/messages/bench-entries'
import { readingDoubt } from '~~/work/sheet-readings'
import { showQuantity } from '~~/messages/reading-line'

/** The lines as written, newest first: struck out rather than erased. */
const props = defineProps<{ lines: readonly ReadingRow[]; machine: MachineFacts }>()
defineEmits<{ strike: [line: ReadingRow]; vouch: [line: ReadingRow]; correct: [line: ReadingRow] }>()
const session = useSessionStore()
const newestFirst = computed(() =>
  [...props.lines].reverse().map((line, index) => ({
    line,
    number: props.lines.length - index,
    doubt: line.struck ? null : readingDoubt(line, props.machine),
  })),
)

function wordsOf({ kind, direction, quantities, step }: ReadingRow): string {
  if (step && kind !== 'trial') return step
  if (kind === 'locked' && quantities.angle)
    return `Held at ${showQuantity('angle', quantities.angle).replace(' ', '')}`
  if (kind === 'running') return direction === 'reverse' ? 'Reverse' : 'Forward'
  return [readingKinds[kind], kind === 'timed' || kind === 'creep' ? direction : ''].filter(Boolean).join(', ')
}
const valuesOf = ({ quantities, kind }: ReadingRow): string[] => {
  if (kind === 'stops') return [`${quantities.stops?.value} in ${quantities.laps?.value} laps`]
  if (kind === 'trial') return [`failed ${quantities.failures?.value} of ${quantities.attempts?.value}`]
  return Object.entries(quantities)
    .filter(([name]) => name !== 'angle' && name !== 'hold')
    .map(([name, quantity]) => showQuantity(name as keyof ReadingRow['quantities'], quantity))
}
</script>

<template>
  <p v-if="lines.length === 0" class="quiet">No readings yet. Type the first one above: digits, Enter, next.</p>
  <ol v-else class="lines" aria-label="Readings" reversed>
    <li
      v-for="{ line, number, doubt } in newestFirst"
      :key="line.id"
      :class="{ struck: line.struck, doubtful: doubt, stepped: line.step }"
    >
      <span class="number quiet figure">{{ number }}</span>
      <span class="kind"
        >{{ wordsOf(line)
        }}<span v-if="line.source === 'measured'" class="measured" title="Read by an instrument">measured</span></span
      >
      <span class="values figure"
        ><span v-for="(value, index) in valuesOf(line)" :key="index" :class="{ alone: valuesOf(line).length === 1 }">{{
          value
        }}</span></span
      >
      <span v-if="session.mayWrite" class="acts"
        ><button v-if="!line.struck && line.source === 'typed'" type="button" @click="$emit('correct', line)">
          Correct</button
        ><button type="button" @click="$emit('strike', line)">{{ line.struck ? 'Bring back' : 'Strike' }}</button></span
      >
      <span v-if="doubt" class="doubt"
        ><span class="sign sign--care">{{ doubt }}</span
        ><v-btn v-if="session.mayWrite" size="small" variant="outlined" @click="$emit('vouch', line)"
          >It is right</v-btn
        ></span
      >
    </li>
  </ol>
</template>

<style scoped>
.lines {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 24px 84px minmax(0, 1fr) max-content;
  gap: 2px 10px;
  align-items: center;
  border-top: 1px solid var(--rule);
  min-height: 40px;
}
.stepped {
  grid-template-columns: 24px minmax(0, 1fr) max-content max-content;
}
.stepped .values {
  grid-template-columns: 70px 84px;
}
.measured {
  display: block;
  color: var(--brass-ink);
  font-size: 0.72rem;
  line-height: 1;
}
.kind {
  font-weight: 550;
  font-size: 0.92rem;
}
.values {
  display: grid;
  grid-template-columns: 70px 84px minmax(0, 1fr);
  gap: 6px;
  font-size: 0.92rem;
}
.values span {
  text-align: right;
  white-space: nowrap;
}
.values .alone {
  grid-column: 1 / -1;
  text-align: left;
  padding-left: 12px;
}
.struck .values,
.struck .kind {
  text-decoration: line-through;
  text-decoration-thickness: 2px;
  color: var(--soft);
}
.acts button {
  color: var(--soft);
  font-weight: 550;
  min-height: var(--target);
  padding: 0 4px;
  font-size: 0.86rem;
}
.acts button:hover {
  color: var(--ink);
  text-decoration: underline;
}
.doubt {
  grid-column: 2 / -1;
  display: flex;
  gap: 12px;
  align-items: center;
  padding-bottom: 8px;
  font-size: 0.92rem;
}
@media (max-width: 600px) {
  li,
  .stepped {
    grid-template-columns: 22px 1fr max-content;
  }
  .values {
    grid-column: 2 / -1;
  }
  .acts {
    grid-row: 1;
    grid-column: 3;
  }
}
</style>
