<script setup lang="ts">
import type { DueCare } from '~~/core/care/due-list'

/** What care an engine is due for, by hours, shows and years. */
defineProps<{ due: readonly DueCare[]; title: string }>()
const states: Readonly<Record<DueCare['state'], string>> = { soon: 'soon', due: 'due now', overdue: 'overdue' }
</script>

<template>
  <section aria-label="Care that is due">
    <h2>{{ title }}</h2>
    <ul class="ruled-list">
      <li v-for="entry in due" :key="entry.id" class="due">
        <b>{{ entry.name }}</b><span class="sign" :class="entry.state === 'overdue' ? 'sign--fault' : 'sign--care'">{{
          states[entry.state]
        }}</span
        ><span class="quiet figure">{{ entry.words }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.due {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 110px 150px;
  gap: 12px;
  align-items: baseline;
}
.due .figure {
  text-align: right;
}
@media (max-width: 600px) {
  .due {
    grid-template-columns: minmax(0, 1fr) max-content;
  }
  .due .figure {
    grid-column: 1 / -1;
    text-align: left;
  }
}
</style>
