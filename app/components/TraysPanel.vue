<script setup lang="ts">
import { v7 as newId } from 'uuid'
import { tools } from '~~/core/engine/description-schema'
import type { TrayFields } from '~~/messages/strip-entries'
import type { WorkshopFields } from '~~/messages/bench-entries'

/** The shop's trays as they lie on the bench, and the tools it has not: both go into every strip plan. */
const outbox = useOutbox()
const session = useSessionStore()
const workshop = useWorkshopStore()
const trays = computed(() => workshop.book?.workshop.trays ?? [])
const missing = computed(() => workshop.book?.workshop.missingTools ?? [])
const edited = ref<TrayFields | null>(null)

async function save(change: Partial<WorkshopFields>, label: string): Promise<void> {
  const book = workshop.book
  if (!book) return
  const before = { ...book.workshop }
  await outbox.send('workshop.save', { fields: { ...before, ...change } }, { version: book.version, ...before }, label)
}
function edit(tray: TrayFields | null): void {
  edited.value = tray
    ? { ...tray }
    : { id: newId(), name: `Tray ${trays.value.length + 1}`, rows: 4, columns: 5, magnetic: false, lid: false }
}
async function keep(): Promise<void> {
  const tray = edited.value
  if (!tray || tray.name.trim() === '') return
  const whole = (value: unknown): number => Math.min(26, Math.max(1, Math.round(Number(value) || 1)))
  const kept = { ...tray, rows: whole(tray.rows), columns: whole(tray.columns) }
  const others = trays.value.filter((entry) => entry.id !== tray.id)
  edited.value = null
  await save({ trays: [...others, kept].sort((one, other) => one.name.localeCompare(other.name)) }, 'trays')
}
async function remove(): Promise<void> {
  const id = edited.value?.id
  edited.value = null
  await save({ trays: trays.value.filter((entry) => entry.id !== id) }, 'trays')
}
const toggle = (tool: (typeof tools)[number]): Promise<void> =>
  save(
    {
      missingTools: missing.value.includes(tool)
        ? missing.value.filter((entry) => entry !== tool)
        : [...missing.value, tool],
    },
    'tools',
  )
</script>

<template>
  <section aria-label="Trays and tools">
    <div class="section-head">
      <h2>Trays</h2>
      <v-btn v-if="session.isOwner" variant="outlined" @click="edit(null)">New tray</v-btn>
    </div>
    <p class="quiet">Whatever comes off an engine gets a cell: steel on the magnet, springs under a lid.</p>
    <ul class="ruled-list">
      <li v-for="tray in trays" :key="tray.id" class="tray">
        <b>{{ tray.name }}</b><span class="quiet"
          >{{ tray.rows }} × {{ tray.columns }}{{ tray.magnetic ? ', magnetic' : ''
          }}{{ tray.lid ? ', with a lid' : '' }}</span
        ><v-btn v-if="session.isOwner" variant="outlined" size="small" @click="edit(tray)">Change</v-btn>
      </li>
      <li v-if="trays.length === 0" class="quiet">None entered yet.</li>
    </ul>
    <h3>Not in this shop</h3>
    <div class="tools">
      <v-checkbox
        v-for="tool in tools.filter((entry) => entry !== 'fingers')"
        :key="tool"
        :model-value="missing.includes(tool)"
        :label="tool.replaceAll('-', ' ')"
        :disabled="!session.isOwner"
        density="compact"
        hide-details
        @update:model-value="toggle(tool)"
      />
    </div>
    <v-dialog :model-value="edited !== null" max-width="520" @update:model-value="edited = null">
      <v-card v-if="edited" title="Tray">
        <v-card-text class="form">
          <v-text-field v-model="edited.name" v-focus-first label="Name" maxlength="60" />
          <div class="two">
            <v-text-field v-model="edited.rows" label="Rows" inputmode="numeric" /><v-text-field
              v-model="edited.columns"
              label="Columns"
              inputmode="numeric"
            />
          </div>
          <v-checkbox v-model="edited.magnetic" label="Magnetic" hide-details />
          <v-checkbox v-model="edited.lid" label="With a lid" hide-details />
        </v-card-text>
        <v-card-actions
          ><v-btn v-if="trays.some((tray) => tray.id === edited?.id)" variant="outlined" @click="remove"
            >Not there any more</v-btn
          ><v-spacer /><v-btn variant="outlined" @click="edited = null">Leave it</v-btn
          ><v-btn variant="flat" color="primary" @click="keep">Keep</v-btn></v-card-actions
        >
      </v-card>
    </v-dialog>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}
.section-head {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.tray {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 14px;
  align-items: center;
}
.tools {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
}
</style>
