<script setup lang="ts">
import type { MachineFacts } from '~~/core/motor/sheet-reading'
import type { ReadingRow } from '~~/messages/book'
import { lineInWords, typedKinds } from '~~/messages/readings/reading-kinds'
import { readingDoubt } from '~~/work/sheet-readings'

/** The lines as written, newest first: struck out rather than erased. */
const props = defineProps<{ lines: readonly ReadingRow[]; machine: MachineFacts }>()
defineEmits<{ strike: [line: ReadingRow]; vouch: [line: ReadingRow]; correct: [line: ReadingRow] }>()
const session = useSessionStore()
const newestFirst = computed(() =>
  [...props.lines].reverse().map((line, index) => ({
    line,
    number: props.lines.length - index,
    doubt: line.struck ? null : readingDoubt(line, props.machine),
    // A name of its own needs more room than a kind does.
    named: !(typedKinds as readonly string[]).includes(line.kind),
    ...lineInWords(line),
  })),
)
</script>

<template>
  <p v-if="lines.length === 0" class="quiet">No readings yet. Type the first one above: digits, Enter, next.</p>
  <ol v-else class="lines" aria-label="Readings" reversed>
    <li
      v-for="{ line, number, doubt, words, values, named } in newestFirst"
      :key="line.id"
      :class="{ struck: line.struck, doubtful: doubt, stepped: named }"
    >
      <span class="number quiet figure">{{ number }}</span>
      <span class="kind"
        >{{ words
        }}<span v-if="line.source === 'measured'" class="measured" title="Read by an instrument">measured</span></span
      >
      <span class="values figure"
        ><span v-for="(value, index) in values" :key="index" :class="{ alone: values.length === 1 }">{{
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
