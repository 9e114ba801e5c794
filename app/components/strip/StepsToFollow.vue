<script setup lang="ts">
import type { StripStep } from '~~/core/strip/plan-strip'
import { minutesInFigures } from '~~/work/minutes-in-figures'

/** What comes off after the step in hand; by its grip or its arrow a thing is wanted sooner. */
defineProps<{ steps: readonly StripStep[]; goalWords: (id: string) => string; mayWrite: boolean }>()
const emit = defineEmits<{ move: [from: number, to: number] }>()
const list = useTemplateRef<HTMLElement>('list')
useDragOrder(list, (from, to) => emit('move', from, to))
</script>

<template>
  <section aria-label="What follows">
    <h2>Then</h2>
    <ol ref="list">
      <li v-for="(step, index) in steps" :key="step.part">
        <span v-if="mayWrite" class="order"
          ><span class="grip" title="Drag it to where it is wanted" aria-hidden="true">⠿</span
          ><button
            type="button"
            class="plain"
            :aria-label="`${step.name}: one earlier`"
            @click="emit('move', index, index - 1)"
          >
            ↑
          </button></span
        >
        <span class="name">{{ step.name }}</span><span class="quiet">{{ step.group.replaceAll('-', ' ') }}</span
        ><span class="figure">{{ minutesInFigures(step.minutes) }}</span
        ><span v-if="step.reaches.length > 0" class="reaches">{{ step.reaches.map(goalWords).join(', ') }}</span>
      </li>
    </ol>
  </section>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) 110px max-content;
  gap: 0 12px;
  align-items: center;
  min-height: var(--target);
  border-top: 1px solid var(--rule);
  background: var(--paper);
}
.order {
  display: flex;
  align-items: center;
  gap: 4px;
}
.grip {
  cursor: grab;
  color: var(--soft);
  padding: 8px 6px;
  touch-action: none;
}
.name {
  grid-column: 2;
}
.figure {
  text-align: right;
  white-space: nowrap;
}
.reaches {
  grid-column: 2 / -1;
  color: var(--sound-ink);
  font-size: 0.9rem;
}
</style>
