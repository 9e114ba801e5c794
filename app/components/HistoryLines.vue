<script setup lang="ts">
import { showDay } from '~~/work/describe-due'
import type { HistoryFigureName } from '~~/core/motor/motor-figures'
import type { HistoryJudgement, HistoryLine } from '~~/core/motor/history-judgement'
import { inBenchUnit, showFigure } from '~~/work/shown-figure'

/** A motor's figures against its own past and against what is usual: each on a rule with the usual range drawn. */
const props = defineProps<{ judgement: HistoryJudgement; motorSince: string | null }>()
const labels: Readonly<Record<HistoryFigureName, string>> = {
  resistance: 'Winding, brushes',
  backEmf: 'Magnet',
  noLoadCurrent: 'Draws, running free',
  keepsTurningDownTo: 'Turns on down to',
}
const inWords: Readonly<Record<HistoryFigureName, string>> = {
  resistance: 'the winding with its brushes',
  backEmf: 'the magnet',
  noLoadCurrent: 'the current running free',
  keepsTurningDownTo: 'the volts it turns on down to',
}
const percent = (share: number): string =>
  `${share > 0 ? '+' : '−'}${Math.abs(share * 100).toFixed(Math.abs(share) < 0.1 ? 1 : 0)} %`
const year = (at: number): string => new Date(at).toLocaleDateString('en-GB', { month: 'short', year: 'numeric' })

/** Every rule runs from half to twice the usual, by ratio, so that a glance compares them. */
const SPAN = Math.log(2.2)
const across = (value: number, usual: number): number =>
  Math.min(100, Math.max(0, 50 + (50 * Math.log(value / usual)) / SPAN))
const rules = computed(() =>
  props.judgement.lines.map((line) => ({
    line,
    low: across(line.usual.low, line.usual.value),
    high: across(line.usual.high, line.usual.value),
    then: line.own ? across(line.own.then.value, line.usual.value) : null,
    now: across(line.now.value, line.usual.value),
  })),
)
const most = computed(() => {
  const found = props.judgement.most
  if (!found) return null
  const name = inWords[found.line.name]
  if (found.since === 'own' && found.line.own)
    return `What changed most: ${name}, ${percent(found.line.own.share)} since ${year(found.line.own.at)}.`
  return `What stands out most: ${name}, ${percent(found.line.now.value / found.line.usual.value - 1)} against the usual.`
})
const basis = computed(() => {
  const examples = Math.max(0, ...props.judgement.lines.map((line) => line.usual.examples))
  return examples === 0
    ? 'Usual: from the class of motor, from memory; no other example of this type was measured here yet.'
    : `Usual: ${examples} other ${examples === 1 ? 'example' : 'examples'} of this type measured here${examples < 8 ? ', drawn towards the class while they are few' : ''}.`
})
function usualWords(line: HistoryLine): string {
  const { low, high, unit } = inBenchUnit({ ...line.usual, unit: line.now.unit })
  return `${Number(low.toPrecision(2))} to ${Number(high.toPrecision(2))} ${unit}`
}
const verdictWords: Readonly<Record<HistoryLine['verdict'], string>> = {
  'as-usual': 'as usual',
  low: 'low',
  high: 'high',
}
const weightOf = (line: HistoryLine): string =>
  line.verdict === 'as-usual' ? 'sound' : line.name === 'backEmf' && line.verdict === 'high' ? 'ask' : 'care'
</script>

<template>
  <section class="history" aria-label="Against its past and the usual">
    <h3>Against its past and the usual</h3>
    <p v-if="most" class="sign sign--care most">{{ most }}</p>
    <p v-if="judgement.meaning">{{ judgement.meaning }}</p>
    <p v-if="!most" class="sign sign--sound">Nothing stands out.</p>
    <ul>
      <li v-for="{ line, low, high, then, now } in rules" :key="line.name">
        <div class="head">
          <span>{{ labels[line.name] }}</span><b class="figure">{{ showFigure(line.now) }}</b>
        </div>
        <div class="rule" aria-hidden="true">
          <i class="usual" :style="{ left: `${low}%`, width: `${high - low}%` }" /><i class="middle" /><i
            v-if="then !== null"
            class="then"
            :style="{ left: `${then}%` }"
          /><i class="now" :style="{ left: `${now}%` }" :class="line.verdict" />
        </div>
        <p class="quiet">
          <span class="sign" :class="`sign--${weightOf(line)}`">{{ verdictWords[line.verdict] }}</span> usual
          {{ usualWords(line)
          }}<template v-if="line.own"
            >; {{ year(line.own.at) }}
            {{ line.own.beyondDoubt ? percent(line.own.share) : 'no measurable change' }}</template
          ><template v-if="line.drift?.beyondDoubt"
            >; since {{ year(line.drift.at) }} {{ percent(line.drift.share) }}</template
          >
        </p>
      </li>
    </ul>
    <p class="quiet">
      {{ basis }} Band: 95 of 100 sound ones. ◇ last time, ● now.<template v-if="motorSince">
        Sheets from before {{ showDay(motorSince) }} are another motor’s.</template
      >
    </p>
  </section>
</template>

<style scoped>
.history {
  display: grid;
  gap: 8px;
  border-top: 1px solid var(--rule);
  padding-top: 10px;
}
.most {
  font-weight: 600;
  align-items: flex-start;
}
.most::before {
  margin-top: 5px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 12px;
}
.head {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
.head span {
  color: var(--soft);
  font-size: 0.92rem;
}
.rule {
  position: relative;
  height: 18px;
  margin: 2px 8px;
  border-bottom: 1px solid var(--rule);
}
.rule i {
  position: absolute;
}
.usual {
  bottom: 0;
  height: 10px;
  background: color-mix(in srgb, var(--sound) 26%, transparent);
}
.middle {
  left: 50%;
  bottom: 0;
  height: 14px;
  border-left: 1px solid var(--steel);
}
.then {
  width: 9px;
  height: 9px;
  bottom: 4px;
  border: 2px solid var(--steel);
  transform: translateX(-50%) rotate(45deg);
  background: var(--paper);
}
.now {
  width: 12px;
  height: 12px;
  bottom: 2px;
  border-radius: 50%;
  background: var(--ink);
  transform: translateX(-50%);
  border: 2px solid var(--paper);
}
.now.low,
.now.high {
  background: var(--amber);
}
.quiet .sign {
  margin-right: 6px;
}
</style>
