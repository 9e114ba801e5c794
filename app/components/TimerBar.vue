<script setup lang="ts">
import { timeLeft } from '~~/work/time-left'

/** Waits of the shop, on every screen; a stop is one touch, `T` begins one for the job on the screen. */
const timers = useTimerStore()
const session = useSessionStore()
onMounted(timers.start)
useBell(computed(() => timers.ringing.length > 0))
/** A wait of hours stands on the Bench until its last hour; it rings everywhere. */
const FLOATING_MS = 60 * 60_000
const near = computed(() => timers.timers.filter((timer) => Date.parse(timer.endsAt) - timers.now < FLOATING_MS))

useBenchKeys([
  {
    key: 't',
    label: 'Timer',
    run: () => {
      if (session.mayWrite) timers.dialogOpen = true
    },
  },
])
</script>

<template>
  <div v-if="near.length > 0" class="timers not-printed" aria-label="Timers">
    <button
      v-for="timer in near"
      :key="timer.id"
      type="button"
      class="timer"
      :class="{ ringing: timers.ringing.includes(timer) }"
      :disabled="!session.mayWrite"
      @click="timers.stop(timer.id)"
    >
      <span class="figure">{{ timeLeft(timer.endsAt, timers.now) }}</span> {{ timer.label }}
      <span class="quiet">{{ timers.ringing.includes(timer) ? 'done: stop it' : 'stop' }}</span>
    </button>
  </div>
</template>

<style scoped>
/* A row of its own above the screen that stays in sight: it lies over nothing that is to be pressed. */
.timers {
  position: sticky;
  top: 0;
  z-index: 1100;
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 6px;
  padding: 6px 28px;
  background: var(--paper);
  border-bottom: 1px solid var(--rule);
}
.timer {
  background: var(--sheet);
  border: 1px solid var(--brass);
  padding: 6px 14px;
  min-height: var(--target);
  font-weight: 600;
}
.timer .figure {
  font-size: 1.2rem;
  margin-right: 8px;
}
.ringing {
  background: var(--amber);
  color: #1d1200;
  border-color: var(--amber);
}
.ringing .quiet {
  color: #1d1200;
}
</style>
