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

const showPrice = (kept: number): string => (kept / 100).toFixed(2)

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
      :error-messages="problems?.trial"
    />
    <LazyToldAtTheCounter
      v-model="fields"
      class="wide"
      :construction="construction"
      :power="power"
      :about="`${history ?? ''} ${fields.complaint} ${fields.conditionOnArrival}`"
    />
    <v-text-field
      v-model.number="fields.trialAttempts"
      label="Attempts per trial"
      type="number"
      min="1"
      max="100"
      :error-messages="problems?.trialAttempts"
    />
    <v-text-field
      v-model="fields.dueOn"
      label="Due"
      type="date"
      clearable
      :error-messages="problems?.dueOn"
      @click:clear="fields.dueOn = null"
      @update:model-value="fields.dueOn = $event || null"
    />
    <NumberField
      v-model="fields.estimateMinutes"
      label="Estimate (minutes)"
      whole
      :problem="problems?.estimateMinutes"
    />
    <NumberField
      v-model="fields.moneyLimit"
      :label="`Money limit (${workshop.currency})`"
      :read="readMoney"
      :show="showPrice"
      :problem="problems?.moneyLimit"
    />
    <v-textarea
      v-model="fields.wanted"
      class="wide"
      label="What the owner wants"
      placeholder="Runs again, quieter, decoder and sound, tidy-up"
      :error-messages="problems?.wanted"
    />
    <v-textarea
      v-model="fields.conditionOnArrival"
      class="wide"
      label="Condition on arrival: corrosion, fluff, oil and its smell, burn marks, earlier glue"
      :error-messages="problems?.conditionOnArrival"
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
      :error-messages="problems?.consent"
    />
    <div class="wide arrivals">
      <span class="label">Missing, broken or loose on arrival</span>
      <FormRest :problems="problems" />
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
