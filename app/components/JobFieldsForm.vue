<script setup lang="ts">
import { readMoney } from '~~/work/read-money'
import { v7 as newId } from 'uuid'
import type { JobFields } from '~~/messages/book-entries'
import { arrivalKinds, type ArrivalKind, type Construction, type Power } from '~~/messages/vocabulary'

/** What is wrong, what is wanted, and what was missing when it came: at take-in and whenever it changes. */
const fields = defineModel<JobFields>({ required: true })
defineProps<{
  problems?: Readonly<Record<string, string>>
  /** Of the engine’s type: what can be told of it. */
  construction: Construction
  power: Power
  /** What is written of its past elsewhere. */
  history?: string
}>()
const workshop = useWorkshopStore()
const item = ref('')
const kind = ref<ArrivalKind>('missing')

const money = computed({
  get: () => (fields.value.moneyLimit === null ? '' : (fields.value.moneyLimit / 100).toFixed(2)),
  set: (text: string) => {
    fields.value.moneyLimit = readMoney(text)
  },
})
const estimate = computed({
  get: () => fields.value.estimateMinutes?.toString() ?? '',
  set: (text: string) => {
    fields.value.estimateMinutes = /^\d{1,5}$/.test(text.trim()) ? Number(text) : null
  },
})

function addItem(): void {
  if (item.value.trim() === '') return
  fields.value.arrivals = [
    ...fields.value.arrivals,
    { id: newId(), kind: kind.value, what: item.value.trim(), fate: null },
  ]
  item.value = ''
}
</script>

<template>
  <div class="fields">
    <v-textarea
      v-model="fields.complaint"
      class="wide"
      label="Complaint, in the owner’s words"
      :error-messages="problems?.complaint"
    />
    <v-textarea
      v-model="fields.trial"
      class="wide"
      label="The same as a trial: where, how fast, which way"
      placeholder="Over the yard turnout, at walking pace, backwards"
    />
    <LazyToldAtTheCounter
      v-model="fields"
      class="wide"
      :construction="construction"
      :power="power"
      :about="`${history ?? ''} ${fields.complaint} ${fields.conditionOnArrival}`"
    />
    <v-text-field v-model.number="fields.trialAttempts" label="Attempts per trial" type="number" min="1" max="100" />
    <v-text-field
      v-model="fields.dueOn"
      label="Due"
      type="date"
      clearable
      @click:clear="fields.dueOn = null"
      @update:model-value="fields.dueOn = $event || null"
    />
    <v-text-field v-model="estimate" label="Estimate (minutes)" inputmode="numeric" />
    <v-text-field v-model.lazy="money" :label="`Money limit (${workshop.currency})`" inputmode="decimal" />
    <v-textarea
      v-model="fields.wanted"
      class="wide"
      label="What the owner wants"
      placeholder="Runs again, quieter, decoder and sound, tidy-up"
    />
    <v-textarea
      v-model="fields.conditionOnArrival"
      class="wide"
      label="Condition on arrival: corrosion, fluff, oil and its smell, burn marks, earlier glue"
    />
    <v-checkbox
      v-model="fields.sentimental"
      class="wide"
      label="Sentimental or collector’s value: nothing risky, every original part is kept"
    />
    <v-text-field
      v-if="fields.sentimental"
      v-model="fields.consent"
      class="wide"
      label="Consent given: by whom, when, to what"
    />
    <div class="wide arrivals">
      <span class="label">Missing, broken or loose on arrival</span>
      <ul v-if="fields.arrivals.length > 0" class="ruled-list">
        <li v-for="arrival in fields.arrivals" :key="arrival.id" class="arrival">
          <span class="quiet">{{ arrivalKinds[arrival.kind] }}</span> {{ arrival.what }}
          <button
            type="button"
            class="off"
            @click="fields.arrivals = fields.arrivals.filter((other) => other.id !== arrival.id)"
          >
            Take off the list
          </button>
        </li>
      </ul>
      <div class="add">
        <v-select
          v-model="kind"
          :items="Object.entries(arrivalKinds).map(([value, title]) => ({ value, title }))"
          label="It is"
          class="kind"
        /><v-text-field
          v-model="item"
          label="What"
          placeholder="Front coupling, bell, two side-frame screws"
          @keydown.enter.prevent="addItem"
        /><v-btn variant="outlined" @click="addItem">Add</v-btn>
      </div>
    </div>
  </div>
</template>

<style scoped>
.add {
  display: flex;
  gap: 14px;
  align-items: end;
}
.kind {
  flex: 0 0 170px;
}
.arrivals {
  margin-top: 10px;
}
.arrival {
  display: flex;
  gap: 12px;
  align-items: center;
}
.off {
  margin-left: auto;
  color: var(--soft);
  min-height: var(--target);
  font-weight: 550;
}
@media (max-width: 600px) {
  .add {
    flex-wrap: wrap;
  }
  .kind {
    flex-basis: 100%;
  }
}
</style>
