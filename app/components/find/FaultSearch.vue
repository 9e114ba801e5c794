<script setup lang="ts">
import { atStart } from '~~/core/engine/name-in-sentence'
import { showDay, showMoment } from '~~/work/describe-due'
import type { NextTestReport, SuspectReport } from '~~/core/diagnosis/search-report'
import { dueCare } from '~~/core/care/due-list'
import { optionOf } from '~~/core/knowledge/schools-of-practice'
import { schools } from '~~/core/knowledge/schools'
import type { JobBook } from '~~/messages/book'
import type { EngineDescription } from '~~/core/engine/description-schema'
import { askedSearch } from '~~/work/search-question'
import { suspicionGrade } from '~/drawing/suspicion-grade'

/** Which fault, and which test next: the current path shaded by suspicion, one big card, and the reasons. */
const props = defineProps<{ book: JobBook; description: EngineDescription; generic: boolean }>()
const emit = defineEmits<{ wheels: [] }>()
const session = useSessionStore()
const { setState } = useFindingState(computed(() => props.book))
/** Suspicions that did not come from a test: settled with one word all the same. */
const suspected = computed(() => props.book.findings.filter((finding) => finding.state === 'suspected'))

/** All the judgement is asked with; a copy of the knowledge that does not hold together says so instead. */
const asked = computed(() => {
  try {
    return { ...askedSearch(props.book, props.description), flaw: '' }
  } catch (error) {
    return {
      ...askedSearch({ ...props.book, practice: { ...props.book.practice, changes: null } }, props.description),
      flaw: error instanceof Error ? error.message : 'The knowledge of this type cannot be used.',
    }
  }
})
const search = computed(() => asked.value.search)
const learned = computed(() => asked.value.learned)
const learnedWords = (fault: string): string => {
  const entry = learned.value.find((row) => row.fault === fault)
  return entry && entry.found > 0
    ? `Found here before at ${entry.found} of ${entry.places} such places: ${percent(entry.shipped)} as shipped, ${percent(entry.now)} by this shop’s jobs.`
    : ''
}
/** What the shop holds with where practitioners disagree about a remedy. */
const schoolWords = (id: string): string => {
  const school = schools.find((entry) => entry.id === id)
  return school
    ? `${school.question} This shop: ${optionOf(school, props.book.practice.schools).name.toLowerCase()}.`
    : ''
}
const percent = (chance: number): string => `${chance < 0.1 ? (chance * 100).toFixed(1) : Math.round(chance * 100)} %`

const { report, progress, failure } = useDiagnosis(() => asked.value.question)
const steps = useSearchSteps(
  computed(() => props.book),
  report,
)

/** A test taken instead of the one advised; forgotten with the next step, and where it is not offered any more. */
const picks = ref<string | null>(null)
const chosen = computed(() => (report.value?.next.some((test) => test.id === picks.value) ? picks.value : null))
/** Another test was asked for while the judgement was still at the last step: given when it is through. */
let anotherWaits = false
watch(
  () => props.book.search.length,
  () => {
    picks.value = null
  },
)
watch(report, () => {
  if (anotherWaits) another()
})
const advised = computed(() => {
  const advice = report.value?.advice
  const test = advice?.kind === 'test' ? report.value?.next.find((entry) => entry.id === advice.test) : undefined
  return test && advice ? { ...test, why: advice.why } : null
})
const card = computed<NextTestReport | null>(
  () =>
    (chosen.value === advised.value?.id ? undefined : report.value?.next.find((test) => test.id === chosen.value)) ??
    advised.value,
)
const byWheel = computed(() =>
  ['wheel-continuity', 'rim-check', 'wheel-insulation-ohms'].some((id) => card.value?.id.split('@')[0] === id),
)
const others = computed(() => (report.value?.next ?? []).filter((test) => test.id !== card.value?.id).slice(0, 2))
const repair = computed(() =>
  report.value?.advice.kind === 'repair' && chosen.value === null
    ? (report.value.suspects.find(
        (suspect) => report.value?.advice.kind === 'repair' && suspect.id === report.value.advice.suspect,
      ) ?? null)
    : null,
)
const prove = computed(() =>
  report.value?.advice.kind === 'prove' || report.value?.advice.kind === 'done' ? report.value.advice : null,
)

const testWords = (id: string): string =>
  report.value?.next.find((test) => test.id === id)?.words ??
  report.value?.withheld.find((entry) => entry.test === id)?.words ??
  id
/** What is not offered, by the reason. */
const withheld = computed(() => {
  const byReason = new Map<string, string[]>()
  for (const { words, why } of report.value?.withheld ?? []) byReason.set(why, [...(byReason.get(why) ?? []), words])
  return [...byReason]
})
const partNames = computed(() => new Map(props.description.parts.map((part) => [part.id, part.name.toLowerCase()])))
const partName = (id: string): string => partNames.value.get(id) ?? id
const findingWords = (id: string): string => {
  const found = search.value.gathered.find((row) => row.id === id)
  if (found) return found.words
  const entry = props.book.search.find((row) => row.id === id)?.entry
  return entry && 'words' in entry ? entry.words : id
}
const suspicion = computed(() =>
  Object.fromEntries(
    (report.value?.byPlace ?? []).flatMap(({ components, chance }) => components.map((id) => [id, chance] as const)),
  ),
)
/** Care that is due anyway: where nothing is wrong it is all there is to do. */
const due = computed(() => dueCare(search.value.running, search.value.circumstances))
/** Nothing is likely enough to be called suspected. */
const CALM = 0.1
const calm = computed(() =>
  (report.value?.suspects ?? []).every((suspect) => !suspect.confirmed && suspect.chance < CALM),
)
const reachable = computed(() => {
  const off = new Set(search.value.off)
  const open = (id: string | null): boolean =>
    id === null ||
    (props.description.accesses.find((access) => access.id === id)?.off ?? []).every((group) =>
      group.some((part) => off.has(part)),
    )
  return new Set(props.description.nodes.filter((node) => open(node.access)).map((node) => node.id))
})
const picked = ref<string | null>(null)
const highlighted = computed(
  () =>
    new Set(
      (report.value?.byPlace ?? [])
        .filter((place) => picked.value !== null && place.components.includes(picked.value))
        .map((place) => place.place),
    ),
)
const driveSuspects = computed(() =>
  (report.value?.byPlace ?? []).filter((place) => place.links.length > 0 && suspicionGrade(place.chance) !== null),
)
const removable = computed(() =>
  props.description.parts
    .filter((part) => part.removal && !['wheel', 'tyre'].includes(part.kind))
    .map(({ id, name }) => ({ id, name })),
)

function outcome(index: number): void {
  const test = card.value
  const found = test?.outcomes[index]
  if (!test || !found || !session.mayWrite || justAnswered(test.id)) return
  void steps.noteOutcome(test, found, [...search.value.off, ...test.takesOff])
}
/** A key that bounces, or is pressed while the judgement is still at the answer to this very test, says nothing new. */
function justAnswered(test: string): boolean {
  const last = props.book.search.at(-1)?.entry
  return progress.value !== null && last?.kind === 'outcome' && last.test === test
}
function another(): void {
  anotherWaits = progress.value !== null
  const list = report.value?.next ?? []
  if (anotherWaits || list.length === 0) return
  const now = list.findIndex((test) => test.id === card.value?.id)
  picks.value = list[(now + 1) % list.length]?.id ?? null
}
function couldNot(): void {
  if (card.value && session.mayWrite) void steps.couldNot(card.value)
}
useBenchKeys([
  ...[0, 1, 2, 3].map((index) => ({
    key: String(index + 1),
    label: `Outcome ${index + 1} of the test`,
    run: () => outcome(index),
  })),
  { key: 'n', label: 'Could not do the test', run: couldNot },
  { key: 'a', label: 'Another test', run: another },
])
// The pedal must not leave a search by accident: while a test is asked, it only points at what is asked.
const asks = computed(() => card.value !== null && !repair.value && (prove.value === null || chosen.value !== null))
const root = useTemplateRef<HTMLElement>('root')
useNextAction({
  label: computed(() => `Say how it went: 1 to ${card.value?.outcomes.length ?? 2}`),
  active: computed(() => asks.value && session.mayWrite),
  run: () => root.value?.querySelector<HTMLElement>('article button')?.focus(),
})
const confirmRepair = (suspect: SuspectReport): void => void steps.mend(suspect)
</script>

<template>
  <div ref="root" class="find">
    <p v-if="failure" class="sign sign--fault" role="alert">{{ failure }}</p>
    <p v-if="asked.flaw" class="sign sign--fault" role="alert">
      {{ asked.flaw }} Until then it is judged by what ships.
    </p>
    <p v-if="generic" class="sign sign--care">
      <span
        >How this engine is made is not known: a generic machine stands in, and the advice is as general.
        <NuxtLink :to="`/engines/${book.engine.id}`">Say how it is made</NuxtLink></span
      >
    </p>
    <div v-if="progress !== null && !report" class="working" role="status">
      <v-progress-linear
        :model-value="progress * 100"
        height="8"
        color="primary"
        aria-label="Working out every set of faults"
      /><span class="quiet">Working out what every set of up to three faults would show in this engine …</span>
    </div>
    <template v-if="report">
      <p v-for="clash in report.contradictions" :key="clash.repeat" class="clash sign sign--care" role="alert">
        {{ clash.words }}
      </p>
      <DueCareList v-if="due.length > 0 && calm" :due="due" title="Care, rather than a fault" />
      <NextTestCard
        v-if="card && !repair && (!prove || chosen)"
        :test="card"
        :part-name="partName"
        :may-write="session.mayWrite"
        :overruled="chosen !== null"
        @outcome="outcome"
        @could-not="couldNot"
        @another="another"
      />
      <article v-else-if="repair" class="card" aria-label="Mend now">
        <span class="label">Mend now</span>
        <h2>{{ repair.remedy.words }}</h2>
        <p>{{ report.advice.why }}</p>
        <p v-if="repair.takesOff.length > 0" class="quiet">
          Comes off for it: {{ repair.takesOff.map(partName).join(', ') }}.
        </p>
        <p v-if="repair.remedy.caution" class="sign sign--care">{{ repair.remedy.caution }}</p>
        <div v-if="session.mayWrite" class="acts">
          <v-btn size="large" color="primary" @click="confirmRepair(repair)">Mended, now the retest</v-btn
          ><v-btn v-if="!repair.confirmed" size="large" variant="outlined" @click="steps.confirm(repair)"
            >It is so</v-btn
          ><v-btn size="large" variant="outlined" @click="another">Test on instead <kbd>A</kbd></v-btn>
        </div>
      </article>
      <article v-else-if="prove" class="card" aria-label="Prove">
        <span class="label">{{ prove.kind === 'prove' ? 'Now prove it' : 'Search ended' }}</span>
        <h2>
          {{
            prove.kind === 'prove'
              ? 'Everything has to pass once more'
              : report.nothingElse > 0.9
                ? 'Nothing left to look for'
                : 'No further by tests'
          }}
        </h2>
        <p>{{ prove.why }}</p>
        <ul v-if="prove.kind === 'prove'" class="proofs">
          <li v-for="id in prove.tests" :key="id">
            <button
              type="button"
              class="plain"
              :disabled="!report.next.some((test) => test.id === id)"
              @click="picks = id"
            >
              {{ testWords(id) }}
            </button>
          </li>
        </ul>
        <div v-else><NuxtLink :to="`/jobs/${book.job.id}/prove`" class="plain">To Prove</NuxtLink></div>
      </article>
      <p v-if="card && !repair && byWheel" class="quiet">
        The sheet takes it wheel by wheel and enters the outcome by itself:
        <button type="button" class="plain" @click="emit('wheels')">Wheel by wheel <kbd>W</kbd></button>
      </p>
      <div v-if="others.length > 0 && !prove" class="others">
        <span class="label">Or</span
        ><button v-for="test in others" :key="test.id" type="button" class="other" @click="picks = test.id">
          <b>{{ test.words }}</b><span class="quiet"
            >{{ test.totalMinutes.toFixed(1) }} min{{
              test.takesOff.length > 0 ? `, takes off ${test.takesOff.length}` : ''
            }}</span
          >
        </button>
      </div>
      <details v-if="withheld.length > 0" class="withheld">
        <summary>
          Not offered: {{ report.withheld.length }} {{ report.withheld.length === 1 ? 'test' : 'tests' }}
        </summary>
        <dl>
          <template v-for="[why, names] in withheld" :key="why"
            ><dt>{{ why }}</dt>
            <dd>{{ names.join(', ') }}</dd></template
          >
        </dl>
      </details>
      <section aria-label="Current path, shaded by suspicion" class="path">
        <CurrentPathDrawing
          :description="description"
          :states="{}"
          :switches="{}"
          :point="null"
          :selected="picked"
          :probes="[]"
          :suspicion="suspicion"
          :reachable="reachable"
          @select="picked = picked === $event ? null : $event"
        />
        <p class="quiet legend">
          <span class="mark high">◆</span> 40 % and more <span class="mark middle">●</span> 15 % and more
          <span class="mark low">○</span> 5 % and more. Dashed points cannot be reached as it stands.<template
            v-if="driveSuspects.length > 0"
          >
            Drive:
            {{
              driveSuspects
                .map(
                  (place) =>
                    `${place.place.replace(/^.*?\./, '').replaceAll('-', ' ')} ${Math.round(place.chance * 100)} %`,
                )
                .join(', ')
            }}.</template
          >
        </p>
      </section>
      <DueCareList v-if="due.length > 0 && !calm" :due="due" title="Due anyway" />
      <section aria-label="Where it is likely" class="where">
        <h2>Where it is likely</h2>
        <ChainAreas :areas="report.byArea" />
      </section>
      <SuspectList
        :suspects="report.suspects"
        :nothing-else="report.nothingElse"
        :finding-words="findingWords"
        :learned-words="learnedWords"
        :school-words="schoolWords"
        :part-name="partName"
        :may-write="session.mayWrite"
        :highlighted="highlighted"
        @confirm="steps.confirm"
        @rule-out="steps.ruleOut"
        @mend="steps.mend"
      />
    </template>
    <section v-if="suspected.length > 0" aria-label="Noted by hand">
      <h2>Noted by hand</h2>
      <ul class="ruled-list">
        <li v-for="finding in suspected" :key="finding.id" class="noted">
          <div>
            <strong>{{ finding.what }}</strong>
            <div class="quiet">{{ [finding.place, finding.remedy].filter(Boolean).join('. ') }}</div>
          </div>
          <div v-if="session.mayWrite" class="choices">
            <v-btn variant="flat" color="primary" @click="setState(finding, 'confirmed')">It is so</v-btn
            ><v-btn variant="outlined" @click="setState(finding, 'ruled-out')">Ruled out</v-btn>
          </div>
        </li>
      </ul>
    </section>
    <SearchKnown
      :search="search"
      :removable="removable"
      :may-write="session.mayWrite"
      @known="steps.add({ kind: 'known', ...$event })"
    />
    <section v-if="book.earlier.length > 0" aria-label="From earlier jobs">
      <h2>From earlier jobs</h2>
      <p class="quiet">
        Found then and not mended. What came out of a search is taken as still so until it is mended or ruled out here.
      </p>
      <ul class="ruled-list">
        <li v-for="row in book.earlier" :key="row.findingId" class="gathered">
          <span class="label"
            >{{ row.state === 'left' ? 'Left' : 'Declined' }}, job
            <NuxtLink :to="`/jobs/${row.jobId}`">{{ row.jobNumber }}</NuxtLink></span
          ><span
            >{{ [row.what, row.place].filter(Boolean).join(', ')
            }}<template v-if="search.earlier.includes(row)">
              <span class="quiet">(counts in the search)</span></template
            ></span
          ><span class="quiet">{{ showDay(row.handedBackAt) }}</span>
        </li>
      </ul>
    </section>
    <section v-if="search.gathered.length > 0" aria-label="From the sheets">
      <h2>From the sheets</h2>
      <ul class="ruled-list">
        <li v-for="found in search.gathered" :key="found.id" class="gathered">
          <span class="label">{{ found.from === 'sheet' ? 'Test sheet' : 'Continuity sheet' }}</span><span>{{
            atStart(found.words.replace('Test sheet: ', ''))
          }}</span
          ><span class="quiet">{{ showMoment(found.at) }}</span>
        </li>
      </ul>
    </section>
    <SearchTrail :steps="search.steps" :may-write="session.mayWrite" @strike="steps.strike" />
  </div>
</template>

<style scoped>
.find {
  display: grid;
  gap: 16px;
  min-width: 0;
}
.working {
  display: grid;
  gap: 6px;
  padding: 18px 0;
}
.clash {
  font-weight: 600;
  padding: 10px 12px;
  border: 1.5px solid var(--amber);
  border-radius: 3px;
}
.card {
  border: 2px solid var(--green);
  background: var(--sheet);
  padding: 14px 18px;
  border-radius: 3px;
  display: grid;
  gap: 8px;
}
.card h2 {
  font-size: 1.5rem;
}
.acts {
  display: flex;
  gap: 12px;
  flex-wrap: wrap;
  margin-top: 6px;
}
.proofs {
  list-style: none;
  padding: 0;
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0 22px;
}
.plain {
  font-weight: 600;
  color: var(--green);
  min-height: var(--target);
}
.others {
  display: grid;
  grid-template-columns: max-content 1fr 1fr;
  gap: 12px;
  align-items: center;
}
.other {
  border: 1px solid var(--rule);
  border-radius: 3px;
  min-height: 52px;
  padding: 6px 14px;
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: center;
  text-align: left;
}
.other b {
  font-weight: 600;
}
.other:hover {
  border-color: var(--green);
}
.other .quiet {
  flex: none;
}
.withheld summary {
  cursor: pointer;
  min-height: var(--target);
  display: inline-flex;
  align-items: center;
  color: var(--soft);
  font-weight: 550;
}
.withheld dl {
  margin: 4px 0 8px;
  display: grid;
  grid-template-columns: minmax(150px, max-content) 1fr;
  gap: 6px 18px;
}
.withheld dt {
  font-weight: 600;
}
.withheld dd {
  margin: 0;
  color: var(--soft);
}
.path {
  min-width: 0;
  border-top: 1px solid var(--rule);
  padding-top: 10px;
}
.where {
  display: grid;
  gap: 6px;
}
.legend {
  margin-top: 4px;
}
.mark {
  margin-left: 10px;
  font-size: 1.05em;
}
.mark:first-child {
  margin-left: 0;
}
.high {
  color: var(--red);
}
.middle,
.low {
  color: var(--amber-ink);
}
.gathered {
  display: grid;
  grid-template-columns: 150px 1fr max-content;
  gap: 12px;
  align-items: baseline;
}
.noted {
  display: flex;
  justify-content: space-between;
  gap: 16px;
  align-items: center;
}
.choices {
  display: flex;
  gap: 8px;
  flex: none;
}
@media (max-width: 600px) {
  .gathered {
    grid-template-columns: 1fr;
    gap: 0;
  }
}
@media (max-width: 600px) {
  .noted {
    flex-direction: column;
    align-items: stretch;
  }
}
@media (max-width: 700px) {
  .others {
    grid-template-columns: 1fr;
  }
}
</style>
