<script setup lang="ts">
import { cautions } from '~~/work/cautions'
import type { StationId } from '~~/messages/vocabulary'

const props = defineProps<{ station: StationId }>()
const lines = computed(() => cautions[props.station] ?? [])
</script>

<template>
  <div v-if="lines.length > 0" class="caution" role="note">
    <p v-for="line in lines" :key="line">{{ line }}</p>
  </div>
</template>
