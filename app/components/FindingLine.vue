<script setup lang="ts">
import type { FindingRow } from '~~/messages/book'
import { findingOrigins, findingStates } from '~~/messages/vocabulary'

const props = defineProps<{ finding: FindingRow }>()
const signs = {
  suspected: 'sign--ask',
  confirmed: 'sign--fault',
  mended: 'sign--sound',
  left: 'sign--care',
  declined: 'sign--care',
  'ruled-out': 'sign--ask',
} as const
const sign = computed(() => signs[props.finding.state])
</script>

<template>
  <div class="finding">
    <span class="sign" :class="sign">{{ findingStates[finding.state] }}</span><span
      ><strong>{{ finding.what }}</strong
      ><span v-if="finding.place" class="quiet">, {{ finding.place }}</span
      ><span v-if="finding.origin !== 'arrived'" class="quiet"> · {{ findingOrigins[finding.origin] }}</span
      ><span v-if="finding.remedy" class="quiet remedy">{{ finding.remedy }}</span></span
    >
  </div>
</template>

<style scoped>
.finding {
  display: grid;
  grid-template-columns: 170px 1fr;
  gap: 12px;
}
.finding .sign {
  font-weight: 600;
  font-size: 0.9rem;
  align-self: start;
}
.remedy {
  display: block;
}
@media (max-width: 600px) {
  .finding {
    grid-template-columns: 1fr;
    gap: 2px;
  }
}
</style>
