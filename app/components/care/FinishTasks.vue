<script setup lang="ts">
import type { EngineDescription } from '~~/core/engine/description-schema'
import { inSentence } from '~~/core/engine/name-in-sentence'
import type { JobBook } from '~~/messages/book'
import { finishOfJob, type JobFinish } from '~~/work/finish-of-job'

/** Finish and detail, only where the owner wants them: each step with its wait, and what is near mint left as it is. */
const props = defineProps<{ book: JobBook; description: EngineDescription }>()
const session = useSessionStore()
const timers = useTimerStore()
const steps = useCareSteps(computed(() => props.book))
const finish = computed(() => finishOfJob(props.book, props.description))
const onList = computed(() => finish.value.tasks.filter((task) => task.onList))
const others = computed(() => finish.value.tasks.filter((task) => !task.onList))
const barred = (task: JobFinish): boolean => task.refused !== '' && task.word === ''
const overruling = ref('')
const word = ref('')

const want = (task: JobFinish, wanted: boolean, why = ''): Promise<void> =>
  steps.add({ kind: 'finish', task: task.id, wanted, word: why, words: task.name })
async function overrule(task: JobFinish): Promise<void> {
  const why = word.value.trim()
  if (!why) return
  overruling.value = ''
  word.value = ''
  await want(task, true, why)
}
async function done(task: JobFinish): Promise<void> {
  const step = task.steps[task.done]
  if (!step) return
  await steps.add({
    kind: 'finished',
    task: task.id,
    step: task.done + 1,
    words: `${task.name}: ${step.words}`.slice(0, 300),
  })
  if (step.waitMinutes > 0)
    await timers.begin(`${step.waitFor}: ${inSentence(task.name)}`.slice(0, 120), step.waitMinutes, {
      jobId: props.book.job.id,
      station: 'mend',
    })
}
const mint = (so: boolean): Promise<void> =>
  steps.add({ kind: 'near-mint', so, words: so ? 'Near mint: its outside is left as it is' : 'Not near mint' })
const wait = (minutes: number): string => (minutes >= 120 ? `${Math.round(minutes / 60)} h` : `${minutes} min`)
</script>

<template>
  <section class="finish" aria-label="Finish and detail">
    <header>
      <h2>Finish and detail</h2>
      <label v-if="session.mayWrite" class="mint"
        ><input
          type="checkbox"
          :checked="finish.nearMint"
          @change="mint(($event.target as HTMLInputElement).checked)"
        />Near mint</label
      >
    </header>
    <p v-if="onList.length === 0" class="quiet">Only where the owner wants it. Nothing is asked for.</p>
    <article v-for="task in onList" :key="task.id" :aria-label="task.name">
      <h3>
        {{ task.name }}
        <span class="label">{{
          task.done >= task.steps.length ? 'done' : `step ${task.done + 1} of ${task.steps.length}`
        }}</span>
      </h3>
      <template v-if="barred(task)">
        <p class="sign sign--fault">{{ task.refused }}</p>
        <form v-if="overruling === task.id" class="word" @submit.prevent="overrule(task)">
          <v-text-field v-model="word" v-focus-first label="Why all the same, in a word" density="compact" />
          <v-btn type="submit" variant="outlined">Keep it</v-btn>
        </form>
      </template>
      <template v-else>
        <p v-if="task.word" class="sign sign--care">All the same: “{{ task.word }}”</p>
        <ol>
          <li
            v-for="(step, index) in task.steps"
            :key="step.words"
            :class="{ done: index < task.done, now: index === task.done }"
          >
            <span>{{ step.words }}</span><span class="figure">{{ step.minutes }} min</span
            ><span v-if="index === task.done && step.caution" class="sign sign--care wide">{{ step.caution }}</span
            ><span v-if="index === task.done && step.waitMinutes > 0" class="quiet wide"
              >{{ step.waitFor }}, {{ wait(step.waitMinutes) }}: a timer begins.</span
            >
          </li>
        </ol>
      </template>
      <footer v-if="session.mayWrite">
        <v-btn v-if="!barred(task) && task.done < task.steps.length" variant="outlined" @click="done(task)"
          >Done: step {{ task.done + 1 }}</v-btn
        >
        <button v-if="barred(task) && overruling !== task.id" type="button" class="plain" @click="overruling = task.id">
          All the same …
        </button>
        <button v-if="task.done === 0" type="button" class="plain" @click="want(task, false)">Not wanted</button>
      </footer>
    </article>
    <div v-if="session.mayWrite && others.length > 0" class="others">
      <span class="label">The owner wants as well</span>
      <button v-for="task in others" :key="task.id" type="button" class="plain" @click="want(task, true)">
        {{ task.name }}
      </button>
    </div>
  </section>
</template>

<style scoped>
.finish {
  display: grid;
  gap: 10px;
  border-top: 1px solid var(--rule);
  padding-top: 12px;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.mint {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: var(--target);
}
.mint input {
  width: 22px;
  height: 22px;
  accent-color: var(--green);
}
article {
  border-left: 3px solid var(--rule);
  padding: 2px 0 2px 14px;
  display: grid;
  gap: 4px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 70px;
  gap: 2px 12px;
  padding: 5px 0;
  color: var(--soft);
}
li.now {
  color: var(--ink);
  font-weight: 600;
}
li.done > span:first-child {
  text-decoration: line-through;
}
li .figure {
  text-align: right;
}
.wide {
  grid-column: 1 / -1;
  font-weight: 400;
}
footer,
.others {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: center;
}
.word {
  display: flex;
  gap: 12px;
  align-items: center;
}
</style>
