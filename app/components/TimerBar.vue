<script setup lang="ts">
import { stationIds } from '~~/messages/vocabulary'
import { timeLeft } from '~~/work/time-left'

/** Waits of the shop, on every screen; a stop is one touch, `T` begins one for the job on the screen. */
const timers = useTimerStore()
const session = useSessionStore()
const route = useRoute()
onMounted(timers.start)
useBell(computed(() => timers.ringing.length > 0))
const label = ref('')
const minutes = ref('10')
const usual = [2, 5, 10, 30, 60]
const MOST_MINUTES = 60 * 24 * 14
const minutesNumber = computed(() => Number(minutes.value.replace(',', '.')))
const minutesSound = computed(() => minutesNumber.value > 0 && minutesNumber.value <= MOST_MINUTES)

/** A wait of hours stands on the Bench until its last hour; it rings everywhere. */
const FLOATING_MS = 60 * 60_000
const near = computed(() => timers.timers.filter((timer) => Date.parse(timer.endsAt) - timers.now < FLOATING_MS))

/** The job on the screen, if any: the wait is its own. */
const here = computed(() => {
  if (!route.path.startsWith('/jobs/') || typeof route.params.id !== 'string') return null
  const station = stationIds.find((id) => id === route.params.station) ?? 'take-in'
  return { jobId: route.params.id, station }
})

async function start(): Promise<void> {
  if (!minutesSound.value || !session.mayWrite) return
  timers.dialogOpen = false
  await timers.begin(label.value.trim() || 'Timer', minutesNumber.value, here.value)
  label.value = ''
}

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
  <v-dialog v-model="timers.dialogOpen" max-width="420">
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
          :error-messages="minutesSound ? [] : ['Minutes in digits: more than 0, at most two weeks.']"
          @keydown.enter="start"
        />
        <div class="usual">
          <v-btn v-for="choice in usual" :key="choice" variant="outlined" @click="minutes = String(choice)">{{
            choice
          }}</v-btn>
        </div>
      </v-card-text>
      <v-card-actions
        ><v-btn variant="outlined" @click="timers.dialogOpen = false">Leave</v-btn><v-spacer /><v-btn
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
