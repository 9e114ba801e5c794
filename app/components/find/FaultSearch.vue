<script setup lang="ts">
import { currentState } from '~~/core/diagnosis/history'
import type { ActReport, ObservationReport, SuspectReport } from '~~/core/diagnosis/report/search-report'
import { dueCare } from '~~/core/care/due-list'
import { optionOf } from '~~/core/knowledge/schools-of-practice'
import { schools } from '~~/core/knowledge/schools'
import type { JobBook } from '~~/messages/book'
import type { EngineDescription } from '~~/core/engine/description-schema'
import { booksAhead } from '~~/work/books-ahead'
import { askedSearch } from '~~/work/search-question'
import { shareInFigures } from '~~/work/share-in-figures'

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
    ? `Found here before at ${entry.found} of ${entry.places} such places: ${shareInFigures(entry.shipped)} as shipped, ${shareInFigures(entry.now)} by this shop’s jobs.`
    : ''
}
/** What the shop holds with where practitioners disagree about a remedy. */
const schoolWords = (id: string): string => {
  const school = schools.find((entry) => entry.id === id)
  return school
    ? `${school.question} This shop: ${optionOf(school, props.book.practice.schools).name.toLowerCase()}.`
    : ''
}

const { report, progress, failure } = useDiagnosis(
  () => asked.value.question,
  (now) =>
    asked.value.flaw || !session.mayWrite
      ? []
      : booksAhead(props.book, now, {
          card: card.value,
          repairs: repairs.value,
          noted: saidHere.value,
          off: search.value.off,
        }).map((book) => () => askedSearch(book(), props.description).question),
)
const steps = useSearchSteps(
  computed(() => props.book),
  report,
)

/** An act taken instead of the one advised; forgotten with the next step, and where it is not offered any more. */
const picks = ref<string | null>(null)
/** The act things are being noted at: it stays, whatever is advised meanwhile, until somebody says it is through. */
const underWay = shallowRef<{ readonly act: ActReport; readonly state: number } | null>(null)
const state = computed(() => currentState(search.value.history))
watch(state, (now) => {
  if (underWay.value?.state !== now) underWay.value = null
})
/** Something else was asked for while the judgement was still at the last step: given when it is through. */
let anotherWaits = false
watch(report, () => {
  if (anotherWaits) another()
})
const offered = computed(() => report.value?.next ?? [])
const advised = computed(() => {
  const advice = report.value?.advice
  return advice?.kind === 'act' ? (offered.value.find(({ id }) => id === advice.act) ?? null) : null
})
const chosen = computed(() => offered.value.find(({ id }) => id === picks.value && id !== advised.value?.id) ?? null)
const card = computed<ActReport | null>(() => underWay.value?.act ?? chosen.value ?? advised.value)
const { saidHere, note, last, undo } = useSearchNoting({
  search,
  report,
  steps,
  card,
  state,
  undone: () => enough(),
})
const byWheel = computed(() => card.value?.byWheel ?? false)
const others = computed(() => offered.value.filter(({ id }) => id !== card.value?.id).slice(0, 2))
const suspectOf = (id: string): SuspectReport | undefined => report.value?.suspects.find((suspect) => suspect.id === id)
/** What is mended at one go. */
const repairs = computed(() => {
  const advice = report.value?.advice
  if (advice?.kind !== 'repair' || card.value) return []
  return [advice.suspect, ...advice.also].flatMap((id) => suspectOf(id) ?? [])
})
const foundSoFar = computed(() =>
  props.book.search.flatMap(({ id, entry }) =>
    entry.kind === 'confirmed' && search.value.steps.some(({ row, struck }) => row.id === id && !struck)
      ? [entry.words]
      : [],
  ),
)

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
/** Care that is due anyway: where nothing is wrong it is all there is to do. */
const due = computed(() => dueCare(search.value.running, search.value.circumstances))
/** Nothing is likely enough to be called suspected. */
const CALM = 0.1
const calm = computed(() =>
  (report.value?.suspects ?? []).every((suspect) => !suspect.confirmed && suspect.chance < CALM),
)
const picked = ref<string | null>(null)
const highlighted = computed(
  () =>
    new Set(
      (report.value?.byPlace ?? [])
        .filter((place) => picked.value !== null && place.components.includes(picked.value))
        .map((place) => place.place),
    ),
)
const removable = computed(() =>
  props.description.parts
    .filter((part) => part.removal && !['wheel', 'tyre'].includes(part.kind))
    .map(({ id, name }) => ({ id, name })),
)

function noteAtCard(row: ObservationReport, index: number): void {
  if (card.value) underWay.value ??= { act: card.value, state: state.value }
  void note(row, index)
}
async function rest(rows: readonly ObservationReport[]): Promise<void> {
  for (const row of rows) await note(row, 0)
  enough()
}
function enough(): void {
  underWay.value = null
  picks.value = null
}
function say(test: string, outcome: string): void {
  const row = report.value?.sayable.find(({ id }) => id === test)
  if (row)
    void note(
      row,
      row.outcomes.findIndex(({ id }) => id === outcome),
    )
}
function another(): void {
  anotherWaits = progress.value !== null
  const list = offered.value
  if (anotherWaits || list.length === 0) return
  const now = list.findIndex(({ id }) => id === card.value?.id)
  underWay.value = null
  picks.value = list[(now + 1) % list.length]?.id ?? null
}
function couldNot(): void {
  if (!card.value || !session.mayWrite) return
  void steps.couldNot(card.value)
  enough()
}
async function mendAll(): Promise<void> {
  for (const suspect of repairs.value) await steps.mend(suspect)
}
useBenchKeys([{ key: 'a', label: 'Something else', run: another }])
// The pedal must not leave a search by accident: while a test is asked, it only points at what is asked.
const root = useTemplateRef<HTMLElement>('root')
useNextAction({
  label: computed(() => (repairs.value.length > 0 ? 'Mended, now one run' : 'A number a row, Enter for the rest')),
  active: computed(() => session.mayWrite && (card.value !== null || repairs.value.length > 0)),
  run: () => root.value?.querySelector<HTMLElement>('article.act, article button')?.focus(),
  get back() {
    return last.value && session.mayWrite ? undo : undefined
  },
})
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
        bg-opacity="0.2"
        color="primary"
        aria-label="Making the engine ready"
      /><span class="quiet">Working out what the circuit of this engine shows with things wrong …</span>
    </div>
    <template v-if="report">
      <p v-for="clash in report.contradictions" :key="clash.repeat" class="clash sign sign--care" role="alert">
        {{ clash.words }}
      </p>
      <DueCareList v-if="due.length > 0 && calm" :due="due" title="Care, rather than a fault" />
      <ActCard
        v-if="card"
        :act="card"
        :noted="saidHere"
        :part-name="partName"
        :may-write="session.mayWrite"
        :overruled="chosen !== null && underWay === null"
        :under-way="underWay !== null"
        @note="noteAtCard"
        @rest="rest"
        @enough="enough"
        @could-not="couldNot"
        @another="another"
      />
      <RepairAdvice
        v-else-if="repairs.length > 0"
        :repairs="repairs"
        :why="report.advice.why"
        :part-name="partName"
        :may-write="session.mayWrite"
        @mended="mendAll"
        @confirm="steps.confirm"
        @another="another"
      />
      <SearchEnd
        v-else-if="report.advice.kind === 'done'"
        :report="report"
        :job-id="book.job.id"
        :found="foundSoFar"
        :may-write="session.mayWrite"
        :undo="last && session.mayWrite ? undo : null"
        @another="another"
      />
      <SayWhatYouSee :sayable="report.sayable" :may-write="session.mayWrite" @say="say" />
      <p v-if="card && byWheel" class="quiet">
        The sheet takes it wheel by wheel and enters the outcome by itself:
        <button type="button" class="plain" @click="emit('wheels')">Wheel by wheel <kbd>W</kbd></button>
      </p>
      <div v-if="others.length > 0 && !underWay && report.advice.kind !== 'done'" class="others">
        <span class="label">Or</span
        ><button v-for="act in others" :key="act.id" type="button" class="other" @click="picks = act.id">
          <b>{{ act.words }}</b><span class="quiet"
            >{{ act.totalMinutes.toFixed(1) }} min{{
              act.takesOff.length > 0 ? `, takes off ${act.takesOff.length}` : ''
            }}</span
          >
        </button>
      </div>
      <MotorOpens v-if="session.mayWrite" :book="book" :description="description" />
      <details v-if="withheld.length > 0" class="withheld">
        <summary>
          Not offered: {{ report.withheld.length }} {{ report.withheld.length === 1 ? 'observation' : 'observations' }}
        </summary>
        <dl>
          <template v-for="[why, names] in withheld" :key="why"
            ><dt>{{ why }}</dt>
            <dd>{{ names.join(', ') }}</dd></template
          >
        </dl>
      </details>
      <section aria-labelledby="chain-left-head" class="where">
        <h2 id="chain-left-head">What is left of the chain</h2>
        <ChainLeft :chain="report.chain" />
      </section>
      <SuspicionPath v-model:picked="picked" :description="description" :by-place="report.byPlace" :off="search.off" />
      <DueCareList v-if="due.length > 0 && !calm" :due="due" title="Due anyway" />
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
    <SearchSources :search="search" :earlier="book.earlier" />
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
.where {
  container-type: inline-size;
  display: grid;
  gap: 6px;
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
