<script setup lang="ts">
import { showMoment } from '~~/work/describe-due'
import type { QueuedCommand } from '~/stores/outbox-storage'
import { conflictLines, fieldsChosen, type Choice } from '~/stores/conflict'

/** Both versions side by side, field by field; nothing is lost until somebody chooses. */
const outbox = useOutbox()
const entry = computed<QueuedCommand | null>(() => outbox.stale[0] ?? null)
const lines = computed(() => (entry.value ? conflictLines(entry.value) : []))
const choices = ref<Record<string, Choice>>({})
watch(
  lines,
  (now) => {
    choices.value = Object.fromEntries(now.map((line) => [line.field, line.suggested]))
  },
  { immediate: true },
)

async function write(): Promise<void> {
  const stale = entry.value
  if (!stale) return
  const current = stale.problem?.current as { version: number }
  await outbox.settleConflict(stale, fieldsChosen(stale, lines.value, choices.value), current.version)
}
</script>

<template>
  <v-dialog :model-value="entry !== null" persistent max-width="860">
    <v-card v-if="entry" title="Changed by somebody else meanwhile">
      <v-card-text>
        <p class="lead">{{ entry.problem?.detail }}</p>
        <p v-if="lines.length === 0" class="lead">Both of you wrote the same: nothing has to be chosen.</p>
        <table v-else class="both">
          <thead>
            <tr>
              <th scope="col">What</th>
              <th scope="col">Yours, {{ showMoment(entry.capturedAt) }}</th>
              <th scope="col">In the book now</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="line in lines" :key="line.field">
              <th scope="row">{{ line.name }}</th>
              <td v-for="side in ['mine', 'theirs'] as const" :key="side">
                <label :class="{ chosen: choices[line.field] === side }"
                  ><input v-model="choices[line.field]" type="radio" :name="line.field" :value="side" /><span>{{
                    (side === 'mine' ? line.mine : line.theirs) || '(empty)'
                  }}</span></label
                >
              </td>
            </tr>
          </tbody>
        </table>
      </v-card-text>
      <v-card-actions>
        <v-btn variant="outlined" @click="outbox.discard(entry.sequence)">Leave the book as it is</v-btn>
        <v-spacer />
        <v-btn color="primary" variant="flat" @click="write">Write what is chosen</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.lead {
  margin-bottom: 14px;
}
.both {
  width: 100%;
  border-collapse: collapse;
}
.both th {
  text-align: left;
  font-weight: 600;
  padding: 6px 12px 6px 0;
  vertical-align: top;
}
.both td {
  border-top: 1px solid var(--rule);
  padding: 2px;
  width: 40%;
  vertical-align: top;
}
.both tbody th {
  border-top: 1px solid var(--rule);
  padding-top: 12px;
}
label {
  display: flex;
  gap: 10px;
  padding: 10px;
  cursor: pointer;
  border: 2px solid transparent;
  min-height: var(--target);
  white-space: pre-wrap;
}
label.chosen {
  border-color: var(--brass);
  background: var(--paper);
}
input {
  width: 20px;
  height: 20px;
  accent-color: var(--green);
  flex: none;
  margin-top: 2px;
}
</style>
