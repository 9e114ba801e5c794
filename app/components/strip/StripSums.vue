<script setup lang="ts">
import type { StripPlan } from '~~/core/strip/plan-strip'
import { minutesInFigures } from '~~/work/minutes-in-figures'
import { shareInFigures } from '~~/work/share-in-figures'

/** What the plan comes to: the way in and back, what may break, and what it takes. */
defineProps<{ plan: StripPlan }>()
</script>

<template>
  <dl class="sums">
    <div>
      <dt>In</dt>
      <dd class="figure">{{ minutesInFigures(plan.minutes) }}</dd>
    </div>
    <div>
      <dt>Back</dt>
      <dd class="figure">{{ minutesInFigures(plan.refitMinutes) }}</dd>
    </div>
    <div>
      <dt>Something breaks</dt>
      <dd class="figure">{{ shareInFigures(plan.risk) }}</dd>
    </div>
    <div v-if="plan.leads > 0">
      <dt>Leads</dt>
      <dd>{{ plan.leads }}, iron hot first</dd>
    </div>
    <div v-if="plan.tools.length > 0">
      <dt>Tools</dt>
      <dd>{{ plan.tools.join(', ').replaceAll('-', ' ') }}</dd>
    </div>
  </dl>
</template>

<style scoped>
.sums {
  display: flex;
  gap: 6px 30px;
  flex-wrap: wrap;
  margin: 0;
}
.sums dt {
  color: var(--soft);
  font-size: 0.84rem;
}
.sums dd {
  margin: 0;
  font-weight: 600;
}
</style>
