<script setup lang="ts">
import type { Circumstance, Equipment } from '~~/core/knowledge/knowledge-schema'
import type { RunningSince } from '~~/core/care/due-list'
import { circumstanceWords } from '~~/work/circumstance-words'
import type { JobSearch } from '~~/work/search-history'

/** What is known of the engine's past, what is off it, and what the bench lacks: all of it weighs in the advice. */
const props = defineProps<{
  search: JobSearch
  removable: ReadonlyArray<{ id: string; name: string }>
  mayWrite: boolean
}>()
interface Known {
  circumstances: Circumstance[]
  off: string[]
  missing: Equipment[]
  running: RunningSince
}
const emit = defineEmits<{ known: [entry: Known] }>()
const words = circumstanceWords
const pieces: ReadonlyArray<readonly [Equipment, string]> = [
  ['milliammeter', 'Milliammeter'],
  ['ohmmeter', 'Ohmmeter'],
  ['voltmeter', 'Voltmeter'],
  ['supply', 'Bench supply'],
  ['caliper', 'Caliper'],
  ['second-engine', 'A second engine'],
  ['dcc-system', 'DCC system'],
  ['programming-track', 'Programming track'],
]
const change = (part: Partial<Known>): void =>
  emit('known', {
    circumstances: [...props.search.circumstances],
    off: [...props.search.off],
    missing: [...props.search.missing],
    running: { ...props.search.running },
    ...part,
  })
const runningBoxes: ReadonlyArray<readonly [keyof RunningSince, string]> = [
  ['hoursSinceOil', 'h since oiled'],
  ['hoursSinceWipe', 'h since wiped'],
  ['shows', 'shows'],
  ['yearsIdle', 'years lain'],
]
const MOST = 20_000
const refused = ref('')
/** What is no number from nought up leaves what was there, and the box says so. */
function setRunning(key: keyof RunningSince, box: HTMLInputElement): void {
  const text = box.value.trim().replace(',', '.')
  const typed = text === '' ? null : Number(text)
  refused.value =
    typed === null || (typed >= 0 && typed <= MOST)
      ? ''
      : `“${box.value}” is no number of hours, shows or years: nothing was changed.`
  if (refused.value) box.value = props.search.running[key] === null ? '' : String(props.search.running[key])
  else if (typed !== props.search.running[key]) change({ running: { ...props.search.running, [key]: typed } })
}
function toggled<T extends string>(list: readonly T[], entry: T): T[] {
  return list.includes(entry) ? list.filter((other) => other !== entry) : [...list, entry]
}
/** In the order they are shown. */
const known = Object.keys(words) as Circumstance[]
</script>

<template>
  <details class="known">
    <summary>
      What is known
      <span class="quiet"
        >{{
          known
            .filter((entry) => search.circumstances.includes(entry))
            .map((entry) => words[entry]?.toLowerCase())
            .join(', ') || 'nothing of its past yet'
        }}{{ search.off.length > 0 ? `; ${search.off.length} parts off` : '' }}</span
      >
    </summary>
    <div class="groups">
      <fieldset>
        <legend class="label">Why it came, and its past</legend>
        <label v-for="entry in known" :key="entry"
          ><input
            type="checkbox"
            :checked="search.circumstances.includes(entry)"
            :disabled="!mayWrite"
            @change="change({ circumstances: toggled(search.circumstances, entry) })"
          />
          {{ words[entry] }}</label
        >
      </fieldset>
      <fieldset>
        <legend class="label">Off the engine now</legend>
        <label v-for="part in removable" :key="part.id"
          ><input
            type="checkbox"
            :checked="search.off.includes(part.id)"
            :disabled="!mayWrite"
            @change="change({ off: toggled(search.off, part.id) })"
          />
          {{ part.name }}</label
        >
      </fieldset>
      <fieldset class="since">
        <legend class="label">Run since</legend>
        <label v-for="[key, name] in runningBoxes" :key="key"
          ><input
            type="text"
            inputmode="decimal"
            :value="search.running[key] ?? ''"
            :disabled="!mayWrite"
            @change="setRunning(key, $event.target as HTMLInputElement)"
          />
          {{ name }}</label
        >
        <p v-if="refused" class="sign sign--care" role="alert">{{ refused }}</p>
      </fieldset>
      <fieldset>
        <legend class="label">On the bench</legend>
        <label v-for="[piece, name] in pieces" :key="piece"
          ><input
            type="checkbox"
            :checked="!search.missing.includes(piece)"
            :disabled="!mayWrite"
            @change="change({ missing: toggled(search.missing, piece) })"
          />
          {{ name }}</label
        >
      </fieldset>
    </div>
  </details>
</template>

<style scoped>
.known {
  border-top: 1px solid var(--rule);
  border-bottom: 1px solid var(--rule);
}
summary {
  min-height: var(--target);
  display: flex;
  gap: 2px 14px;
  align-items: center;
  cursor: pointer;
  font-weight: 600;
  white-space: nowrap;
}
summary .quiet {
  white-space: normal;
  font-weight: 400;
}
summary::before {
  content: '›';
  font-size: 1.2rem;
  color: var(--brass-ink);
  transition: none;
}
[open] summary::before {
  transform: rotate(90deg);
}
.groups {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 18px;
  padding: 4px 0 14px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  max-height: 330px;
  overflow-y: auto;
}
legend {
  padding: 0;
  margin-bottom: 4px;
}
label {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 34px;
}
input {
  width: 20px;
  height: 20px;
  accent-color: var(--green);
  flex: none;
}
.since input {
  width: 64px;
  height: 36px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  padding: 0 8px;
  text-align: right;
  font-family: var(--mono);
  background: var(--sheet);
  color: var(--ink);
}
@media (max-width: 900px) {
  .groups {
    grid-template-columns: 1fr;
  }
}
@media (max-width: 600px) {
  summary {
    flex-wrap: wrap;
    padding: 8px 0;
  }
  summary .quiet {
    flex-basis: 100%;
    padding-left: 22px;
  }
}
</style>
