<script setup lang="ts">
import type { EngineDescription } from '~~/core/engine/description-schema'
import type { Pole } from '~~/core/engine/poles'
import { deadTracks, stallRemedyRows, stretchesOf } from '~~/core/knowledge/stall-knowledge'
import { findScale, scaleSpeed } from '~~/core/measure/scales'
import { coastOf } from '~~/core/mechanism/coast-of-engine'
import {
  contactGrades,
  contactGradeWords,
  contactPoints,
  effectivePoints,
  gradeOf,
  UNMEASURED_GRADE,
  type ContactGrade,
} from '~~/core/mechanism/contact-grades'
import { stallRemedies } from '~~/core/mechanism/stall-remedies'
import { stallRisk, type ContactPoint } from '~~/core/mechanism/stall-risk'
import type { JobBook } from '~~/messages/book'
import { stallVerdict, stopsInFigures } from '~~/work/stalling'

/** The engine pushed over a dead piece of track: where nothing supplies it, whether it rolls through, and what would help. */
const props = defineProps<{ book: JobBook; description: EngineDescription }>()
const sheet = useContinuitySheet(
  () => props.book,
  () => props.description,
)

const USUAL_GAUGE_MM = 16.5
const gaugeMm = computed(() => props.book.type.gaugeMm ?? USUAL_GAUGE_MM)
const scaleRatio = computed(() =>
  props.book.type.scaleId ? (findScale(props.book.type.scaleId)?.ratio ?? null) : null,
)
const { draft } = useDraft(`stall.${props.book.engine.id}`, () => ({
  track: 'long-frog',
  rail: 'plus' as Pole,
  lengthMm: null as number | null,
  speedMmPerSecond: 60,
  grades: {} as Record<string, ContactGrade>,
}))
const track = computed(
  () => deadTracks.find((entry) => entry.id === draft.value.track) ?? (deadTracks[0] as (typeof deadTracks)[number]),
)
const stretches = computed(() => {
  const made = stretchesOf(track.value, gaugeMm.value, draft.value.rail)
  const own = draft.value.lengthMm
  return own !== null && own >= 1 && made.length === 1
    ? made.map((entry) => ({ ...entry, toMm: entry.fromMm + Math.min(400, own) }))
    : made
})
const lengthShown = computed(
  () =>
    Math.max(...stretches.value.map((entry) => entry.toMm)) - Math.min(...stretches.value.map((entry) => entry.fromMm)),
)

/** What is no length leaves the preset’s, and the box says so. */
function setLength(box: HTMLInputElement): void {
  const typed = Number(box.value)
  draft.value.lengthMm = typed >= 1 ? typed : null
  box.value = String(lengthShown.value)
}

const measured = computed(
  () =>
    Object.fromEntries(
      sheet.judged.value.flatMap((entry) => {
        const grade = gradeOf(entry)
        return grade ? [[entry.wheel.point, grade]] : []
      }),
    ) as Record<string, ContactGrade>,
)
const grades = computed<Record<string, ContactGrade>>(() => ({ ...measured.value, ...draft.value.grades }))
function nextGrade(point: string): void {
  const now = grades.value[point] ?? UNMEASURED_GRADE
  draft.value.grades = {
    ...draft.value.grades,
    [point]: contactGrades[(contactGrades.indexOf(now) + 1) % contactGrades.length] as ContactGrade,
  }
}
const measuredCount = computed(
  () => Object.keys(measured.value).filter((point) => contacts.value.some((entry) => entry.id === point)).length,
)

const coast = computed(() => coastOf(props.description, draft.value.speedMmPerSecond / 1000))
const coastMm = computed(() => coast.value?.coastMm ?? 0)
const contacts = computed(() => contactPoints(props.description, grades.value))
const scaled = (times: number): ContactPoint[] =>
  contacts.value.map((point) => ({
    ...point,
    failChance: point.failChance === 1 ? 1 : Math.min(1, point.failChance * times),
  }))
const riskOf = (list: readonly ContactPoint[]) =>
  stallRisk({ points: list, stretches: stretches.value, bridgedMm: coastMm.value })
const risk = computed(() => riskOf(contacts.value))
/** The chances of the contacts are judged: with half and with twice of them. */
const range = computed(() => [riskOf(scaled(0.5)).stopsPerPass, riskOf(scaled(2)).stopsPerPass] as const)
const remedies = computed(() =>
  stallRemedies(props.description, stallRemedyRows, {
    stretches: stretches.value,
    grades: grades.value,
    metresPerSecond: draft.value.speedMmPerSecond / 1000,
    coastMm: coastMm.value,
    amps: coast.value?.amps ?? 0.2,
  }),
)
const railName = (pole: Pole): string =>
  props.description.nodes.find((node) => node.id === props.description.rails[pole])?.name ?? pole
const perRail = computed(() =>
  (['plus', 'minus'] as const).map((pole) => ({
    pole,
    name: railName(pole),
    ...effectivePoints(contacts.value, pole),
  })),
)

const verdict = computed(() => stallVerdict(risk.value, coastMm.value))
const kmPerHour = computed(() =>
  scaleRatio.value === null
    ? null
    : scaleSpeed(draft.value.speedMmPerSecond / 1000, scaleRatio.value).kilometresPerHour,
)
</script>

<template>
  <div class="stall">
    <p v-if="contacts.length === 0" class="quiet">Nothing of this engine collects: there is no stalling to reckon.</p>
    <template v-else>
      <div class="asked">
        <label
          >Over
          <select v-model="draft.track">
            <option v-for="entry in deadTracks" :key="entry.id" :value="entry.id">{{ entry.name }}</option>
          </select></label
        >
        <label v-if="track.perGauge.some((entry) => entry.pole !== 'both')"
          >dead first in the
          <select v-model="draft.rail">
            <option value="plus">{{ railName('plus') }}</option>
            <option value="minus">{{ railName('minus') }}</option>
          </select></label
        >
        <label v-if="track.perGauge.length === 1"
          >dead for
          <input
            :value="lengthShown"
            type="number"
            min="1"
            max="400"
            step="1"
            inputmode="numeric"
            @change="setLength($event.target as HTMLInputElement)"
          />
          mm</label
        >
        <label
          >at
          <input
            v-model.number="draft.speedMmPerSecond"
            type="range"
            min="10"
            max="400"
            step="5"
            aria-label="Speed in millimetres per second"
          />
          <b class="figure">{{ draft.speedMmPerSecond }} mm/s</b
          ><span v-if="kmPerHour !== null" class="quiet">&nbsp;{{ Math.round(kmPerHour) }} km/h to scale</span></label
        >
      </div>
      <p class="verdict sign" :class="`sign--${verdict.tone}`" role="status">{{ verdict.words }}</p>
      <StallDrawing
        :description="description"
        :risk="risk"
        :stretches="stretches"
        :grades="grades"
        @tapped="nextGrade"
      />
      <div class="figures">
        <div>
          <span class="numeral">{{ stopsInFigures(risk.stopsPerPass) }}</span><span class="quiet"
            >stops a pass; {{ stopsInFigures(range[0]) }} to {{ stopsInFigures(range[1]) }} with contacts twice as good
            or bad</span
          >
        </div>
        <div>
          <span class="numeral">{{ risk.longestWithoutMm }} mm</span
          ><span class="quiet">with no point of one rail on live metal</span>
        </div>
        <div>
          <span class="numeral">{{ coastMm.toFixed(1) }} mm</span
          ><span class="quiet">it rolls on by itself, from its motor, gears and mass</span>
        </div>
        <div v-for="entry in perRail" :key="entry.pole">
          <span class="numeral"
            >{{ entry.effective.toFixed(1) }}<i>/{{ entry.fitted }}</i></span
          ><span class="quiet">points touch on the {{ entry.name.toLowerCase() }}</span>
        </div>
      </div>
      <p class="quiet">
        Tap a contact to say how it is: {{ contactGrades.map((grade) => contactGradeWords[grade]).join(', ') }}.
        {{
          measuredCount === 0
            ? 'None is measured wheel by wheel yet: each counts as dull.'
            : `${measuredCount} of ${contacts.length} come from the continuity sheet.`
        }}
        How often a dull or dirty contact fails is judged, not measured.
        <button v-if="Object.keys(draft.grades).length > 0" type="button" class="plain" @click="draft.grades = {}">
          Back to what was measured
        </button>
      </p>
      <StallRemedies :book="book" :risk="risk" :remedies="remedies" />
    </template>
  </div>
</template>

<style scoped>
.stall {
  display: grid;
  gap: 14px;
  min-width: 0;
  grid-template-columns: minmax(0, 1fr);
}
.asked {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  align-items: center;
}
.asked label {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: var(--target);
}
select,
.asked input[type='number'] {
  font: inherit;
  font-weight: 600;
  color: var(--ink);
  background: var(--sheet);
  border: 0;
  border-bottom: 2px solid var(--steel);
  min-height: 40px;
  padding: 0 8px;
  border-radius: 0;
}
.asked input[type='number'] {
  width: 76px;
  text-align: right;
  font-family: var(--mono);
}
input[type='range'] {
  accent-color: var(--green);
  min-height: var(--target);
  width: 110px;
}
.verdict {
  font-weight: 600;
  font-size: 1.05rem;
  align-items: start;
}
.verdict::before {
  margin-top: 5px;
}
.figures {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 10px 22px;
  border-top: 1px solid var(--rule);
  padding-top: 10px;
}
.figures > div {
  display: grid;
  align-content: start;
}
.figures i {
  font-style: normal;
  color: var(--soft);
  font-size: 0.7em;
}
.plain {
  font-weight: 600;
  color: var(--green);
  min-height: var(--target);
}
</style>
