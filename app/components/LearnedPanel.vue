<script setup lang="ts">
import { nameInGeneral } from '~~/work/name-in-general'
import { problemSentence } from '~/stores/problem-sentence'
import { v7 as newId } from 'uuid'
import { learnedPriors } from '~~/core/knowledge/learned-priors'
import { constructionPlans, describeConstruction } from '~~/core/knowledge/constructions'
import { diagnosisKnowledge } from '~~/core/knowledge/diagnosis-knowledge'
import type { LearnedBook } from '~~/messages/book'
import { WORKSHOP_LANE } from '~~/messages/sendings'
import { shareInFigures } from '~~/work/share-in-figures'

/** What the shop's closed jobs have taught: how often each fault was found, what it makes of the chance, and how often the search was right. */
const outbox = useOutbox()
const session = useSessionStore()
const book = shallowRef<LearnedBook | null>(null)
const failure = ref('')
const opened = ref<string | null>(null)
const asking = ref<string | null>(null)

async function load(): Promise<void> {
  try {
    book.value = await $fetch<LearnedBook>('/api/learned')
    failure.value = ''
  } catch (error) {
    failure.value = problemSentence(error)
  }
}
onMounted(() => void load())
onBeforeUnmount(
  outbox.onAcknowledged((lane) => {
    if (lane === WORKSHOP_LANE) void load()
  }),
)

const faultName = (id: string): string => {
  const fault = diagnosisKnowledge.faults.find((entry) => entry.id === id)
  const name = fault ? nameInGeneral(fault) : id
  return name.charAt(0).toUpperCase() + name.slice(1)
}
const constructions = computed(() =>
  (book.value?.constructions ?? [])
    .map((entry) => {
      const plan = constructionPlans.find((candidate) => candidate.id === entry.construction)
      // A construction of the shop’s own is judged by the generic machine here, by its own at the search.
      const priors = learnedPriors(describeConstruction(entry.construction), diagnosisKnowledge, entry, {
        jobs: 0,
        found: {},
      })
      return {
        ...entry,
        name: plan?.name ?? 'A construction of the shop’s own',
        rows: priors
          .filter((prior) => prior.found > 0)
          .sort((first, second) => second.found - first.found || second.factor - first.factor),
      }
    })
    .sort((first, second) => second.jobs - first.jobs),
)
async function forget(construction: string | null): Promise<void> {
  const id = newId()
  asking.value = null
  await outbox.send('knowledge.forget', { id, fields: { construction } })
}
</script>

<template>
  <section class="learned" aria-label="What the shop has learned">
    <div class="head">
      <h2>What the shop has learned</h2>
      <button
        v-if="session.isOwner && constructions.length > 0"
        type="button"
        class="plain"
        @click="asking = asking === 'all' ? null : 'all'"
      >
        Set all back
      </button>
    </div>
    <p v-if="asking === 'all'" class="ask">
      <span class="sign sign--care"
        >Every search then starts from the shipped chances again. The jobs stay in the book.</span
      ><v-btn color="error" variant="flat" @click="forget(null)">Set all back</v-btn
      ><v-btn variant="outlined" @click="asking = null">Leave it</v-btn>
    </p>
    <p v-if="failure" class="sign sign--care" role="alert">{{ failure }}</p>
    <p v-else-if="book && constructions.length === 0" class="quiet">
      Nothing yet. A job that is handed back offers to add what was found to it.
    </p>
    <ul class="ruled-list">
      <li v-for="entry in constructions" :key="entry.construction">
        <button
          type="button"
          class="line"
          :aria-expanded="opened === entry.construction"
          @click="opened = opened === entry.construction ? null : entry.construction"
        >
          <b>{{ entry.name }}</b><span class="quiet"
            >{{ entry.jobs }} {{ entry.jobs === 1 ? 'job' : 'jobs' }},
            {{
              entry.rows.length === 0
                ? 'no fault met'
                : `${entry.rows.length} ${entry.rows.length === 1 ? 'kind' : 'kinds'} of fault met`
            }}</span
          >
        </button>
        <div v-if="opened === entry.construction" class="more">
          <p class="quiet">{{ entry.types.map((type) => `${type.name} ${type.jobs}`).join(', ') }}</p>
          <table v-if="entry.rows.length > 0">
            <thead>
              <tr>
                <th scope="col">Fault</th>
                <th scope="col" class="number">Found at</th>
                <th scope="col" class="number">Shipped</th>
                <th scope="col" class="number">Now</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="row in entry.rows" :key="row.fault">
                <th scope="row">{{ faultName(row.fault) }}</th>
                <td class="number figure">{{ row.found }} of {{ row.places }}</td>
                <td class="number figure">{{ shareInFigures(row.shipped) }}</td>
                <td class="number figure">{{ shareInFigures(row.now) }}</td>
              </tr>
            </tbody>
          </table>
          <p class="quiet">
            What was never found has become rarer too. Of the very type, its own jobs count before these.
          </p>
          <p v-if="asking === entry.construction" class="ask">
            <span class="sign sign--care">Machines made like this start from the shipped chances again.</span
            ><v-btn color="error" variant="flat" @click="forget(entry.construction)">Set back</v-btn
            ><v-btn variant="outlined" @click="asking = null">Leave it</v-btn>
          </p>
          <button v-else-if="session.isOwner" type="button" class="plain" @click="asking = entry.construction">
            Set back to what ships
          </button>
        </div>
      </li>
    </ul>
    <template v-if="book && book.reliability.length > 0">
      <h3 class="often">How often it was so</h3>
      <p class="quiet">
        Of what was given a chance in {{ book.searches }} {{ book.searches === 1 ? 'search' : 'searches' }} that are
        over, the share seen to be true in the end. The mark is what was said; the bar’s pale ends are the 95 %
        interval.
      </p>
      <ul class="bands">
        <li v-for="band in book.reliability" :key="band.from">
          <span class="figure said">{{ Math.round(band.from * 100) }}–{{ Math.round(band.to * 100) }} %</span>
          <svg
            viewBox="0 0 200 18"
            preserveAspectRatio="none"
            role="img"
            :aria-label="`said ${shareInFigures(band.meanChance)}, was so ${band.right} of ${band.count}`"
          >
            <rect x="0" y="7" width="200" height="4" class="ground" />
            <rect :x="band.low * 200" y="4" :width="(band.high - band.low) * 200" height="10" class="range" />
            <rect x="0" y="4" :width="(band.right / band.count) * 200" height="10" class="so" />
            <line :x1="band.meanChance * 200" :x2="band.meanChance * 200" y1="0" y2="18" class="mark" />
          </svg>
          <span class="figure">{{ band.right }} of {{ band.count }}</span>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.learned {
  display: grid;
  gap: 10px;
  margin-top: 26px;
  grid-template-columns: minmax(0, 1fr);
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.plain {
  font-weight: 600;
  color: var(--green);
  min-height: var(--target);
}
.ruled-list > li {
  padding: 0;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 16px;
  width: 100%;
  min-height: 52px;
  align-items: center;
  text-align: left;
}
.more {
  display: grid;
  gap: 8px;
  padding-bottom: 14px;
}
.often {
  margin-top: 16px;
}
.ask {
  display: flex;
  gap: 12px;
  align-items: center;
  flex-wrap: wrap;
}
table {
  border-collapse: collapse;
  width: 100%;
}
thead th {
  font-size: 0.82rem;
  color: var(--soft);
  font-weight: 550;
  text-align: left;
  padding: 4px 0;
}
tbody tr {
  border-top: 1px solid var(--rule);
}
tbody th {
  text-align: left;
  font-weight: 500;
  padding: 8px 14px 8px 0;
}
.number {
  text-align: right !important;
  white-space: nowrap;
  padding-left: 16px !important;
}
.bands {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
.bands li {
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr) 96px;
  gap: 14px;
  align-items: center;
}
.bands svg {
  width: 100%;
  height: 18px;
}
.said {
  text-align: right;
}
.bands li > .figure:last-child {
  text-align: right;
  white-space: nowrap;
}
.ground {
  fill: var(--sunk);
}
.range {
  fill: color-mix(in srgb, var(--green) 28%, transparent);
}
.so {
  fill: var(--green);
}
.mark {
  stroke: var(--brass);
  stroke-width: 3px;
  vector-effect: non-scaling-stroke;
}
</style>
