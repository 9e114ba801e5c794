<script setup lang="ts">
import { usualStepTest } from '~~/bench/supply/step-test'
import { atStart, inSentence } from '~~/core/engine/name-in-sentence'
import { milliamps } from '~~/core/motor/step-comparison'
import { cellName } from '~~/core/strip/tray'
import type { EngineDescription } from '~~/core/engine/description-schema'
import type { JobBook } from '~~/messages/book'
import { fates, type Fate } from '~~/messages/strip-entries'
import { hazardWords } from '~~/work/hazard-words'
import { wayBackOfJob, type JobBackStep } from '~~/work/way-back-of-job'

/** The way back: the next thing large, with its cell and which way round; a test that asks for too much stops it in red. */
const props = defineProps<{ book: JobBook; description: EngineDescription; testing: boolean; wet: boolean }>()
const emit = defineEmits<{ test: [name: string] }>()
const session = useSessionStore()
const workshop = useWorkshopStore()
const steps = useStripSteps(computed(() => props.book))
const back = computed(() =>
  wayBackOfJob(props.book, props.description, usualStepTest(props.book.type.nominalVolts).volts),
)
const next = computed(() => back.value.next)
const off = computed(() => new Set(back.value.state.off.keys()))
const left = computed(() => back.value.steps.filter((entry) => !entry.done))
const trays = computed(() =>
  (workshop.book?.workshop.trays ?? []).filter((tray) =>
    back.value.state.lying.some((thing) => thing.cell?.tray === tray.id),
  ),
)
const nameOf = (id: string): string => props.description.parts.find((part) => part.id === id)?.name ?? id
const lit = computed(() => new Set(next.value?.lies ? [next.value.lies.part] : []))
/** What the drawing points at. */
const inHand = computed(() => {
  const step = next.value?.step
  if (!step) return null
  return step.kind === 'fit' || step.kind === 'lubricate' ? step.part : step.kind === 'direction' ? null : step.after
})
providePhotographSubject(() => {
  const step = next.value?.step
  return step?.kind === 'fit'
    ? { about: { kind: 'part', part: step.part, moment: 'back' }, words: `${step.name}, going back` }
    : null
})
const choosing = ref(false)
watch(
  () => next.value?.id,
  () => {
    choosing.value = false
  },
)

const headline = (entry: JobBackStep): string => {
  const { step } = entry
  switch (step.kind) {
    case 'fit':
      return `${step.name} on`
    case 'lubricate':
      return `${atStart(step.product)}: ${step.amount}`
    case 'ohms':
      return `Ohms: ${inSentence(step.name)}`
    case 'test':
      return `Test with ${inSentence(step.name)}`
    case 'direction':
      return 'Which way does it run?'
  }
}
const trayName = (id: string): string =>
  (workshop.book?.workshop.trays ?? []).find((tray) => tray.id === id)?.name ?? ''
const upsetWords = { bind: 'bind', short: 'short', reverse: 'turn it round' } as const

async function act(): Promise<void> {
  const now = next.value
  if (!now || !session.mayWrite) return
  const { step } = now
  if (step.kind === 'fit') return steps.putBack({ id: step.part, name: step.name }, 'placed')
  if (step.kind === 'test' && back.value.verdict?.weight !== 'sound') return emit('test', step.name)
  await done(now, step.kind === 'test' ? (back.value.verdict?.sentence ?? '') : '')
}
function done(entry: JobBackStep, remark: string): Promise<void> {
  const { step } = entry
  const part = step.kind === 'ohms' || step.kind === 'test' ? step.after : null
  return steps.add({
    kind: 'done',
    step: entry.id,
    part,
    words: [headline(entry), remark].filter(Boolean).join('. ').slice(0, 300),
  })
}
async function otherFate(fate: Fate): Promise<void> {
  const now = next.value
  if (now?.step.kind === 'fit') await steps.putBack({ id: now.step.part, name: now.step.name }, fate)
}
const undo = useUndoLast(
  () => back.value.state.standing.findLast((row) => ['back', 'done'].includes(row.entry.kind)),
  steps.strike,
)
const label = computed(() => {
  const step = next.value?.step
  if (!step) return ''
  if (step.kind === 'fit') return `On: ${step.name}`
  if (step.kind === 'lubricate') return 'Oiled'
  if (step.kind === 'ohms') return 'Open, as it should be'
  if (step.kind === 'direction') return 'It runs with the controller'
  const { verdict } = back.value
  return !verdict ? 'Test it' : verdict.weight === 'sound' ? 'Go on' : 'Loosened: measure again'
})
useBenchKeys([
  {
    key: 'x',
    label: 'Not as it was: replaced, given back, lost',
    run: () => {
      if (next.value?.step.kind === 'fit') choosing.value = !choosing.value
    },
  },
  {
    key: 'o',
    label: 'Go on all the same',
    run: () => {
      if (next.value?.step.kind === 'test' && session.mayWrite) void done(next.value, 'Overruled')
    },
  },
])
useNextAction({
  label,
  active: computed(() => next.value !== null && !props.testing && session.mayWrite),
  run: () => void act(),
  back: () => void undo(),
})
</script>

<template>
  <section v-if="back.steps.length > 0" class="back" aria-label="The way back">
    <div class="bench">
      <article v-if="next" class="card" :class="back.verdict?.weight" :aria-label="`Step back: ${headline(next)}`">
        <header>
          <span class="label"
            >{{ back.steps.length - left.length + 1 }} of {{ back.steps.length }} on the way back</span
          >
          <span v-if="next.step.kind === 'fit'" class="figure">{{ next.step.minutes.toFixed(1) }} min</span>
        </header>
        <h2>{{ headline(next) }}</h2>
        <template v-if="next.step.kind === 'fit'">
          <p class="cell">
            <template v-if="next.lies?.cell"
              ><b class="numeral">{{ cellName(next.lies.cell) }}</b> {{ trayName(next.lies.cell.tray) }}</template
            >
            <template v-else>Lies beside the tray</template>
            <span v-if="next.lies?.way" class="way">It was: {{ next.lies.way }}</span>
          </p>
          <p v-if="next.step.wayBack">{{ next.step.wayBack }}</p>
          <p v-if="next.step.caution" class="sign sign--care">{{ next.step.caution }}</p>
          <p v-for="hazard in next.step.hazards" :key="hazard" class="quiet">{{ hazardWords[hazard] }}</p>
        </template>
        <template v-else-if="next.step.kind === 'lubricate'">
          <p>{{ next.step.name }}</p>
          <p v-if="next.step.lastAccessBefore" class="sign sign--care">
            The last time it can be reached: {{ nameOf(next.step.lastAccessBefore).toLowerCase() }} closes it.
          </p>
        </template>
        <p v-else-if="next.step.kind === 'ohms'">{{ next.step.words }}</p>
        <template v-else-if="next.step.kind === 'direction'">
          <p>
            Against the controller, before the lid is closed. If it is wrong, the smallest reversal is one of these:
          </p>
          <ul>
            <li v-for="reversal in next.step.reversals" :key="reversal">{{ reversal }}</li>
          </ul>
        </template>
        <template v-else>
          <p>
            This step can {{ next.step.upsets.map((upset) => upsetWords[upset]).join(', ') }}. A moment at
            {{ back.volts.toFixed(1) }} V.
          </p>
          <p v-if="back.expected" class="expected">
            <span class="label">Expected</span>
            <b class="numeral">{{ milliamps(back.expected.low) }} to {{ milliamps(back.expected.high) }}</b>
          </p>
          <p v-if="back.verdict" role="status" class="sign" :class="`sign--${back.verdict.weight}`">
            {{ back.verdict.sentence }}
          </p>
        </template>
        <EngineDrawing
          v-if="inHand"
          :description="description"
          :off="off"
          :in-hand="inHand"
          back
          :title="`${nameOf(inHand)} marked on the engine`"
        />
        <SubjectPhotographs
          v-if="next.step.kind === 'fit'"
          :book="book"
          :about="{ kind: 'part', part: next.step.part, moment: 'back' }"
          :words="next.step.name"
        />
        <div v-if="choosing && next.step.kind === 'fit'" class="fates" role="group" aria-label="What became of it">
          <button v-for="(words, fate) in fates" :key="fate" type="button" @click="otherFate(fate)">{{ words }}</button>
        </div>
        <footer v-if="session.mayWrite">
          <button
            v-if="next.step.kind === 'fit'"
            type="button"
            class="plain"
            :aria-expanded="choosing"
            @click="choosing = !choosing"
          >
            Not as it was <kbd>X</kbd>
          </button>
          <button v-if="next.step.kind === 'test'" type="button" class="plain" @click="done(next, 'Overruled')">
            Go on all the same <kbd>O</kbd>
          </button>
          <button type="button" class="plain" @click="undo">Undo <kbd>U</kbd></button>
        </footer>
        <JogKey v-if="session.mayWrite" :engine-id="book.engine.id" :disabled="testing || wet" />
      </article>
      <article v-else class="card sound" aria-label="Together">
        <h2>Everything is back in its place</h2>
        <p class="quiet">{{ back.steps.length }} steps done; the tray is empty.</p>
      </article>
      <div class="trays">
        <TrayDrawing
          v-for="tray in trays"
          :key="tray.id"
          :tray="tray"
          :lying="back.state.lying"
          :next="null"
          :lit="lit"
          :name-of="nameOf"
        />
      </div>
    </div>
    <details v-if="left.length > 1">
      <summary>{{ left.length - 1 }} more steps</summary>
      <ol class="line">
        <li v-for="entry in left.slice(1)" :key="entry.id" :class="entry.step.kind">{{ headline(entry) }}</li>
      </ol>
    </details>
  </section>
</template>

<style scoped>
.back {
  display: grid;
  gap: 10px;
}
.cell,
.expected {
  display: flex;
  gap: 12px;
  align-items: baseline;
  flex-wrap: wrap;
}
.cell .numeral,
.expected .numeral {
  font-size: 2rem;
}
.way {
  font-weight: 600;
}
.fates {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
  gap: 6px;
}
.fates button {
  border: 1px solid var(--rule);
  border-radius: 3px;
  min-height: 48px;
  padding: 4px 12px;
  font-weight: 600;
  text-align: left;
}
.trays {
  display: grid;
  gap: 10px;
}
summary {
  cursor: pointer;
  font-weight: 600;
  min-height: var(--target);
  display: flex;
  align-items: center;
}
.line {
  margin: 0;
  padding: 0;
  list-style: none;
  columns: 2;
}
.line li {
  padding: 4px 0;
}
.line .test,
.line .ohms,
.line .direction {
  color: var(--brass-ink);
  font-weight: 600;
}
.line .lubricate {
  color: var(--sound-ink);
}
</style>
