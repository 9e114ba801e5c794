<script setup lang="ts">
import { showMoment } from '~~/work/describe-due'
import { lineInWords, type ReadingFields } from '~~/messages/readings/reading-kinds'
import type { QueuedEntry } from '~/stores/outbox-storage'

/** What the server would not take: why, what it said, and back into its form. */
const { opened } = useRefusedDialog()
const outbox = useOutbox()
const router = useRouter()

function wordsOf(entry: QueuedEntry): string {
  if (entry.kind === 'photograph')
    return `${entry.caption || 'Photograph'}, ${(entry.bytes.size / 1024 / 1024).toFixed(1)} MB`
  const fields = (entry.payload.fields ?? {}) as Record<string, unknown>
  if (entry.name === 'reading.add') {
    const { words, values } = lineInWords(entry.payload.fields as ReadingFields)
    return [words, ...values].join(', ')
  }
  return Object.values(fields)
    .filter((value) => typeof value === 'string' && value !== '')
    .slice(0, 3)
    .join(' · ')
}

/** Only what has a form of its own can go back into it. */
function formOf(entry: QueuedEntry): { draft: string; path: string } | null {
  if (entry.kind !== 'command') return null
  const jobId = entry.lane
  if (entry.name === 'finding.save') return { draft: `finding.${jobId}`, path: `/jobs/${jobId}/find?form=finding` }
  if (entry.name === 'note.add') {
    const { station } = entry.payload.fields as { station: string }
    return { draft: `note.${jobId}.${station}`, path: `/jobs/${jobId}/${station}` }
  }
  if (entry.name === 'part.save') return { draft: `part.${jobId}`, path: `/jobs/${jobId}/mend?form=part` }
  return null
}

async function putBack(entry: QueuedEntry): Promise<void> {
  const form = formOf(entry)
  if (!form || entry.kind !== 'command') return
  const fields = entry.payload.fields as Record<string, unknown>
  keepDraft(
    form.draft,
    entry.name === 'note.add'
      ? { text: fields.text, minutes: fields.minutes ? String(fields.minutes) : '', supersedesId: fields.supersedesId }
      : fields,
  )
  await outbox.discard(entry.sequence)
  opened.value = false
  await router.push(form.path)
}

watch(
  () => outbox.refused.length,
  (count) => {
    if (count === 0) opened.value = false
  },
)
</script>

<template>
  <v-dialog v-model="opened" max-width="620">
    <v-card title="Refused by the server">
      <v-card-text>
        <ul class="ruled-list">
          <li v-for="entry in outbox.refused" :key="entry.sequence">
            <div class="label">{{ entry.label }}, written {{ showMoment(entry.capturedAt) }}</div>
            <div>
              <strong>{{ wordsOf(entry) }}</strong>
            </div>
            <div class="sign sign--fault reason">{{ entry.problem?.detail }}</div>
            <div class="choices">
              <v-btn v-if="formOf(entry)" color="primary" @click="putBack(entry)">Put it back in its form</v-btn>
              <v-btn v-if="(entry.problem?.status ?? 0) >= 500" color="primary" @click="outbox.tryAgain(entry)"
                >Try again</v-btn
              >
              <v-btn variant="outlined" @click="outbox.discard(entry.sequence)">Throw it away</v-btn>
            </div>
          </li>
        </ul>
      </v-card-text>
      <v-card-actions><v-spacer /><v-btn variant="outlined" @click="opened = false">Close</v-btn></v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.reason {
  margin: 6px 0 8px;
}
.choices {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
}
</style>
