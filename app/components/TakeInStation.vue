<script setup lang="ts">
import { showDay } from '~~/work/describe-due'
import { plainCopy } from '~/forms/plain-copy'
import type { JobBook } from '~~/messages/book'
import type { JobFields } from '~~/messages/book-entries'
import { arrivalFates, arrivalKinds } from '~~/messages/vocabulary'
import { showMoney } from '~~/work/money'

const props = defineProps<{ book: JobBook }>()
defineEmits<{ photograph: [] }>()
const outbox = useOutbox()
const session = useSessionStore()
const workshop = useWorkshopStore()
const editing = ref(false)
const fields = ref<JobFields>(fieldsOf(props.book))
const begun = ref<JobFields>(fieldsOf(props.book))
const version = ref(0)
const { fits, under, forget } = useFormCheck('job.edit')

function fieldsOf({ job }: JobBook): JobFields {
  const {
    complaint,
    trial,
    trialAttempts,
    wanted,
    moneyLimit,
    sentimental,
    consent,
    conditionOnArrival,
    dueOn,
    estimateMinutes,
    arrivals,
    told,
    past,
    parcelId,
  } = job
  return plainCopy({
    complaint,
    trial,
    trialAttempts,
    wanted,
    moneyLimit,
    sentimental,
    consent,
    conditionOnArrival,
    dueOn,
    estimateMinutes,
    arrivals: arrivals.map((item) => ({ ...item })),
    told: told ?? null,
    past: past ?? null,
    parcelId: parcelId ?? null,
  })
}

function edit(): void {
  fields.value = fieldsOf(props.book)
  begun.value = fieldsOf(props.book)
  version.value = props.book.job.version
  forget()
  editing.value = true
}

async function keep(): Promise<void> {
  const { job } = props.book
  const written = { id: job.id, fields: plainCopy(fields.value) }
  if (!(await fits(written))) return
  await outbox.send('job.edit', written, { version: version.value, ...begun.value })
  editing.value = false
}

async function settle(id: string, fate: string | null): Promise<void> {
  const before = fieldsOf(props.book)
  const after = {
    ...before,
    arrivals: before.arrivals.map((item) => (item.id === id ? { ...item, fate: fate as never } : item)),
  }
  const { job } = props.book
  await outbox.send('job.edit', { id: job.id, fields: after }, job, 'part that came with it')
}
</script>

<template>
  <div>
    <form v-if="editing" class="edit" novalidate @submit.prevent="keep">
      <JobFieldsForm
        v-model="fields"
        :problems="under('fields')"
        :construction="book.type.construction"
        :power="book.type.power"
        :history="book.engine.history"
      />
      <div class="choices">
        <v-btn variant="outlined" @click="editing = false">Leave</v-btn
        ><v-btn type="submit" color="primary">Keep</v-btn>
      </div>
    </form>
    <template v-else>
      <div class="head">
        <h2>As it came in, {{ showDay(book.job.takenInAt) }}</h2>
        <v-btn v-if="session.mayWrite" variant="outlined" @click="edit">Change</v-btn>
      </div>
      <dl class="facts">
        <dt>Complaint</dt>
        <dd>{{ book.job.complaint }}</dd>
        <template v-if="book.job.told?.length"
          ><dt>Told and seen</dt>
          <dd>{{ book.job.told.map(({ words }) => words).join('; ') }}</dd></template
        >
        <dt>As a trial</dt>
        <dd>
          {{ book.job.trial || 'Not written as a trial yet: where, how fast, which way, how often.' }}
          <span v-if="book.job.trial" class="quiet">{{ book.job.trialAttempts }} attempts</span>
        </dd>
        <template v-if="book.job.parcelId"
          ><dt>Came in</dt>
          <dd><NuxtLink :to="`/parcels/${book.job.parcelId}`">a parcel with others</NuxtLink></dd></template
        >
        <dt>Wanted</dt>
        <dd>{{ book.job.wanted || 'Not noted' }}</dd>
        <dt>Money limit</dt>
        <dd>{{ book.job.moneyLimit === null ? 'None given' : showMoney(book.job.moneyLimit, workshop.currency) }}</dd>
        <dt>Condition</dt>
        <dd>{{ book.job.conditionOnArrival || 'Not noted' }}</dd>
        <template v-if="book.job.sentimental"
          ><dt>Sentimental value</dt>
          <dd>
            {{
              book.job.consent
                ? `Consent: ${book.job.consent}`
                : 'No consent noted yet: ask before anything that cannot be undone.'
            }}
          </dd></template
        >
        <dt>History</dt>
        <dd>{{ book.engine.history || 'Not known' }}</dd>
        <template v-if="book.engine.differences"
          ><dt>Differs from its type</dt>
          <dd>{{ book.engine.differences }}</dd></template
        >
      </dl>
      <h2 class="second">Missing, broken or loose on arrival</h2>
      <p v-if="book.job.arrivals.length === 0" class="quiet">Nothing was noted as missing, broken or loose.</p>
      <ul v-else class="ruled-list">
        <li v-for="item in book.job.arrivals" :key="item.id" class="arrival">
          <span
            ><span class="label">{{ arrivalKinds[item.kind] }}</span
            ><br />{{ item.what }}</span
          >
          <v-select
            :model-value="item.fate"
            :items="[
              { value: null, title: 'Open' },
              ...Object.entries(arrivalFates).map(([value, title]) => ({ value, title })),
            ]"
            label="What became of it"
            :disabled="!session.mayWrite"
            class="fate"
            @update:model-value="settle(item.id, $event)"
          />
        </li>
      </ul>
      <v-btn v-if="session.mayWrite" variant="outlined" class="second" @click="$emit('photograph')"
        >Photograph it <kbd>P</kbd></v-btn
      >
    </template>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-bottom: 6px;
}
.facts {
  display: grid;
  grid-template-columns: 150px 1fr;
  margin: 0;
}
.facts dt,
.facts dd {
  border-top: 1px solid var(--rule);
  padding: 9px 0;
  margin: 0;
}
.facts dt {
  color: var(--soft);
  font-size: 0.9rem;
}
.second {
  margin-top: 22px;
  margin-bottom: 6px;
}
.arrival {
  display: grid;
  grid-template-columns: 1fr 240px;
  gap: 16px;
  align-items: center;
}
.choices {
  display: flex;
  gap: 10px;
  justify-content: flex-end;
  margin-top: 16px;
}
@media (max-width: 600px) {
  .facts,
  .arrival {
    grid-template-columns: 1fr;
  }
  .facts dd {
    border: 0;
    padding-top: 0;
  }
}
</style>
