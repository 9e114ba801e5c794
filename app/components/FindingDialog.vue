<script setup lang="ts">
import { v7 as newId } from 'uuid'
import type { JobBook } from '~~/messages/book'
import type { FindingFields } from '~~/messages/bench-entries'
import { findingOrigins, findingStates, type StationId } from '~~/messages/vocabulary'

const props = defineProps<{ book: JobBook; station: StationId }>()
const { opened, edited } = useFindingDialog()
const outbox = useOutbox()
const { change } = useFindingState(computed(() => props.book))
const route = useRoute()
const empty = (): FindingFields => ({
  what: '',
  place: '',
  state: 'suspected',
  origin: props.station === 'take-in' || props.station === 'first-run' ? 'arrived' : 'inside',
  remedy: '',
})
const { draft: fresh, handOver } = useDraft<FindingFields>(`finding.${props.book.job.id}`, empty)
const changed = ref<FindingFields>(empty())
const fields = computed(() => (edited.value ? changed.value : fresh.value))
const missing = ref(false)

watch(edited, (finding) => {
  if (finding)
    changed.value = {
      what: finding.what,
      place: finding.place,
      state: finding.state,
      origin: finding.origin,
      remedy: finding.remedy,
    }
})
watch(opened, () => {
  missing.value = false
})
onMounted(() => {
  if (route.query.form === 'finding') opened.value = true
})
onBeforeUnmount(() => {
  opened.value = false
})

async function keep(): Promise<void> {
  if (fields.value.what.trim() === '') {
    missing.value = true
    return
  }
  const jobId = props.book.job.id
  const before = edited.value
  opened.value = false
  if (before) await change(before, { ...changed.value })
  else await handOver((written) => outbox.send('finding.save', { id: newId(), jobId, fields: written }))
}
</script>

<template>
  <v-dialog v-model="opened" max-width="600">
    <v-card :title="edited ? 'Finding' : 'Note a finding'">
      <v-card-text class="form">
        <v-text-field
          v-model="fields.what"
          v-focus-first
          label="What"
          :error-messages="missing && !fields.what.trim() ? ['Say what was found, in a few words.'] : []"
          @keydown.enter="keep"
        />
        <v-text-field v-model="fields.place" label="Where on the engine" />
        <fieldset>
          <legend class="label">It is</legend>
          <div class="choices" role="radiogroup">
            <button
              v-for="(name, state) in findingStates"
              :key="state"
              type="button"
              role="radio"
              :aria-checked="fields.state === state"
              :class="{ on: fields.state === state }"
              @click="fields.state = state"
            >
              {{ name }}
            </button>
          </div>
        </fieldset>
        <fieldset>
          <legend class="label">Origin</legend>
          <div class="choices" role="radiogroup">
            <button
              v-for="(name, origin) in findingOrigins"
              :key="origin"
              type="button"
              role="radio"
              :aria-checked="fields.origin === origin"
              :class="{ on: fields.origin === origin }"
              @click="fields.origin = origin"
            >
              {{ name }}
            </button>
          </div>
        </fieldset>
        <p v-if="fields.origin === 'here'" class="caution">The owner is told, and it is never charged.</p>
        <v-textarea v-model="fields.remedy" label="Remedy: what was done, or what it would take" />
      </v-card-text>
      <v-card-actions
        ><v-btn variant="outlined" @click="opened = false">Leave</v-btn><v-spacer /><v-btn
          color="primary"
          variant="flat"
          @click="keep"
          >Keep</v-btn
        ></v-card-actions
      >
    </v-card>
  </v-dialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
}
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 4px;
}
.choices button {
  border: 1px solid var(--rule);
  padding: 0 12px;
  min-height: var(--target);
  font-weight: 550;
}
.choices button.on {
  border: 2px solid var(--brass);
  background: var(--paper);
  font-weight: 650;
}
</style>
