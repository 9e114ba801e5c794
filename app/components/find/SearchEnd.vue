<script setup lang="ts">
import { atStart } from '~~/core/engine/name-in-sentence'
import type { SearchReport } from '~~/core/diagnosis/report/search-report'
import { chanceInFigures } from '~~/work/chance-in-figures'

/** The end of a search: what was found, what may still be there with its chance and the price of looking, and no more. */
const props = defineProps<{
  report: SearchReport
  jobId: string
  found: readonly string[]
  mayWrite: boolean
  /** Null where there is nothing to take back. */
  undo: (() => void) | null
}>()
const emit = defineEmits<{ another: [] }>()
const done = computed(() => (props.report.advice.kind === 'done' ? props.report.advice : null))
const left = computed(() =>
  (done.value?.left ?? []).map((entry) => ({
    ...entry,
    words: props.report.suspects.find(({ id }) => id === entry.suspect)?.words ?? entry.suspect,
  })),
)
// What was found is mended and the trial has passed: the pedal leads where the card does, not through the stations between.
const prove = computed(() => `/jobs/${props.jobId}/prove`)
useNextAction({
  label: computed(() => 'To Prove'),
  active: computed(() => done.value !== null),
  run: () => void navigateTo(prove.value),
  get back() {
    return props.undo ?? undefined
  },
})
</script>

<template>
  <article v-if="done" class="card end" aria-label="Search ended">
    <span class="label">{{ done.passed ? 'Search ended' : 'No further' }}</span>
    <h2>{{ done.passed ? 'Nothing left to look for' : 'Nothing more that looking would tell' }}</h2>
    <p>{{ done.why }}</p>
    <div class="two">
      <section v-if="found.length > 0" aria-label="Found in this search">
        <h3>Found</h3>
        <ul>
          <li v-for="words in found" :key="words">{{ atStart(words) }}</li>
        </ul>
      </section>
      <section v-if="left.length > 0" aria-label="What may be left">
        <h3>May be there all the same</h3>
        <dl>
          <template v-for="entry in left" :key="entry.suspect"
            ><dt>{{ atStart(entry.words) }}</dt>
            <dd class="figure">{{ chanceInFigures(entry.chance) }}</dd>
            <dd class="figure quiet">{{ Math.round(entry.minutes) }} min to look</dd></template
          >
        </dl>
      </section>
    </div>
    <footer>
      <v-btn size="large" color="primary" :to="prove">To Prove</v-btn>
      <button v-if="mayWrite" type="button" class="plain" @click="emit('another')">
        Look all the same <kbd>A</kbd>
      </button>
    </footer>
  </article>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1.5fr;
  gap: 8px 32px;
}
h3 {
  font-size: 0.95rem;
}
ul {
  margin: 2px 0;
  padding: 0;
  list-style: none;
}
li {
  border-top: 1px solid var(--rule);
  padding: 3px 0;
}
dl {
  margin: 2px 0;
  display: grid;
  grid-template-columns: 1fr max-content max-content;
  gap: 3px 16px;
}
dd {
  margin: 0;
  text-align: right;
}
footer {
  display: flex;
  gap: 20px;
  align-items: center;
}
@media (max-width: 760px) {
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
