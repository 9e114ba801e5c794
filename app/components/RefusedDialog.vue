<script setup lang="ts">
import { showMoment } from '~~/work/describe-due'
import { lineInWords, type ReadingFields } from '~~/messages/readings/reading-kinds'
import { takeInDraftOf } from '~/forms/take-in-draft'
import { useClipboard } from '@vueuse/core'
import { cutText } from '~~/messages/cut-text'
import type { CommandPayload } from '~~/messages/commands'
import type { QueuedCommand, QueuedEntry } from '~/stores/outbox-storage'

/** What the server would not take: why, what it said, and back into its form. */
const { opened } = useRefusedDialog()
const outbox = useOutbox()
const router = useRouter()

function wordsOf(entry: QueuedEntry): string {
  if (entry.kind === 'photograph')
    return `${entry.caption || 'Photograph'}, ${(entry.bytes.size / 1024 / 1024).toFixed(1)} MB`
  const { payload } = entry
  const fields = (entry.name === 'job.take-in' ? payload.job : (payload.fields ?? {})) as Record<string, unknown>
  if (entry.name === 'reading.add') {
    const { words, values } = lineInWords(entry.payload.fields as ReadingFields)
    return [words, ...values].join(', ')
  }
  return Object.values(fields)
    .filter((value) => typeof value === 'string' && value !== '')
    .slice(0, 3)
    .map((words) => cutText(String(words), 160))
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
  if (entry.name === 'job.take-in') return { draft: 'take-in', path: '/take-in' }
  if (entry.name === 'part.save') return { draft: `part.${jobId}`, path: `/jobs/${jobId}/mend?form=part` }
  return null
}

function draftOf({ name, payload }: QueuedCommand): object {
  if (name === 'job.take-in') return takeInDraftOf(payload as CommandPayload<'job.take-in'>)
  const fields = payload.fields as Record<string, unknown>
  if (name !== 'note.add') return fields
  return {
    text: fields.text,
    minutes: fields.minutes ? String(fields.minutes) : '',
    supersedesId: fields.supersedesId,
  }
}

/** Of the entry whose form is in use: what is being typed there is not written over. */
const inUse = ref<number | null>(null)
async function putBack(entry: QueuedEntry): Promise<void> {
  const form = formOf(entry)
  if (!form || entry.kind !== 'command') return
  if (isDrafted(form.draft)) {
    inUse.value = entry.sequence
    return
  }
  keepDraft(form.draft, draftOf(entry))
  await outbox.discard(entry.sequence)
  opened.value = false
  // A form that is open already has read its draft.
  if (router.currentRoute.value.path === form.path.split('?')[0]) reloadNuxtApp({ path: form.path, force: true })
  else await router.push(form.path)
}

const { copy, copied, text: copiedText } = useClipboard({ legacy: true })
/** All the words of an entry that has no form to go back into. */
const allWords = (entry: QueuedEntry): string =>
  entry.kind === 'command' ? JSON.stringify(entry.payload.fields ?? entry.payload, null, 1) : entry.caption
const mayTryAgain = (entry: QueuedEntry): boolean => entry.kind === 'photograph' || (entry.problem?.status ?? 0) >= 500

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
            <p v-if="inUse === entry.sequence" class="sign sign--care reason">
              Something else is being typed into this form. Send that or start it over first.
            </p>
            <div class="choices">
              <v-btn v-if="formOf(entry)" color="primary" @click="putBack(entry)">Put it back in its form</v-btn>
              <v-btn v-else-if="entry.kind === 'command'" variant="outlined" @click="copy(allWords(entry))">{{
                copied && copiedText === allWords(entry) ? 'Copied' : 'Copy its words'
              }}</v-btn>
              <v-btn v-if="mayTryAgain(entry)" color="primary" @click="outbox.tryAgain(entry)">Try again</v-btn>
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
