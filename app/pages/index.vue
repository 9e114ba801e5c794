<script setup lang="ts">
import { showAgo, showMoment } from '~~/work/describe-due'
import { timeLeft } from '~~/work/time-left'
import { problemSentence } from '~/stores/problem-sentence'
import type { BenchToday } from '~~/messages/book'

/** The day: what is on the bench, what waits, what went out, and what was written last. */
const bench = shallowRef<BenchToday | null>(null)
const failure = ref('')
const router = useRouter()
const session = useSessionStore()
const outbox = useOutbox()
const timers = useTimerStore()
const NuxtLink = resolveComponent('NuxtLink')

async function load(): Promise<void> {
  try {
    bench.value = await $fetch<BenchToday>('/api/bench')
    failure.value = ''
  } catch (error) {
    failure.value = problemSentence(error)
  }
}
onMounted(load)
onBeforeUnmount(outbox.onAcknowledged(() => void load()))
useEventListener(
  () => window,
  'focus',
  () => void load(),
)

const first = computed(() => bench.value?.onBench[0] ?? null)
const today = new Date().toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long' })
const nextLabel = computed(() =>
  first.value ? `Go on with ${first.value.number}, ${first.value.engineName}` : 'Take in the first engine',
)
useNextAction({
  label: nextLabel,
  run: () => void router.push(first.value ? `/jobs/${first.value.id}/${first.value.station}` : '/take-in'),
})
useBenchKeys([{ key: 'n', label: 'Take in an engine', run: () => void router.push('/take-in') }])
</script>

<template>
  <div class="page">
    <div class="page-head">
      <div>
        <h1>{{ today }}</h1>
      </div>
      <dl v-if="bench" class="counts">
        <div>
          <dd class="numeral">{{ bench.counts.onBench }}</dd>
          <dt>on the bench</dt>
        </div>
        <div>
          <dd class="numeral">{{ bench.counts.waiting }}</dd>
          <dt>waiting</dt>
        </div>
        <div :class="{ late: bench.counts.overdue > 0 }">
          <dd class="numeral">{{ bench.counts.overdue }}</dd>
          <dt :class="bench.counts.overdue > 0 ? 'sign sign--fault' : ''">late</dt>
        </div>
        <div>
          <dd class="numeral">{{ bench.counts.handedBackThisMonth }}</dd>
          <dt>out this month</dt>
        </div>
      </dl>
      <v-btn v-if="session.mayWrite" class="push" variant="outlined" color="primary" to="/take-in"
        >Take in an engine <kbd>N</kbd></v-btn
      >
    </div>
    <p v-if="failure" class="sign sign--care" role="alert">{{ failure }}</p>
    <template v-if="bench">
      <EmptyState
        v-if="bench.counts.onBench + bench.counts.waiting === 0"
        title="The bench is clear"
        text="Jobs in hand hang here as tags, the most pressing first."
        action="Take in an engine"
        to="/take-in"
      />
      <section v-if="bench.onBench.length > 0" aria-label="On the bench">
        <div class="tags"><JobTag v-for="tag in bench.onBench" :key="tag.id" :tag="tag" /></div>
        <p v-if="bench.counts.onBench > bench.onBench.length" class="more">
          <NuxtLink to="/jobs?states=open">All {{ bench.counts.onBench }} on the bench</NuxtLink>
        </p>
      </section>
      <section v-if="timers.timers.length > 0" aria-labelledby="waits-head" class="waits">
        <h2 id="waits-head">Waits by themselves</h2>
        <ul class="ruled-list">
          <li v-for="timer in timers.timers" :key="timer.id">
            <component
              :is="timer.jobId ? NuxtLink : 'span'"
              :to="timer.jobId ? `/jobs/${timer.jobId}/${timer.station ?? ''}` : undefined"
              class="wait"
            >
              <b>{{ timer.label }}</b><span class="quiet">until {{ showMoment(timer.endsAt) }}</span
              ><span class="figure">{{ timeLeft(timer.endsAt, timers.now) }}</span>
            </component>
          </li>
        </ul>
      </section>
      <div class="columns columns--with-side lower">
        <section v-if="bench.waiting.length > 0" aria-labelledby="waiting-head">
          <h2 id="waiting-head">Waiting</h2>
          <ul class="ruled-list">
            <li v-for="tag in bench.waiting" :key="tag.id">
              <NuxtLink :to="`/jobs/${tag.id}/${tag.station}`" class="row"
                ><span class="figure no">{{ tag.number }}</span
                ><span class="what"
                  ><strong>{{ tag.engineName }}</strong> <span class="quiet">{{ tag.ownerName }}</span></span
                ><span class="for">{{ tag.waitingFor || 'no reason noted' }}</span></NuxtLink
              >
            </li>
          </ul>
        </section>
        <aside aria-labelledby="book-head">
          <h2 id="book-head">Written last</h2>
          <ul class="latest">
            <li v-for="line in bench.latest" :key="line.sequence">
              <NuxtLink :to="`/jobs/${line.jobId}`"
                ><span class="figure">{{ line.jobNumber }}</span> {{ line.summary }}</NuxtLink
              ><span class="quiet">{{ line.person.split(' ')[0] }}, {{ showAgo(line.capturedAt) }}</span>
            </li>
          </ul>
        </aside>
      </div>
    </template>
    <NextBar />
  </div>
</template>

<style scoped>
.waits {
  margin-top: 18px;
}
.wait {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 200px 110px;
  gap: 12px;
  align-items: center;
  min-height: 32px;
  color: inherit;
  text-decoration: none;
}
.wait .figure {
  text-align: right;
}
@media (max-width: 600px) {
  .wait {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .wait .quiet {
    grid-row: 2;
  }
}
.counts {
  display: flex;
  gap: 30px;
  margin: 0 0 0 18px;
  align-items: baseline;
}
.counts div {
  display: flex;
  align-items: baseline;
  gap: 8px;
}
.counts dd {
  margin: 0;
}
.counts dt {
  color: var(--soft);
  font-size: 0.92rem;
}
.late dt {
  color: var(--red);
}
.counts .numeral {
  font-size: 26px;
  font-weight: 600;
}
.tags {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(272px, 1fr));
  gap: 14px 26px;
  padding: 4px 0 0 8px;
}
.more {
  margin-top: 12px;
}
.lower {
  margin-top: 34px;
}
.lower h2 {
  margin-bottom: 8px;
}
.row {
  display: grid;
  grid-template-columns: 64px minmax(0, 1.3fr) minmax(0, 1fr);
  gap: 12px;
  text-decoration: none;
  color: var(--ink);
  align-items: baseline;
  min-height: 28px;
}
.row:hover strong {
  text-decoration: underline;
}
.no {
  font-weight: 600;
}
.for {
  color: var(--amber-ink);
}
.latest {
  list-style: none;
  margin: 0;
  padding: 0;
}
.latest li {
  padding: 8px 0;
  border-top: 1px solid var(--rule);
  font-size: 0.9rem;
  display: grid;
}
.latest a {
  color: var(--ink);
  text-decoration: none;
}
.latest a:hover {
  text-decoration: underline;
}
@media (max-width: 700px) {
  .counts {
    margin: 0;
    gap: 16px;
    flex-wrap: wrap;
  }
  .row {
    grid-template-columns: 52px 1fr;
  }
  .for {
    grid-column: 2;
  }
}
</style>
