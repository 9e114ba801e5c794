<script setup lang="ts">
/** Words to tap, any number: what is tapped stays marked, and a second tap takes it back. */
defineProps<{ label: string; hint?: string; items: ReadonlyArray<{ readonly id: string; readonly words: string }> }>()
const chosen = defineModel<readonly string[]>({ required: true })
function tap(id: string): void {
  chosen.value = chosen.value.includes(id) ? chosen.value.filter((other) => other !== id) : [...chosen.value, id]
}
</script>

<template>
  <div role="group" :aria-label="label" class="tap">
    <span class="label">{{ label }}</span>
    <span v-if="hint" class="quiet">{{ hint }}</span>
    <div class="words">
      <button
        v-for="item in items"
        :key="item.id"
        type="button"
        :aria-pressed="chosen.includes(item.id)"
        @click="tap(item.id)"
      >
        {{ item.words }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.tap {
  display: grid;
  gap: 4px;
}
.words {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
button {
  min-height: var(--target);
  padding: 0 14px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--sheet);
  text-align: left;
}
button:hover {
  border-color: var(--brass);
}
[aria-pressed='true'] {
  background: var(--green);
  border-color: var(--green);
  color: var(--on-green);
  font-weight: 600;
}
@media (max-width: 600px) {
  button {
    padding: 6px 10px;
  }
}
</style>
