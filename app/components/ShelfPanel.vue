<script setup lang="ts">
import { v7 as newId } from 'uuid'
import { products } from '~~/core/care/lubrication-card'
import { atStart } from '~~/core/engine/name-in-sentence'
import { careKnowledge } from '~~/core/knowledge/care/care-knowledge'
import type { ShelfRow } from '~~/messages/book'
import { fillings, labels, type ShelfFields } from '~~/messages/care-entries'

/** The bottles and tubes of the shop: the cards take only what stands here, and say what would do instead. */
const outbox = useOutbox()
const session = useSessionStore()
const workshop = useWorkshopStore()
const shelf = computed(() =>
  (workshop.book?.shelf ?? []).toSorted((one, other) =>
    classWords(one.product).localeCompare(classWords(other.product)),
  ),
)
const classes = [
  ...careKnowledge.agents
    .filter((agent) => !agent.always)
    .map(({ id, words }) => ({ value: id, title: atStart(words) })),
  { value: 'ultrasonic', title: 'Ultrasonic bath' },
  ...products.map(({ id }) => ({ value: id, title: atStart(id) })),
]
const classWords = (id: string): string => classes.find((entry) => entry.value === id)?.title ?? id
const empty = (): ShelfFields => ({
  name: '',
  product: 'isopropyl',
  labelled: 'not-said',
  left: 'full',
  openedOn: null,
  notes: '',
})
const edited = ref<{ row: ShelfRow | null; fields: ShelfFields } | null>(null)
const missing = computed(() => edited.value?.fields.name.trim() === '')

function edit(row: ShelfRow | null): void {
  if (!row) edited.value = { row, fields: empty() }
  else {
    const { name, product, labelled, left, openedOn, notes } = row
    edited.value = { row, fields: { name, product, labelled, left, openedOn, notes } }
  }
}
async function keep(): Promise<void> {
  const now = edited.value
  if (!now || missing.value) return
  edited.value = null
  const fields = { ...now.fields, openedOn: now.fields.openedOn || null }
  await outbox.send('shelf.save', { id: now.row?.id ?? newId(), fields }, now.row ?? undefined)
}
async function setLeft(row: ShelfRow, left: ShelfFields['left']): Promise<void> {
  const { name, product, labelled, openedOn, notes } = row
  await outbox.send('shelf.save', { id: row.id, fields: { name, product, labelled, left, openedOn, notes } }, row)
}
</script>

<template>
  <section aria-label="Shelf">
    <div class="section-head">
      <h2>Shelf</h2>
      <v-btn v-if="session.mayWrite" variant="outlined" @click="edit(null)">New bottle</v-btn>
    </div>
    <p class="quiet">
      Agents, lubricants and baths as the shop calls them. While none is entered the cards take everything for granted;
      soap and water are always there.
    </p>
    <ul class="ruled-list">
      <li v-for="row in shelf" :key="row.id" class="bottle">
        <button type="button" class="name" :disabled="!session.mayWrite" @click="edit(row)">
          <b>{{ row.name }}</b>
          <span class="quiet"
            >{{ classWords(row.product) }}, label {{ labels[row.labelled]
            }}{{ row.openedOn ? `, opened ${row.openedOn}` : '' }}</span
          >
        </button>
        <span class="left" role="group" :aria-label="`How much is left of ${row.name}`">
          <button
            v-for="(words, left) in fillings"
            :key="left"
            type="button"
            :aria-pressed="row.left === left"
            :disabled="!session.mayWrite"
            @click="setLeft(row, left)"
          >
            {{ words }}
          </button>
        </span>
      </li>
    </ul>
    <v-dialog :model-value="edited !== null" max-width="560" @update:model-value="edited = null">
      <v-card v-if="edited" :title="edited.row ? edited.row.name : 'New bottle'">
        <v-card-text class="fields">
          <v-text-field v-model="edited.fields.name" v-focus-first label="Name" maxlength="80" class="wide" />
          <v-autocomplete v-model="edited.fields.product" :items="classes" label="What it is" class="wide" />
          <v-select
            v-model="edited.fields.labelled"
            :items="Object.entries(labels).map(([value, title]) => ({ value, title: atStart(title) }))"
            label="Its label"
          />
          <v-text-field v-model="edited.fields.openedOn" label="Opened on" type="date" />
          <v-textarea v-model="edited.fields.notes" label="Notes" rows="2" class="wide" />
        </v-card-text>
        <v-card-actions
          ><v-btn variant="outlined" @click="edited = null">Leave</v-btn><v-spacer /><v-btn
            color="primary"
            variant="flat"
            :disabled="missing"
            @click="keep"
            >Keep it</v-btn
          ></v-card-actions
        >
      </v-card>
    </v-dialog>
  </section>
</template>

<style scoped>
.section-head {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.bottle {
  display: flex;
  gap: 6px 16px;
  align-items: center;
  justify-content: space-between;
  flex-wrap: wrap;
}
.name {
  display: grid;
  min-height: var(--target);
  align-content: center;
}
.left {
  display: flex;
  gap: 2px;
}
.left button {
  min-height: var(--target);
  padding: 0 10px;
  color: var(--soft);
  font-size: 0.92rem;
}
.left button[aria-pressed='true'] {
  color: var(--ink);
  font-weight: 650;
  box-shadow: inset 0 -3px 0 var(--brass);
}
</style>
