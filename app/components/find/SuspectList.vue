<script setup lang="ts">
import { atStart } from '~~/core/engine/name-in-sentence'
import type { SuspectReport } from '~~/core/diagnosis/report/search-report'
import { suspicionGrade } from '~/drawing/suspicion-grade'
import { chanceInFigures } from '~~/work/chance-in-figures'

/** Who may have done it: chance, what speaks for and against, and what mending it takes. */
const props = defineProps<{
  suspects: readonly SuspectReport[]
  nothingElse: number
  findingWords: (id: string) => string
  learnedWords: (fault: string) => string
  schoolWords: (school: string) => string
  partName: (id: string) => string
  mayWrite: boolean
  highlighted: ReadonlySet<string>
}>()
const emit = defineEmits<{ confirm: [SuspectReport]; ruleOut: [SuspectReport]; mend: [SuspectReport] }>()
const few = 7
const showAll = ref(false)
const opened = ref<string | null>(null)
const shown = computed(() => (showAll.value ? props.suspects : props.suspects.slice(0, few)))
/** What was found speaks for those before. */
const firstAnyway = computed(() => props.suspects.findIndex(({ implied, confirmed }) => !implied && !confirmed))
const times = (value: number): string =>
  value >= 1
    ? `${value >= 9.5 ? Math.round(value) : value.toFixed(1)} times likelier`
    : `${1 / value >= 9.5 ? Math.round(1 / value) : (1 / value).toFixed(1)} times less likely`
</script>

<template>
  <section aria-label="Suspects" class="suspects">
    <div class="head">
      <h2>Suspects</h2>
      <span class="quiet"
        >{{ chanceInFigures(nothingElse) }} that nothing else is wrong. Several may be true at once.</span
      >
    </div>
    <ul class="ruled-list">
      <li
        v-for="(suspect, index) in shown"
        :key="suspect.id"
        class="suspect"
        :class="[suspicionGrade(suspect.chance), { lit: highlighted.has(suspect.place), confirmed: suspect.confirmed }]"
      >
        <p v-if="index > 0 && index === firstAnyway" class="quiet anyway">
          Nothing found speaks for these; they are there as often as ever.
        </p>
        <button
          type="button"
          class="line"
          :aria-expanded="opened === suspect.id"
          @click="opened = opened === suspect.id ? null : suspect.id"
        >
          <span class="figure chance">{{ suspect.confirmed ? 'seen' : chanceInFigures(suspect.chance) }}</span>
          <span class="bar" aria-hidden="true"><i :style="{ width: `${Math.max(1, suspect.chance * 100)}%` }" /></span>
          <span class="words">{{ atStart(suspect.words) }}</span>
          <span class="quiet remedy"
            >{{ suspect.remedy.words }}, <span class="minutes">{{ Math.round(suspect.totalMinutes) }} min</span></span
          >
        </button>
        <div v-if="opened === suspect.id || suspect.confirmed" class="more">
          <template v-if="opened === suspect.id">
            <p v-for="entry in suspect.speaksFor" :key="`+${entry.finding}`" class="testimony">
              <b aria-label="speaks for it">+</b> {{ findingWords(entry.finding) }}
              <span class="quiet">{{ times(entry.times) }}</span>
            </p>
            <p v-for="entry in suspect.speaksAgainst" :key="`-${entry.finding}`" class="testimony">
              <b aria-label="speaks against it">−</b> {{ findingWords(entry.finding) }}
              <span class="quiet">{{ times(entry.times) }}</span>
            </p>
            <p v-if="!suspect.confirmed && suspect.speaksFor.length + suspect.speaksAgainst.length === 0" class="quiet">
              Nothing found yet speaks for or against it: this is how often it is so.
            </p>
            <p v-if="learnedWords(suspect.fault)" class="quiet">{{ learnedWords(suspect.fault) }}</p>
            <p v-if="suspect.takesOff.length > 0" class="quiet">
              For the repair comes off: {{ suspect.takesOff.map(partName).join(', ') }}.
            </p>
            <p v-if="schoolWords(suspect.remedy.school)" class="quiet">
              {{ schoolWords(suspect.remedy.school) }}
              <NuxtLink to="/workshop#schools-head">Schools of practice</NuxtLink>
            </p>
            <p v-if="suspect.remedy.parts.length > 0" class="quiet">Parts: {{ suspect.remedy.parts.join(', ') }}.</p>
            <p v-if="suspect.remedy.caution" class="sign sign--care">{{ suspect.remedy.caution }}</p>
          </template>
          <div v-if="mayWrite" class="acts">
            <v-btn v-if="!suspect.confirmed" variant="flat" color="primary" @click="emit('confirm', suspect)"
              >It is so</v-btn
            >
            <v-btn v-if="!suspect.confirmed" variant="outlined" @click="emit('ruleOut', suspect)">Ruled out</v-btn>
            <v-btn
              :variant="suspect.confirmed ? 'flat' : 'outlined'"
              :color="suspect.confirmed ? 'primary' : undefined"
              @click="emit('mend', suspect)"
              >{{ suspect.confirmed ? 'Mended' : 'Mended untested' }}</v-btn
            >
          </div>
        </div>
      </li>
    </ul>
    <button v-if="suspects.length > few" type="button" class="plain" @click="showAll = !showAll">
      {{ showAll ? 'Only the likeliest' : `All ${suspects.length} above half a percent` }}
    </button>
  </section>
</template>

<style scoped>
.suspects {
  container-type: inline-size;
}
.anyway {
  padding: 8px 0 2px;
}
.head {
  display: flex;
  align-items: baseline;
  gap: 16px;
  justify-content: space-between;
  flex-wrap: wrap;
  margin-bottom: 4px;
}
.ruled-list > li {
  padding: 0;
}
.line {
  display: grid;
  grid-template-columns: 62px 90px minmax(0, 1fr) fit-content(42%);
  gap: 14px;
  align-items: center;
  width: 100%;
  min-height: var(--target);
  text-align: left;
}
.line:hover .words {
  text-decoration: underline;
  text-decoration-color: var(--brass);
  text-underline-offset: 3px;
}
.remedy {
  text-align: right;
}
.minutes {
  white-space: nowrap;
}
.chance {
  font-weight: 650;
  font-size: 1.05rem;
  text-align: right;
}
.bar {
  height: 9px;
  background: var(--sunk);
  border-radius: 2px;
  overflow: hidden;
}
.bar i {
  display: block;
  height: 100%;
  background: var(--steel);
}
.high .bar i,
.confirmed .bar i {
  background: var(--red);
}
.middle .bar i {
  background: var(--amber);
}
.lit {
  background: color-mix(in srgb, var(--brass) 14%, transparent);
}
.confirmed .chance {
  color: var(--red);
}
.more {
  padding: 2px 0 12px 76px;
  display: grid;
  gap: 5px;
}
.testimony b {
  display: inline-block;
  width: 1.3em;
  font-family: var(--mono);
  font-size: 1.1rem;
}
.acts {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
  margin-top: 4px;
}
.plain {
  font-weight: 600;
  color: var(--green);
  min-height: var(--target);
}
@container (max-width: 820px) {
  .line {
    grid-template-columns: 62px 60px 1fr;
    padding: 7px 0;
    row-gap: 1px;
  }
  .remedy {
    grid-column: 3;
    text-align: left;
  }
}
@container (max-width: 480px) {
  .line {
    grid-template-columns: 56px 1fr;
  }
  .bar {
    display: none;
  }
  .remedy {
    grid-column: 2;
    text-align: left;
  }
  .more {
    padding-left: 12px;
  }
}
</style>
