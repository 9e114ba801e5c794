<script setup lang="ts">
import { plainCopy } from '~/forms/plain-copy'
import { showMoment } from '~~/work/describe-due'
import {
  MOST_MARKS,
  photographMoments,
  type PhotographFields,
  type PhotographMark,
} from '~~/messages/photograph-entries'
import type { SisterPhotograph } from '~~/messages/book'
import { stationName } from '~~/messages/vocabulary'
import type { ViewedPhotograph } from '~/composables/usePhotographViewer'

/** One photograph large: what it shows in words, rings and arrows, and another laid over it. */
const viewer = usePhotographViewer()
const jobs = useJobStore()
const session = useSessionStore()
const outbox = useOutbox()

const isSister = (entry: ViewedPhotograph): entry is SisterPhotograph => 'jobNumber' in entry
const all = computed<readonly ViewedPhotograph[]>(() => [
  ...(jobs.book?.photographs ?? []).filter((entry) => entry.width > 0),
  ...viewer.sisters.value,
])
const shown = computed(() => all.value.find((entry) => entry.id === viewer.opened.value) ?? null)
const sister = computed(() => (shown.value && isSister(shown.value) ? shown.value : null))
const own = computed(() => jobs.book?.photographs.find((entry) => entry.id === shown.value?.id) ?? null)
const mayMark = computed(() => session.mayWrite && own.value !== null)

const fields = ref<PhotographFields>({ caption: '', about: null, marks: [] })
const drawing = ref<PhotographMark['shape'] | null>(null)
const over = ref<string | null>(null)
watch(viewer.opened, begin, { immediate: true })
function begin(): void {
  drawing.value = null
  over.value = null
  const { caption = '', about = null, marks = [] } = shown.value ?? {}
  fields.value = plainCopy({ caption, about, marks: [...marks] })
}
const changed = computed(
  () =>
    own.value !== null &&
    JSON.stringify(fields.value) !==
      JSON.stringify({ caption: own.value.caption, about: own.value.about, marks: own.value.marks }),
)
async function save(): Promise<void> {
  if (!own.value || !jobs.book || !changed.value) return
  const { id } = own.value
  await outbox.send('photograph.save', { id, jobId: jobs.book.job.id, fields: fields.value }, own.value)
}
async function close(): Promise<void> {
  // What was drawn is not lost by a tap beside the picture.
  await save()
  viewer.close()
}
function add(mark: PhotographMark): void {
  if (fields.value.marks.length < MOST_MARKS) fields.value.marks.push(mark)
}
const words = (entry: ViewedPhotograph): string =>
  [
    isSister(entry) ? `${entry.engine}, job ${entry.jobNumber}` : '',
    entry.caption || stationName(entry.station),
    showMoment(entry.takenAt),
  ]
    .filter(Boolean)
    .join(', ')
const laidOver = computed(() => all.value.find((entry) => entry.id === over.value) ?? null)
const subjects = computed(() => {
  const about = own.value?.about
  const part =
    about?.kind === 'part' ? [{ title: `${about.part}, ${photographMoments[about.moment]}`, value: about }] : []
  const findings = (jobs.book?.findings ?? []).map((finding) => ({
    title: `Finding: ${finding.what}`,
    value: { kind: 'finding' as const, finding: finding.id },
  }))
  return [{ title: stationName(own.value?.station ?? 'take-in'), value: null }, ...part, ...findings]
})
</script>

<template>
  <v-dialog :model-value="shown !== null" max-width="1040" @update:model-value="close">
    <v-card v-if="shown" class="viewer">
      <header>
        <h2>
          {{ sister ? `${sister.engine}, job ${sister.jobNumber}` : shown.caption || stationName(shown.station) }}
        </h2>
        <span class="quiet">{{ showMoment(shown.takenAt) }}</span>
        <a class="quiet" :href="`/api/photographs/${shown.id}`" target="_blank">In full size</a>
      </header>
      <LaidOver
        v-if="laidOver"
        :under="{ id: shown.id, words: words(shown) }"
        :over="{ id: laidOver.id, words: words(laidOver) }"
      />
      <MarkedPhotograph
        v-else
        :id="shown.id"
        :alt="shown.caption || stationName(shown.station)"
        :width="shown.width"
        :height="shown.height"
        :marks="fields.marks"
        :drawing="mayMark ? drawing : null"
        @drawn="add"
      />
      <div v-if="!laidOver && mayMark" class="tools">
        <button type="button" :aria-pressed="drawing === 'ring'" @click="drawing = drawing === 'ring' ? null : 'ring'">
          Put a ring
        </button>
        <button
          type="button"
          :aria-pressed="drawing === 'arrow'"
          @click="drawing = drawing === 'arrow' ? null : 'arrow'"
        >
          Draw an arrow
        </button>
        <span v-if="drawing" class="quiet" role="status">{{
          drawing === 'ring' ? 'Tap the spot, or drag from its middle.' : 'Drag towards the spot.'
        }}</span>
      </div>
      <ol v-if="!laidOver && mayMark && fields.marks.length > 0" class="marks">
        <li v-for="(mark, index) in fields.marks" :key="index">
          <v-text-field
            v-model="mark.words"
            :label="mark.shape === 'ring' ? 'At the ring' : 'At the arrow'"
            maxlength="80"
            density="compact"
            hide-details
          /><button type="button" class="plain" @click="fields.marks.splice(index, 1)">Take it off</button>
        </li>
      </ol>
      <div v-if="mayMark && !laidOver" class="said">
        <v-text-field
          v-model="fields.caption"
          label="What it shows"
          maxlength="200"
          hide-details
          @keydown.enter="close"
        />
        <v-select v-model="fields.about" :items="subjects" label="Belongs to" hide-details />
      </div>
      <v-card-actions>
        <v-select
          v-if="all.length > 1"
          v-model="over"
          class="other"
          :items="
            all.filter((entry) => entry.id !== shown?.id).map((entry) => ({ value: entry.id, title: words(entry) }))
          "
          label="Lay another over it"
          clearable
          hide-details
          density="compact"
        />
        <v-spacer />
        <v-btn color="primary" variant="flat" @click="close">{{ changed ? 'Keep and close' : 'Close' }}</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.viewer {
  padding: 14px 18px 6px;
  display: grid;
  gap: 10px;
}
header {
  display: flex;
  gap: 4px 16px;
  align-items: baseline;
  flex-wrap: wrap;
}
header a {
  margin-left: auto;
}
.tools {
  display: flex;
  gap: 4px 20px;
  align-items: center;
  flex-wrap: wrap;
}
.tools button,
.plain {
  font-weight: 600;
  color: var(--green);
  min-height: var(--target);
}
.tools button[aria-pressed='true'] {
  box-shadow: inset 0 -3px 0 var(--brass);
}
.marks {
  display: grid;
  gap: 6px 18px;
  grid-template-columns: repeat(auto-fill, minmax(300px, 1fr));
  list-style: none;
  margin: 0;
  padding: 0;
}
.marks li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 12px;
  align-items: center;
}
.said {
  display: grid;
  gap: 10px 16px;
  grid-template-columns: repeat(auto-fit, minmax(240px, 1fr));
}
.other {
  max-width: 420px;
}
.viewer :deep(.v-card-actions) {
  padding-inline: 0;
}
</style>
