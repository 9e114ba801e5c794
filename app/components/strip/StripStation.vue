<script setup lang="ts">
import { isRefusedStrip } from '~~/core/strip/plan-strip'
import { cellName, nextCell, whyNotThere } from '~~/core/strip/tray'
import type { JobBook } from '~~/messages/book'
import { withTaughtMinutes } from '~~/core/strip/taught-minutes'
import type { Difference } from '~~/core/engine/difference-schema'
import { deviations, type Deviation, type TrayFields } from '~~/messages/strip-entries'
import { hazardWords } from '~~/work/hazard-words'
import { minutesInFigures } from '~~/work/minutes-in-figures'
import { stripOfJob } from '~~/work/strip-of-job'

/** Taking apart: one step large at a time, on a drawing of this engine, into the next cell of the tray. */
const props = defineProps<{ book: JobBook }>()
const session = useSessionStore()
const workshop = useWorkshopStore()
onMounted(() => void workshop.need())
const bookNow = computed(() => props.book)
const { ready, described } = useDescribedEngine(bookNow)
const steps = useStripSteps(bookNow)

const description = computed(() => described.value.description)
const parts = computed(() => new Map(description.value.parts.map((part) => [part.id, part])))
const nameOf = (id: string): string => parts.value.get(id)?.name ?? id
const taught = computed(() => withTaughtMinutes(description.value, props.book.stepMinutes))
const strip = computed(() => stripOfJob(props.book, taught.value, workshop.book?.workshop.missingTools ?? []))
const ownTimes = (part: string): number => props.book.stepMinutes.find((entry) => entry.part === part)?.count ?? 0
const state = computed(() => strip.value.state)
const plan = computed(() => (strip.value.plan && !isRefusedStrip(strip.value.plan) ? strip.value.plan : null))
const refusal = computed(() => (strip.value.plan && isRefusedStrip(strip.value.plan) ? strip.value.plan : null))
const step = computed(() => plan.value?.steps[0] ?? null)
const off = computed(() => new Set(state.value.off.keys()))
const goalWords = (id: string): string => strip.value.goals.find((goal) => goal.id === id)?.words ?? id
const total = computed(() => off.value.size + (plan.value?.steps.length ?? 0))

const trays = computed<readonly TrayFields[]>(() => {
  const all = workshop.book?.workshop.trays ?? []
  return state.value.trays.length > 0 ? all.filter((tray) => state.value.trays.includes(tray.id)) : all.slice(0, 2)
})
const taken = computed(() => state.value.lying.flatMap((thing) => thing.cell ?? []))
const cell = computed(() => {
  const part = parts.value.get(step.value?.part ?? '')
  return part ? nextCell(trays.value, taken.value, part) : null
})
const cellDoubt = computed(() => {
  const part = parts.value.get(step.value?.part ?? '')
  const tray = trays.value.find((entry) => entry.id === cell.value?.tray)
  return part && tray ? whyNotThere(part, tray) : ''
})
const aboutPart = (part: string) => ({ kind: 'part', part, moment: 'off' }) as const
providePhotographSubject(() =>
  step.value ? { about: aboutPart(step.value.part), words: `${step.value.name}, before it comes off` } : null,
)

const way = ref('')
const choosing = ref(false)
type Teaching = 'other-fasteners' | 'hidden' | 'glued' | 'riveted'
const teaching = ref<Teaching | null>(null)
const teaches = (what: Deviation): what is Teaching => ['other-fasteners', 'hidden', 'glued', 'riveted'].includes(what)
const elapsed = useElapsedMinutes(() => step.value?.part)
watch(
  () => step.value?.part,
  () => {
    way.value = ''
    teaching.value = null
    choosing.value = false
  },
)

async function takeOff(): Promise<void> {
  const now = step.value
  if (!now || teaching.value || !session.mayWrite) return
  await steps.takeOff({ id: now.part, name: now.name }, cell.value, way.value.trim(), elapsed(now.minutes))
}
async function teach(difference: Difference, scope: 'engine' | 'type', remark: string): Promise<void> {
  const [now, what] = [step.value, teaching.value]
  teaching.value = null
  if (!now || !what) return
  await steps.deviate({ id: now.part, name: now.name }, what, remark)
  await steps.teach(difference, scope)
}
async function onlyNote(remark: string): Promise<void> {
  const [now, what] = [step.value, teaching.value]
  teaching.value = null
  if (now && what) await steps.deviate({ id: now.part, name: now.name }, what, remark || way.value.trim())
}
async function deviate(what: Deviation): Promise<void> {
  const now = step.value
  choosing.value = false
  if (teaches(what) && session.mayWrite) {
    teaching.value = what
    return
  }
  if (!now || !session.mayWrite) return
  await steps.deviate({ id: now.part, name: now.name }, what, way.value.trim())
  if (what === 'left-on' || what === 'would-not') await leaveOn(now.part)
}
/** What it is opened for, what stays, what is overruled and in which order: what is not changed stays as it is. */
const keepPlan = (
  change: Partial<Record<'goals' | 'leaveOn' | 'overruled' | 'order', readonly string[]>>,
): Promise<void> => {
  const { leaveOn: staysOn, overruled, order } = state.value
  const now = { goals: strip.value.chosen, leaveOn: staysOn, overruled, order, ...change }
  return steps.add({
    kind: 'goals',
    goals: [...now.goals],
    leaveOn: [...now.leaveOn],
    overruled: [...now.overruled],
    order: [...now.order],
  })
}
const setGoals = (goals: readonly string[]): Promise<void> => keepPlan({ goals })
const leaveOn = (part: string): Promise<void> => keepPlan({ leaveOn: [...state.value.leaveOn, part] })
const overrule = (part: string): Promise<void> =>
  keepPlan({
    leaveOn: state.value.leaveOn.filter((id) => id !== part),
    overruled: [...state.value.overruled, part],
  })
/** Another order of what is still to come off; what lies over a thing comes just before it. */
function moveStep(from: number, to: number): void {
  const order = (plan.value?.steps ?? []).map((entry) => entry.part)
  const [part] = order.splice(from, 1)
  if (part === undefined || !session.mayWrite || to < 0 || to > order.length) return
  order.splice(to, 0, part)
  void keepPlan({ order })
}
const undo = useUndoLast(
  () => state.value.standing.findLast((row) => ['off', 'not-as-planned', 'moved'].includes(row.entry.kind)),
  steps.strike,
)
const useTrays = (ids: readonly string[]): Promise<void> => steps.add({ kind: 'trays', trays: [...ids] })
const usual = computed(() => strip.value.goals.filter((goal) => goal.kind === 'usual'))

useBenchKeys([
  {
    key: 'x',
    label: 'Not as planned',
    run: () => {
      if (step.value) choosing.value = !choosing.value
    },
  },
  {
    key: 'l',
    label: 'Leave this on',
    run: () => {
      if (step.value && session.mayWrite) void leaveOn(step.value.part)
    },
  },
  {
    key: 'n',
    label: 'The next one first',
    run: () => {
      if ((plan.value?.steps.length ?? 0) > 1) moveStep(1, 0)
    },
  },
])
useNextAction({
  label: computed(() =>
    step.value ? `Off${cell.value ? `, into ${cellName(cell.value)}` : ''}: ${step.value.name}` : '',
  ),
  active: computed(() => step.value !== null && session.mayWrite),
  run: () => void takeOff(),
  back: () => void undo(),
})
</script>

<template>
  <div v-if="ready" class="strip">
    <OpenedFor :strip="strip" :goal-words="goalWords" @goals="setGoals" />
    <div v-if="refusal" class="refusal" role="alert">
      <p class="sign sign--fault">{{ refusal.refused.message }}</p>
      <div v-if="session.mayWrite" class="acts">
        <v-btn v-if="refusal.without.length > 0" variant="outlined" @click="setGoals(refusal.without)"
          >Without it: {{ refusal.without.map(goalWords).join(', ') }}</v-btn
        >
        <v-btn
          v-if="refusal.part && ['left-alone', 'must-stay'].includes(refusal.refused.code)"
          variant="outlined"
          @click="overrule(refusal.part)"
          >Take it off all the same</v-btn
        >
      </div>
    </div>
    <section v-else-if="!plan" class="begin" aria-label="Begin">
      <h2>What is it opened for?</h2>
      <p class="quiet">The least way in is worked out for all of it together, with what it takes and what may break.</p>
      <div class="usual">
        <button
          v-for="goal in usual"
          :key="goal.id"
          type="button"
          :disabled="!session.mayWrite"
          @click="setGoals([goal.id])"
        >
          {{ goal.words }}
        </button>
      </div>
    </section>
    <template v-else>
      <div class="bench">
        <article v-if="step" class="card" :aria-label="`Step: ${step.name}`">
          <header>
            <span class="label">{{ off.size + 1 }} of {{ total }} · {{ step.group.replaceAll('-', ' ') }}</span>
            <span class="figure"
              >{{ minutesInFigures(step.minutes)
              }}<span v-if="ownTimes(step.part) > 0" class="label">, {{ ownTimes(step.part) }} own</span></span
            >
          </header>
          <h2>{{ step.name }} off</h2>
          <p class="where">
            {{ [step.place, step.heldBy ? `held by ${step.heldBy}` : ''].filter(Boolean).join('; ') }}
            <template v-if="step.tools.some((tool) => tool !== 'fingers')"
              ><span class="label">Tool</span>
              {{
                step.tools
                  .filter((tool) => tool !== 'fingers')
                  .join(', ')
                  .replaceAll('-', ' ')
              }}</template
            >
          </p>
          <EngineDrawing
            :description="description"
            :off="off"
            :in-hand="step.part"
            :title="`${step.name} marked on the engine`"
          />
          <SubjectPhotographs :book="book" :about="aboutPart(step.part)" :words="step.name" />
          <ul v-if="step.hazards.length > 0" class="hazards">
            <li v-for="hazard in step.hazards" :key="hazard" class="sign sign--care">{{ hazardWords[hazard] }}</li>
          </ul>
          <p v-if="step.wayBack" class="quiet">For the way back: {{ step.wayBack }}</p>
          <p v-if="cellDoubt" class="sign sign--care">{{ cellDoubt }}</p>
          <v-text-field
            v-if="session.mayWrite"
            v-model="way"
            label="Which way round it was, which face up (if it can go wrong)"
            density="compact"
            hide-details
            @keydown.enter.prevent="takeOff"
          />
          <div v-if="choosing" class="deviations" role="group" aria-label="Not as planned">
            <button v-for="(words, what) in deviations" :key="what" type="button" @click="deviate(what)">
              {{ words }}
            </button>
          </div>
          <TeachPart
            v-if="teaching"
            :key="teaching + step.part"
            :part="{ id: step.part, name: step.name, minutes: step.minutes }"
            :what="teaching"
            :type="`${book.type.maker} ${book.type.name}`"
            @teach="teach"
            @note="onlyNote"
            @leave="teaching = null"
          />
          <footer v-if="session.mayWrite">
            <button type="button" class="plain" :aria-expanded="choosing" @click="choosing = !choosing">
              Not as planned <kbd>X</kbd>
            </button>
            <button type="button" class="plain" @click="leaveOn(step.part)">Leave this on <kbd>L</kbd></button>
            <button v-if="off.size > 0" type="button" class="plain" @click="undo">Undo <kbd>U</kbd></button>
          </footer>
        </article>
        <article v-else class="card open" aria-label="It lies open">
          <span class="label">Open</span>
          <h2>Everything asked for lies open</h2>
          <EngineDrawing :description="description" :off="off" :in-hand="null" title="The engine as it is now" />
          <p v-if="off.size > 0" class="quiet">{{ off.size }} parts are off.</p>
          <footer v-if="session.mayWrite">
            <button v-if="off.size > 0" type="button" class="plain" @click="undo">Undo <kbd>U</kbd></button>
          </footer>
        </article>
        <TraysBeside
          :job-id="book.job.id"
          :description="description"
          :all="workshop.book?.workshop.trays ?? []"
          :trays="trays"
          :lying="state.lying"
          :next="cell"
          @use="useTrays"
        />
      </div>
      <StripSums :plan="plan" />
      <p v-if="plan.orderFirst.length > 0" class="sign sign--care">
        Have one in the drawer before you begin: {{ plan.orderFirst.map((id) => nameOf(id).toLowerCase()).join(', ') }}.
      </p>
      <StepsToFollow
        v-if="plan.steps.length > 1"
        :steps="plan.steps.slice(1)"
        :goal-words="goalWords"
        :may-write="session.mayWrite"
        @move="(from, to) => moveStep(from + 1, to + 1)"
      />
      <p v-if="plan.free.length > 0" class="quiet">
        Lies open as well then, at no further price:
        {{ plan.free.map((id) => goalWords(id).replace('Reach: ', '').toLowerCase()).join(', ') }}.
      </p>
    </template>
    <section v-if="state.notAsPlanned.length > 0" aria-label="Not as planned">
      <h2>Not as planned</h2>
      <ul class="ruled-list">
        <li v-for="entry in state.notAsPlanned" :key="entry.entryId">
          {{ deviations[entry.what] }}: {{ nameOf(entry.part)
          }}<span v-if="entry.remark" class="quiet">, {{ entry.remark }}</span>
        </li>
      </ul>
    </section>
    <ProvisionalThings :book="book" />
    <Cautions station="strip" />
    <StationNotes :book="book" station="strip" />
  </div>
</template>

<style scoped>
.strip {
  display: grid;
  gap: 14px;
  grid-template-columns: minmax(0, 1fr);
}
.usual {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
  gap: 10px;
  margin-top: 10px;
}
.usual button,
.deviations button {
  border: 1px solid var(--rule);
  border-radius: 3px;
  min-height: 52px;
  padding: 6px 14px;
  font-weight: 600;
  text-align: left;
}
.usual button:hover,
.deviations button:hover {
  background: var(--sheet);
}
.deviations button {
  min-height: var(--target);
  padding: 3px 10px;
  font-size: 0.9rem;
  line-height: 1.2;
}
.where .label {
  margin-left: 10px;
}
.hazards {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 2px;
}
.deviations {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(138px, 1fr));
  gap: 6px;
}
.acts {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
  margin-top: 8px;
}
</style>
