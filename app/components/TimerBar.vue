<script setup lang="ts">
import { v7 as newId } from 'uuid'

const { timers, ringing, now, dialogOpen, begin, stop } = useTimers()
const label = ref('')
const minutes = ref('10')
const usual = [2, 5, 10, 30, 60]
const minutesNumber = computed(() => Number(minutes.value.replace(',', '.')))

function left(endsAt: number): string {
  const seconds = Math.max(0, Math.round((endsAt - now.value) / 1000))
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`
}

function start(): void {
  if (!(minutesNumber.value > 0)) return
  begin(newId(), label.value.trim() || 'Timer', minutesNumber.value)
  label.value = ''
  dialogOpen.value = false
}

useBenchKeys([
  {
    key: 't',
    label: 'Timer',
    run: () => {
      dialogOpen.value = true
    },
  },
])
</script>

<template>
  <div v-if="timers.length > 0" class="timers not-printed" aria-label="Timers">
    <button
      v-for="timer in timers"
      :key="timer.id"
      type="button"
      class="timer"
      :class="{ ringing: ringing.includes(timer) }"
      @click="stop(timer.id)"
    >
      <span class="figure">{{ left(timer.endsAt) }}</span> {{ timer.label }}
      <span class="quiet">{{ ringing.includes(timer) ? 'done: stop it' : 'stop' }}</span>
    </button>
  </div>
  <v-dialog v-model="dialogOpen" max-width="420">
    <v-card title="Timer">
      <v-card-text>
        <v-text-field
          v-model="label"
          label="What for"
          autofocus
          placeholder="Glue, drying, run-in"
          @keydown.enter="start"
        />
        <v-text-field
          v-model="minutes"
          label="Minutes"
          inputmode="decimal"
          :error-messages="minutesNumber > 0 ? [] : ['Minutes in digits, more than 0.']"
          @keydown.enter="start"
        />
        <div class="usual">
          <v-btn v-for="choice in usual" :key="choice" variant="outlined" @click="minutes = String(choice)">{{
            choice
          }}</v-btn>
        </div>
      </v-card-text>
      <v-card-actions
        ><v-btn variant="outlined" @click="dialogOpen = false">Leave</v-btn><v-spacer /><v-btn
          color="primary"
          variant="flat"
          @click="start"
          >Start</v-btn
        ></v-card-actions
      >
    </v-card>
  </v-dialog>
</template>

<style scoped>
.timers {
  position: fixed;
  right: 16px;
  top: 60px;
  z-index: 1100;
  display: flex;
  flex-direction: column;
  gap: 6px;
  align-items: end;
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
.usual {
  display: flex;
  gap: 8px;
  margin-top: 14px;
  flex-wrap: wrap;
}
</style>
