<script setup lang="ts">
import { atStart } from '~~/core/engine/name-in-sentence'
import { showMoment } from '~~/work/describe-due'
import type { JobSearch } from '~~/work/search-history'
import { chanceInFigures } from '~~/work/chance-in-figures'

/** The history of the reasoning: what was done, what was believed until then, and why it was chosen. */
defineProps<{ steps: JobSearch['steps']; mayWrite: boolean }>()
const emit = defineEmits<{ strike: [id: string, words: string] }>()
const opened = ref<string | null>(null)
const leads: Readonly<Record<string, string>> = {
  'could-not': 'Could not be done',
  confirmed: 'It is so',
  'ruled-out': 'Ruled out',
  repaired: 'Mended',
  known: 'Known',
}
const believedOf = (entry: JobSearch['steps'][number]['row']['entry']): string =>
  'believed' in entry ? entry.believed.map((one) => `${one.words} ${chanceInFigures(one.chance)}`).join('; ') : ''
const wordsOf = (entry: JobSearch['steps'][number]['row']['entry']): string =>
  entry.kind === 'known'
    ? entry.circumstances.map((one) => one.replaceAll('-', ' ')).join(', ') || 'nothing of its past'
    : entry.words
</script>

<template>
  <section aria-label="How it was found">
    <h2>How it was found</h2>
    <p v-if="steps.length === 0" class="quiet">
      Every outcome lands here with what was believed before it and why the test was chosen.
    </p>
    <ol v-else class="ruled-list">
      <li
        v-for="({ row, struck }, index) in [...steps].reverse()"
        :key="row.id"
        class="step"
        :class="{ struck, changed: row.entry.kind === 'repaired' }"
      >
        <button
          type="button"
          class="line"
          :aria-expanded="opened === row.id"
          @click="opened = opened === row.id ? null : row.id"
        >
          <span class="figure number">{{ steps.length - index }}</span>
          <span class="words"
            ><b v-if="leads[row.entry.kind]" class="lead">{{ leads[row.entry.kind] }}</b
            >{{ atStart(wordsOf(row.entry)) }}</span
          >
          <span class="quiet">{{ row.author.split(' ')[0] }}, {{ showMoment(row.capturedAt) }}</span>
        </button>
        <div v-if="opened === row.id" class="more">
          <p v-if="row.entry.kind === 'outcome' && row.entry.why">{{ row.entry.why }}</p>
          <p v-if="believedOf(row.entry)" class="quiet">Believed until then: {{ believedOf(row.entry) }}.</p>
          <p v-if="row.reckoned?.failure" class="sign sign--care">
            The book could not reckon it: {{ row.reckoned.failure }}
          </p>
          <template v-else-if="row.reckoned">
            <p class="quiet">
              After it, as the book reckons:
              {{
                [
                  ...row.reckoned.believed.slice(0, 3).map((one) => `${one.words} ${chanceInFigures(one.chance)}`),
                  `nothing else ${chanceInFigures(row.reckoned.nothingElse)}`,
                ].join('; ')
              }}. Next then: {{ row.reckoned.advice.words }}.
            </p>
            <p v-for="clash in row.reckoned.contradictions" :key="clash" class="sign sign--care">{{ clash }}</p>
          </template>
          <p v-if="struck" class="quiet">Struck out: it no longer counts.</p>
          <button
            v-else-if="mayWrite && row.entry.kind !== 'struck'"
            type="button"
            class="plain"
            @click="emit('strike', row.id, wordsOf(row.entry))"
          >
            Strike it out
          </button>
        </div>
      </li>
    </ol>
  </section>
</template>

<style scoped>
h2 {
  margin-bottom: 4px;
}
.ruled-list > li {
  padding: 0;
}
.line {
  display: grid;
  grid-template-columns: 34px 1fr max-content;
  gap: 12px;
  width: 100%;
  min-height: var(--target);
  align-items: center;
  text-align: left;
}
.lead {
  color: var(--brass-ink);
  margin-right: 10px;
}
.number {
  color: var(--soft);
  text-align: right;
}
.struck .words {
  text-decoration: line-through;
  color: var(--soft);
}
.changed {
  box-shadow: inset 3px 0 0 var(--brass);
}
.more {
  padding: 0 0 10px 46px;
  display: grid;
  gap: 4px;
}
.plain {
  font-weight: 600;
  color: var(--green);
  min-height: var(--target);
  justify-self: start;
}
@media (max-width: 600px) {
  .line {
    grid-template-columns: 26px 1fr;
  }
  .line .quiet {
    grid-column: 2;
  }
}
</style>
