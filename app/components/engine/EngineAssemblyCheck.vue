<script setup lang="ts">
import { predictAssembly, reversals, type AssemblyOutcome } from '~~/core/diagnosis/places/polarity'
import type { EngineDescription, Turnable } from '~~/core/engine/description-schema'
import { inSentence } from '~~/core/engine/name-in-sentence'
import { runningPositions } from '~~/core/engine/pickup-map'

/** What the engine will do when parts went back the other way round, and the least that mends it. */
const props = defineProps<{ description: EngineDescription }>()

const turned = ref<string[]>([])
watch(
  () => props.description.id,
  () => {
    turned.value = []
  },
)
const chosen = computed(() => props.description.turnables.filter((entry) => turned.value.includes(entry.id)))
const condition = computed(() => ({ switches: runningPositions(props.description) }))
const supply = computed(() => (props.description.power === 'dcc' ? ('dcc' as const) : ('dc' as const)))
const sound = computed(() => predictAssembly(props.description, [], condition.value, supply.value))
const outcome = computed(() => predictAssembly(props.description, chosen.value, condition.value, supply.value))
const words: Readonly<Record<AssemblyOutcome, string>> = {
  forward: 'It runs forward',
  reverse: 'It runs the wrong way',
  short: 'A dead short: do not put it on the track',
  'fights-itself': 'Its trucks pull against each other',
  still: 'It does not run',
}
const asBefore = computed(() => outcome.value === sound.value)
const asDone = (entry: Turnable): string =>
  turned.value.includes(entry.id) ? `Undo: ${inSentence(entry.name)}` : entry.name
const mending = computed(() =>
  asBefore.value || chosen.value.length === 0
    ? []
    : reversals(props.description, chosen.value, new Set(), condition.value, supply.value)
        .filter((entry) => entry.outcome === sound.value && Number.isFinite(entry.minutes))
        .slice(0, 3),
)
</script>

<template>
  <section v-if="description.turnables.length" class="assembly">
    <h2>The other way round</h2>
    <v-select
      v-model="turned"
      multiple
      chips
      closable-chips
      :items="description.turnables.map((entry) => ({ value: entry.id, title: entry.name }))"
      label="Went back like this"
    />
    <p aria-live="polite" class="sign" :class="asBefore ? 'sign--sound' : 'sign--fault'">
      {{ words[outcome] }}{{ asBefore && chosen.length ? ', as if nothing were turned' : '' }}.
    </p>
    <template v-if="!asBefore">
      <ol v-if="mending.length">
        <li v-for="entry in mending" :key="entry.turnables.map(({ id }) => id).join()">
          {{ entry.turnables.map(asDone).join(', and ') }}
          <span class="quiet">{{ Math.round(entry.minutes) }} min with getting there and back</span>
        </li>
      </ol>
      <p v-if="mending.length" class="quiet">Any one of these rights it, the shortest first.</p>
      <p v-else class="quiet">No single turn or pair of turns rights it: undo what is named above.</p>
    </template>
    <p v-else-if="chosen.length === 0" class="quiet">
      Choose what may have been mirrored: direction or short is told before the shell goes on.
    </p>
  </section>
</template>

<style scoped>
.assembly {
  display: grid;
  gap: 8px;
  border-top: 1px solid var(--rule);
  padding-top: 10px;
}
.assembly h2 {
  margin: 0;
}
ol {
  padding-left: 22px;
}
li + li {
  margin-top: 6px;
}
</style>
