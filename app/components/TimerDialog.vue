<script setup lang="ts">
import { stationIds } from '~~/messages/vocabulary'

/** A wait begun: what for, how many minutes; of the job on the screen, if there is one. */
const timers = useTimerStore()
const session = useSessionStore()
const route = useRoute()
const label = ref('')
const minutes = ref('10')
const usual = [2, 5, 10, 30, 60]
const MOST_MINUTES = 60 * 24 * 14
const minutesNumber = computed(() => Number(minutes.value.replace(',', '.')))
const minutesSound = computed(() => minutesNumber.value > 0 && minutesNumber.value <= MOST_MINUTES)

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
</script>

<template>
  <v-dialog v-model="timers.dialogOpen" max-width="420">
    <v-card title="Timer">
      <v-card-text>
        <v-text-field
          v-model="label"
          v-focus-first
          label="What for"
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
.usual {
  display: flex;
  gap: 8px;
  margin-top: 14px;
  flex-wrap: wrap;
}
</style>
