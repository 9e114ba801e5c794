<script setup lang="ts">
import { cellName, cellKey, type Cell } from '~~/core/strip/tray'
import type { TrayFields } from '~~/messages/strip-entries'
import type { LyingPart } from '~~/work/strip-state'

/** A tray as it lies on the bench: what is in each cell, the next cell marked, the thing looked for lit up. */
const props = defineProps<{
  tray: TrayFields
  lying: readonly LyingPart[]
  next: Cell | null
  lit: ReadonlySet<string>
  nameOf: (part: string) => string
}>()
const emit = defineEmits<{ pick: [part: string] }>()
const cells = computed(() =>
  Array.from({ length: props.tray.rows * props.tray.columns }, (_, index): Cell => ({
    tray: props.tray.id,
    row: Math.floor(index / props.tray.columns) + 1,
    column: (index % props.tray.columns) + 1,
  })).map((cell) => ({
    cell,
    name: cellName(cell),
    thing: props.lying.find((entry) => entry.cell && cellKey(entry.cell) === cellKey(cell)) ?? null,
    isNext: props.next !== null && cellKey(props.next) === cellKey(cell),
  })),
)
const kind = computed(() =>
  [props.tray.magnetic ? 'magnetic' : '', props.tray.lid ? 'with a lid' : ''].filter(Boolean).join(', '),
)
</script>

<template>
  <figure class="tray" :class="{ magnetic: tray.magnetic }">
    <figcaption>
      <b>{{ tray.name }}</b> <span class="quiet">{{ kind }}</span>
    </figcaption>
    <ol class="cells" :style="{ gridTemplateColumns: `repeat(${tray.columns}, minmax(0, 1fr))` }">
      <li v-for="{ name, thing, isNext } in cells" :key="name">
        <button
          type="button"
          class="cell"
          :class="{ full: thing, next: isNext, lit: thing && lit.has(thing.part) }"
          :disabled="!thing"
          :aria-label="
            thing ? `${name}: ${nameOf(thing.part)}` : isNext ? `${name}: the next goes here` : `${name}: empty`
          "
          @click="thing && emit('pick', thing.part)"
        >
          <span class="where">{{ name }}</span>
          <span v-if="thing" class="what"
            >{{ thing.count > 1 ? `${thing.count} × ` : '' }}{{ nameOf(thing.part) }}</span
          >
          <span v-else-if="isNext" class="what">here</span>
        </button>
      </li>
    </ol>
  </figure>
</template>

<style scoped>
.tray {
  margin: 0;
  border: 2px solid var(--steel);
  border-radius: 6px;
  padding: 8px 10px 10px;
  background: var(--sunk);
}
.magnetic {
  border-style: double;
  border-width: 5px;
}
figcaption {
  margin-bottom: 6px;
}
.cells {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
.cell {
  width: 100%;
  min-height: 58px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--paper);
  padding: 3px 5px;
  text-align: left;
  display: grid;
  align-content: start;
  font-size: 0.76rem;
  line-height: 1.15;
  overflow: hidden;
}
.where {
  color: var(--soft);
  font-size: 0.72rem;
}
.what {
  overflow-wrap: break-word;
  hyphens: auto;
  display: -webkit-box;
  -webkit-line-clamp: 3;
  -webkit-box-orient: vertical;
  overflow: hidden;
}
.full {
  background: var(--sheet);
  border-color: var(--steel);
}
.next {
  border: 2.5px dashed var(--brass);
}
.next .what {
  font-weight: 650;
  color: var(--brass-ink);
}
.lit {
  border: 3px solid var(--green);
}
</style>
