<script setup lang="ts">
import type { FindingRow, JobBook } from '~~/shared/book'
import type { FindingState } from '~~/shared/vocabulary'

/** Suspicions become facts here: each one confirmed, or ruled out with one word. */
const props = defineProps<{ book: JobBook }>()
const session = useSessionStore()
const dialog = useFindingDialog()
const { setState } = useFindingState(computed(() => props.book))
const suspected = computed(() => props.book.findings.filter((finding) => finding.state === 'suspected'))
const settled = computed(() => props.book.findings.filter((finding) => finding.state !== 'suspected'))
const choices: ReadonlyArray<{ state: FindingState; word: string }> = [{ state: 'confirmed', word: 'It is so' }, { state: 'ruled-out', word: 'Ruled out' }]
const act = (finding: FindingRow, state: FindingState): void => void setState(finding, state)
</script>

<template>
  <div class="find">
    <div class="head"><h2>Suspected</h2><v-btn v-if="session.mayWrite" color="primary" variant="outlined" @click="dialog.openNew()">Note a finding <kbd>F</kbd></v-btn></div>
    <EmptyState v-if="book.findings.length === 0" title="Nothing suspected yet" text="Split the chain where one test says most: rail, wheels, pickups, motor terminals, motor taken out. Note what fails and what works." action="Note a finding" @act="dialog.openNew()" />
    <p v-else-if="suspected.length === 0" class="quiet">Every suspicion is settled. Several faults at once are the rule: finding one does not end the search; the retest at Prove does.</p>
    <ul class="ruled-list">
      <li v-for="finding in suspected" :key="finding.id" class="line">
        <div><strong>{{ finding.what }}</strong><div class="quiet">{{ [finding.place, finding.remedy].filter(Boolean).join('. ') }}</div></div>
        <div v-if="session.mayWrite" class="choices"><v-btn v-for="choice in choices" :key="choice.state" :variant="choice.state === 'confirmed' ? 'flat' : 'outlined'" :color="choice.state === 'confirmed' ? 'primary' : undefined" @click="act(finding, choice.state)">{{ choice.word }}</v-btn></div>
      </li>
    </ul>
    <template v-if="settled.length > 0">
      <h2>Settled</h2>
      <ul class="ruled-list"><li v-for="finding in settled" :key="finding.id"><FindingLine :finding="finding" /></li></ul>
    </template>
    <StationNotes :book="book" station="find" />
  </div>
</template>

<style scoped>
.find { display: grid; gap: 12px; }
.head { display: flex; justify-content: space-between; align-items: center; }
.line { display: flex; justify-content: space-between; gap: 16px; align-items: center; }
.choices { display: flex; gap: 8px; flex: none; }
h2 + .ruled-list { margin-top: -4px; }
@media (max-width: 600px) { .line { flex-direction: column; align-items: stretch; } }
</style>
