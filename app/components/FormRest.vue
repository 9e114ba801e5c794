<script setup lang="ts">
/** What is wrong in the lists of a form, where no field stands to say it at. */
const props = defineProps<{ problems: Readonly<Record<string, string>> | undefined }>()
const sentences = computed(() => [
  ...new Set(
    Object.entries(props.problems ?? {})
      .filter(([field]) => field.includes('.'))
      .map(([, sentence]) => sentence),
  ),
])
</script>

<template>
  <p v-for="sentence in sentences" :key="sentence" class="sign sign--fault problem wide">{{ sentence }}</p>
</template>
