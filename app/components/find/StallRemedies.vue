<script setup lang="ts">
import { inSentence } from '~~/core/engine/name-in-sentence'
import type { StallRemedy } from '~~/core/mechanism/stall-remedies'
import type { StallRisk } from '~~/core/mechanism/stall-risk'
import { optionOf } from '~~/core/knowledge/schools-of-practice'
import { schools } from '~~/core/knowledge/schools'
import type { JobBook } from '~~/messages/book'
import { priceOfMinutes, showMoney } from '~~/work/money'
import { cheapestEnough, isEnough, stopsInFigures } from '~~/work/stalling'

/** What would help against stalling, each with its price and what it leaves. */
const props = defineProps<{ book: JobBook; risk: StallRisk; remedies: readonly StallRemedy[] }>()
const workshop = useWorkshopStore()

/** What the shop holds with: its own way is said so, and what changes the machine waits for the owner where it keeps them authentic. */
const heldWith = (id: string): string => {
  const school = schools.find((entry) => entry.id === id)
  return school ? optionOf(school, props.book.practice.schools).id : ''
}
const schoolOf = (kind: string): string => {
  const way = kind === 'stay-alive' ? 'stay-alive' : kind === 'clean' || kind === 'wipers' ? 'clean-and-pickups' : ''
  return [
    way !== '' && heldWith('dead-track') === way ? 'The way of this shop.' : '',
    kind !== 'clean' && heldWith('originality') === 'keep' ? 'Changes the machine: the owner’s word first.' : '',
  ]
    .filter(Boolean)
    .join(' ')
}
const currency = computed(() => workshop.currency)
const hourlyRate = computed(() => workshop.book?.workshop.hourlyRate ?? 0)
const money = (minutes: number, parts: number): string =>
  showMoney(parts + priceOfMinutes(minutes, hourlyRate.value), currency.value)
const enough = computed(() => {
  if (isEnough(props.risk)) return 'Nothing is needed here.'
  const best = cheapestEnough(props.remedies, hourlyRate.value)
  return best
    ? `Cheapest that is enough: ${inSentence(best.remedy.name)}${best.cleaned ? ', and clean' : ''}: ${stopsInFigures(best.stops)} stops a pass for ${showMoney(best.price, currency.value)}.`
    : 'None of these is enough alone or with cleaning: it needs two of them, or a live frog.'
})
</script>

<template>
  <section aria-label="What would help">
    <h2>What would help</h2>
    <p class="enough">{{ enough }}</p>
    <div class="grid" tabindex="0" role="group" aria-label="Remedies compared">
      <table>
        <thead>
          <tr>
            <th scope="col">Remedy</th>
            <th scope="col" class="number">Minutes</th>
            <th scope="col" class="number">Price</th>
            <th scope="col" class="number">Stops a pass</th>
            <th scope="col" class="number">and cleaned</th>
          </tr>
        </thead>
        <tbody>
          <tr class="as-is">
            <th scope="row">As it is</th>
            <td data-head="Minutes" class="number">–</td>
            <td data-head="Price" class="number">–</td>
            <td data-head="Stops a pass" class="number figure">{{ stopsInFigures(risk.stopsPerPass) }}</td>
            <td data-head="and cleaned" class="number">–</td>
          </tr>
          <tr v-for="entry in remedies" :key="entry.name">
            <th scope="row">
              {{ entry.name
              }}<span v-if="entry.adds > 0" class="quiet"
                >, {{ entry.adds }} more {{ entry.adds === 1 ? 'point' : 'points' }}</span
              >
              <div v-if="entry.row.against" class="quiet">{{ entry.row.against }}</div>
              <div v-if="schoolOf(entry.row.kind)" class="quiet">{{ schoolOf(entry.row.kind) }}</div>
            </th>
            <td data-head="Minutes" class="number figure">{{ Math.round(entry.minutes) }}</td>
            <td data-head="Price" class="number figure">{{ money(entry.minutes, entry.price) }}</td>
            <td data-head="Stops a pass" class="number figure">{{ stopsInFigures(entry.risk.stopsPerPass) }}</td>
            <td data-head="and cleaned" class="number figure">
              {{ entry.withCleaning ? stopsInFigures(entry.withCleaning.stopsPerPass) : '–' }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="quiet">Price: parts, and the minutes at the shop’s rate. Minutes and parts are judged.</p>
  </section>
</template>

<style scoped>
.grid {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
  min-width: 520px;
}
thead th {
  text-align: left;
  color: var(--soft);
  font-size: 0.82rem;
  font-weight: 550;
  padding: 4px 10px 4px 0;
}
tbody tr {
  border-top: 1px solid var(--rule);
}
tbody th {
  text-align: left;
  font-weight: 600;
  padding: 9px 14px 9px 0;
}
tbody th .quiet {
  font-weight: 400;
}
.enough {
  margin: 4px 0 8px;
  font-weight: 600;
}
tbody td {
  padding: 9px 0 9px 14px;
}
.as-is {
  background: var(--sunk);
}
.as-is th {
  padding-left: 8px;
}
.number {
  text-align: right !important;
  white-space: nowrap;
}
thead .number {
  padding-right: 0;
  padding-left: 14px;
}
/* On a phone the name takes the width and the figures stand under it, each with its head. */
@media (max-width: 600px) {
  table {
    min-width: 0;
  }
  thead {
    display: none;
  }
  tbody tr {
    display: grid;
    grid-template-columns: repeat(4, 1fr);
    padding: 8px 0;
  }
  tbody th {
    grid-column: 1 / -1;
    padding: 0 0 4px;
  }
  tbody td {
    padding: 0;
  }
  tbody td::before {
    content: attr(data-head);
    display: block;
    font-size: 0.78rem;
    font-family: var(--text);
    color: var(--soft);
  }
  .as-is {
    padding: 8px;
  }
  .as-is th {
    padding-left: 0;
  }
}
</style>
