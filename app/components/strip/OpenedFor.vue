<script setup lang="ts">
import type { JobStrip } from '~~/work/strip-of-job'

/** What it is opened for, what the job asks for besides, and the dialog in which both are chosen. */
const props = defineProps<{ strip: JobStrip; goalWords: (id: string) => string }>()
const emit = defineEmits<{ goals: [ids: readonly string[]] }>()
const session = useSessionStore()
const choosing = ref(false)
const wanted = ref<string[]>([])

const take = (ids: readonly string[]): void => emit('goals', [...new Set([...props.strip.chosen, ...ids])])
function takeAll(): void {
  if (props.strip.suggested.length > 0 && session.mayWrite) take(props.strip.suggested.map(({ goal }) => goal))
}
function choose(): void {
  wanted.value = [...props.strip.chosen]
  choosing.value = true
}
function keep(): void {
  choosing.value = false
  emit('goals', wanted.value)
}
useBenchKeys([
  { key: 'g', label: 'What it is opened for', run: choose },
  { key: 'j', label: 'All the job asks for', run: takeAll },
])
</script>

<template>
  <section class="for" aria-label="What it is opened for">
    <span class="label">Opened for</span>
    <ul>
      <li v-for="id in strip.chosen" :key="id">{{ goalWords(id) }}</li>
      <li v-if="strip.chosen.length === 0" class="quiet">nothing yet</li>
    </ul>
    <button v-if="session.mayWrite" type="button" class="plain" @click="choose">Change <kbd>G</kbd></button>
  </section>
  <section v-if="strip.suggested.length > 0 && session.mayWrite" class="asks" aria-label="The job asks for">
    <span class="label">The job asks for</span>
    <button v-for="entry in strip.suggested" :key="entry.goal" type="button" @click="take([entry.goal])">
      <b>{{ goalWords(entry.goal) }}</b><span class="quiet">{{ entry.why }}</span>
    </button>
    <button v-if="strip.suggested.length > 1" type="button" class="plain" @click="takeAll">
      All of it <kbd>J</kbd>
    </button>
  </section>
  <v-dialog v-model="choosing" max-width="640">
    <v-card title="What is it opened for?">
      <v-card-text>
        <v-autocomplete
          v-model="wanted"
          v-focus-first
          :items="strip.goals.map((goal) => ({ value: goal.id, title: goal.words }))"
          label="Places, parts, the usual words"
          multiple
          chips
          closable-chips
        />
        <p class="quiet">All of it is planned together: what is reached anyway costs nothing more.</p>
      </v-card-text>
      <v-card-actions
        ><v-btn variant="outlined" @click="choosing = false">Leave it</v-btn
        ><v-btn variant="flat" color="primary" @click="keep">Plan it</v-btn></v-card-actions
      >
    </v-card>
  </v-dialog>
</template>

<style scoped>
.for {
  display: flex;
  gap: 10px 14px;
  align-items: center;
  flex-wrap: wrap;
}
.for ul {
  display: flex;
  gap: 4px 16px;
  flex-wrap: wrap;
  list-style: none;
  margin: 0;
  padding: 0;
  font-weight: 600;
}
.asks {
  display: flex;
  gap: 6px 10px;
  align-items: center;
  flex-wrap: wrap;
}
.asks > button:not(.plain) {
  display: flex;
  gap: 4px 10px;
  align-items: baseline;
  flex-wrap: wrap;
  min-height: var(--target);
  padding: 6px 12px;
  border: 1px dashed var(--brass);
  border-radius: 3px;
  text-align: left;
}
</style>
