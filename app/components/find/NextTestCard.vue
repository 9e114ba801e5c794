<script setup lang="ts">
import type { NextTestReport } from '~~/core/diagnosis/search-report'

/** The next test as one big card: what, where to touch, why, its price, and its outcomes on keys 1 to 4. */
const props = defineProps<{
  test: NextTestReport
  partName: (id: string) => string
  mayWrite: boolean
  overruled: boolean
}>()
const emit = defineEmits<{ outcome: [index: number]; couldNot: []; another: [] }>()
const takesOff = computed(() => props.test.takesOff.map(props.partName))
const equipmentWords = computed(() =>
  props.test.equipment.filter((piece) => piece !== 'eyes').map((piece) => piece.replaceAll('-', ' ')),
)
</script>

<template>
  <article class="card" :aria-label="`Next test: ${test.words}`">
    <header>
      <span class="label">{{ overruled ? 'Test of your choice' : 'Next test' }}</span>
      <span class="price"
        ><b class="figure">{{
          test.totalMinutes < 10 ? test.totalMinutes.toFixed(1) : Math.round(test.totalMinutes)
        }}</b>
        min<template v-if="takesOff.length > 0"> with taking off and back</template></span
      >
    </header>
    <h2>{{ test.words }}</h2>
    <p class="how">{{ test.how }}</p>
    <p class="why">{{ test.why }}</p>
    <ul class="needs">
      <li v-if="equipmentWords.length > 0"><span class="label">Needs</span> {{ equipmentWords.join(', ') }}</li>
      <li v-if="takesOff.length > 0"><span class="label">Takes off</span> {{ takesOff.join(', ') }}</li>
      <li v-if="test.needsWhole"><span class="label">Stands</span> on its wheels, complete but for the body</li>
    </ul>
    <p v-if="test.caution" class="sign sign--care caution">{{ test.caution }}</p>
    <div class="outcomes" :class="`of-${test.outcomes.length}`">
      <button
        v-for="(outcome, index) in test.outcomes"
        :key="outcome.id"
        type="button"
        class="outcome"
        :disabled="!mayWrite"
        @click="emit('outcome', index)"
      >
        <kbd>{{ index + 1 }}</kbd><span class="words">{{ outcome.words }}</span
        ><span class="figure chance" :aria-label="`expected with ${Math.round(outcome.chance * 100)} percent`"
          >{{ Math.round(outcome.chance * 100) }} %</span
        >
      </button>
    </div>
    <footer v-if="mayWrite">
      <button type="button" class="plain" @click="emit('couldNot')">Could not do it <kbd>N</kbd></button>
      <button type="button" class="plain" @click="emit('another')">Another test <kbd>A</kbd></button>
      <span class="quiet">Percentages say how likely each is now.</span>
    </footer>
  </article>
</template>

<style scoped>
.card {
  border: 2px solid var(--green);
  background: var(--sheet);
  padding: 14px 18px 12px;
  border-radius: 3px;
  display: grid;
  gap: 8px;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
.price {
  color: var(--soft);
}
.price b {
  color: var(--ink);
  font-size: 1.25rem;
}
h2 {
  font-size: 1.5rem;
}
.how {
  font-size: 1.05rem;
}
.why {
  color: var(--soft);
}
.needs {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
}
.needs .label {
  margin-right: 6px;
}
.caution {
  font-weight: 550;
}
.outcomes {
  display: grid;
  gap: 10px;
  grid-template-columns: repeat(4, 1fr);
  margin-top: 4px;
}
.of-3 {
  grid-template-columns: repeat(3, 1fr);
}
.of-2 {
  grid-template-columns: repeat(2, 1fr);
}
.outcome {
  border: 1.5px solid var(--green);
  border-radius: 3px;
  min-height: 74px;
  padding: 10px 12px;
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 10px;
  align-items: center;
  text-align: left;
  font-weight: 650;
  background: var(--paper);
}
.outcome:hover:not(:disabled),
.outcome:focus-visible {
  background: var(--green);
  color: var(--on-green);
}
.outcome .words {
  line-height: 1.2;
}
.chance {
  grid-column: 2;
  font-size: 0.82rem;
  font-weight: 500;
  opacity: 0.85;
}
footer {
  display: flex;
  gap: 20px;
  align-items: center;
  flex-wrap: wrap;
}
.plain {
  font-weight: 600;
  color: var(--green);
  min-height: var(--target);
}
footer .quiet {
  margin-left: auto;
}
@media (max-width: 900px) {
  .outcomes,
  .of-3 {
    grid-template-columns: 1fr 1fr;
  }
}
@media (max-width: 480px) {
  .outcomes,
  .of-2,
  .of-3 {
    grid-template-columns: 1fr;
  }
  .outcome {
    min-height: 56px;
  }
  footer .quiet {
    display: none;
  }
}
</style>
