<script setup lang="ts">
import { readSequence, type SeenPosition } from '~~/core/motor/sequence-steps'
import type { ReadingRow } from '~~/messages/book'
import { pullInWords } from '~~/messages/readings/sequence'
import { sequenceStops } from '~~/work/sequence-lines'

/** What a sequence switch did at each interruption, in a row: every step that was missed or doubled marked. */
const props = defineProps<{ lines: readonly ReadingRow[] }>()
const stops = computed(() => sequenceStops(props.lines))
const account = computed(() => (stops.value.length > 1 ? readSequence(stops.value.map((stop) => stop.position)) : null))
const pullIn = computed(() => {
  const counted = props.lines.findLast((line) => line.kind === 'sequence-count' && !line.struck)
  return counted?.kind === 'sequence-count' && counted.pullIn ? pullInWords(counted.pullIn) : ''
})
const letters: Readonly<Record<SeenPosition, string>> = { forward: 'F', neutral: 'N', reverse: 'R' }
const stepWords = (steps: number): string =>
  steps === 0 ? 'missed' : steps === 1 ? '' : steps === 2 ? 'two steps' : 'three steps'
</script>

<template>
  <section v-if="account" class="sequence" aria-label="Sequence switch">
    <h3>Sequence switch</h3>
    <p class="sign" :class="account.missed + account.doubled ? 'sign--fault' : 'sign--sound'">
      {{
        account.missed + account.doubled === 0
          ? `${account.steps.length} interruptions, every one a single step.`
          : `Of ${account.steps.length} interruptions ${[account.missed ? `${account.missed} moved nothing` : '', account.doubled ? `${account.doubled} moved more than one step` : ''].filter(Boolean).join(' and ')}.`
      }}
    </p>
    <p v-if="account.ambiguous" class="quiet">
      Neutral after neutral may have been none or two: one more interruption would tell.
    </p>
    <ol>
      <li
        v-for="(stop, index) in stops"
        :key="index"
        :class="[stop.position, { wrong: index > 0 && account.steps[index - 1] !== 1 }]"
      >
        <b :aria-label="stop.position">{{ letters[stop.position] }}</b><span class="figure">{{
          (stop.amps * 1000).toFixed(0)
        }}</span
        ><span v-if="index > 0" class="word">{{ stepWords(account.steps[index - 1] ?? 1) }}</span
        ><span v-else class="word">as found</span>
      </li>
    </ol>
    <p class="quiet">
      Forward, neutral, reverse, neutral; mA under each. {{ pullIn
      }}<template v-if="account.missed">
        Missed steps are usually a dirty drum or tired fingers: mineral spirit and a paper strip, never bend for closing
        force.</template
      >
    </p>
  </section>
</template>

<style scoped>
.sequence {
  display: grid;
  gap: 8px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 8px 4px;
}
li {
  display: grid;
  justify-items: center;
  min-width: 46px;
  font-size: 0.82rem;
  color: var(--soft);
}
b {
  width: 38px;
  height: 38px;
  border-radius: 50%;
  display: grid;
  place-items: center;
  font-size: 1.05rem;
  color: var(--ink);
  border: 2px solid var(--steel);
}
.neutral b {
  border-style: dashed;
}
.forward b {
  background: color-mix(in srgb, var(--sound) 18%, transparent);
}
.reverse b {
  background: color-mix(in srgb, var(--brass) 24%, transparent);
}
.wrong b {
  border: 3px solid var(--red);
}
.wrong .word {
  color: var(--red);
  font-weight: 650;
}
</style>
