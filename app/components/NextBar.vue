<script setup lang="ts">
/** The next action: the largest thing on the screen, on Space or the foot pedal. */
const next = currentNextAction()
const session = useSessionStore()
</script>

<template>
  <div v-if="next && session.mayWrite" class="bar not-printed">
    <button v-if="next.back" type="button" class="back" @click="next.back()">Back <kbd>⌫</kbd></button>
    <button type="button" class="next" @click="next.run()"><span>{{ unref(next.label) }}</span><kbd>Space</kbd></button>
  </div>
</template>

<style scoped>
.bar { position: fixed; left: 50%; transform: translateX(-50%); bottom: 14px; z-index: 900; display: flex; gap: 10px; max-width: calc(100vw - 24px); }
.next { display: flex; align-items: center; gap: 18px; background: var(--green); color: var(--on-green); font-weight: 650; font-size: 1.1rem; padding: 0 26px; min-height: 56px; border-radius: 3px; box-shadow: 0 2px 10px rgb(0 0 0 / 0.18); max-width: 100%; }
.next span { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.next:hover { filter: brightness(1.12); }
.back { background: var(--sheet); border: 1px solid var(--rule); color: var(--ink); padding: 0 18px; min-height: 56px; font-weight: 600; border-radius: 3px; display: flex; align-items: center; gap: 8px; }
:deep(kbd) { opacity: 0.9; }
@media (max-width: 600px) { .bar { bottom: 8px; } .next { padding: 0 18px; font-size: 1rem; } .back { padding: 0 12px; } }
</style>
