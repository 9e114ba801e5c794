<script setup lang="ts">
defineProps<{ title: string; text: string; action?: string; to?: string }>()
defineEmits<{ act: [] }>()
const session = useSessionStore()
</script>

<template>
  <div class="empty">
    <h2>{{ title }}</h2>
    <p class="quiet">{{ text }}</p>
    <v-btn
      v-if="action && session.mayWrite"
      color="primary"
      variant="outlined"
      v-bind="to ? { to } : {}"
      @click="$emit('act')"
      >{{ action }}</v-btn
    >
  </div>
</template>

<style scoped>
.empty {
  border: 1.5px dashed var(--rule);
  padding: 26px 30px;
  display: grid;
  gap: 8px;
  justify-items: start;
}
.empty .v-btn {
  margin-top: 6px;
}
</style>
