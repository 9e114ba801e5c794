<script setup lang="ts">
import type { EngineDescription } from '~~/core/engine/description-schema'
import type { Cell } from '~~/core/strip/tray'
import type { TrayFields } from '~~/messages/strip-entries'
import type { LyingPart } from '~~/work/strip-state'

/** The trays in use beside the step: what lies where, where the next thing goes, and where something is. */
const props = defineProps<{
  jobId: string
  description: EngineDescription
  /** Every tray of the shop. */
  all: readonly TrayFields[]
  /** Those in use. */
  trays: readonly TrayFields[]
  lying: readonly LyingPart[]
  /** The cell the next thing goes into. */
  next: Cell | null
}>()
const emit = defineEmits<{ use: [trays: readonly string[]] }>()
const paper = useFreshPaper()
const looked = ref('')
const picked = ref<string | null>(null)

const parts = computed(() => new Map(props.description.parts.map((part) => [part.id, part])))
const nameOf = (id: string): string => parts.value.get(id)?.name ?? id
const lit = computed(() => {
  const words = looked.value.trim().toLowerCase()
  return new Set(
    props.lying
      .map(({ part }) => part)
      .filter((part) => part === picked.value || (words !== '' && nameOf(part).toLowerCase().includes(words))),
  )
})
const pickedThing = computed(() => props.lying.find((thing) => thing.part === picked.value) ?? null)
function toggle(id: string): void {
  const now = props.trays.map((tray) => tray.id)
  emit('use', now.includes(id) ? now.filter((other) => other !== id) : [...now, id])
}
</script>

<template>
  <div class="trays">
    <p v-if="trays.length === 0" class="quiet">
      The shop has no trays in its book: <NuxtLink to="/workshop">enter them</NuxtLink>, and each thing gets a cell.
    </p>
    <TrayDrawing
      v-for="tray in trays"
      :key="tray.id"
      :tray="tray"
      :lying="lying"
      :next="next"
      :lit="lit"
      :name-of="nameOf"
      @pick="picked = picked === $event ? null : $event"
    />
    <p v-if="pickedThing" class="picked" role="status">
      <b>{{ nameOf(pickedThing.part) }}</b><template v-if="pickedThing.way">: {{ pickedThing.way }}</template
      ><span v-if="parts.get(pickedThing.part)?.removal?.wayBack" class="quiet">
        {{ parts.get(pickedThing.part)?.removal?.wayBack }}</span
      >
    </p>
    <a
      v-if="lying.length > 0"
      class="plain"
      :href="`/api/jobs/${jobId}/tray-labels`"
      target="_blank"
      @click="paper.open"
      >Labels (PDF)</a
    >
    <p v-if="paper.late.value" class="quiet" role="status">{{ paper.words }}</p>
    <v-text-field
      v-if="lying.length > 3"
      v-model="looked"
      label="Where is …"
      density="compact"
      hide-details
      clearable
    />
    <div v-if="all.length > 1" class="which">
      <span class="label">Trays</span>
      <button
        v-for="tray in all"
        :key="tray.id"
        type="button"
        class="plain"
        :aria-pressed="trays.some((entry) => entry.id === tray.id)"
        @click="toggle(tray.id)"
      >
        {{ tray.name }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.trays {
  display: grid;
  gap: 10px;
}
.which {
  display: flex;
  gap: 4px 14px;
  align-items: center;
  flex-wrap: wrap;
}
.plain[aria-pressed='true'] {
  box-shadow: inset 0 -3px 0 var(--brass);
}
.picked {
  border-left: 3px solid var(--green);
  padding-left: 10px;
}
</style>
