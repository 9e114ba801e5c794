<script setup lang="ts">
import { plainCopy } from '~/forms/plain-copy'
import {
  asShipped,
  changedKnowledge,
  changesBetween,
  countChanges,
  knowledgeLists,
  leftOut,
  noChanges,
  type KnowledgeChanges,
  type KnowledgeList,
} from '~~/core/knowledge/knowledge-changes'
import type { Fault, Knowledge, Remedy, Test } from '~~/core/knowledge/knowledge-schema'
import { diagnosisKnowledge } from '~~/core/knowledge/diagnosis-knowledge'
import type { EngineBook } from '~~/messages/book'
import type { EngineDescription } from '~~/core/engine/description-schema'
import { knowledgeRows } from '~~/work/knowledge-rows'

/** The type's own copy of the knowledge: faults, tests and remedies as they are with this type, beside what ships. */
const props = defineProps<{ book: EngineBook; description: EngineDescription }>()
const outbox = useOutbox()
const session = useSessionStore()

const changes = computed<KnowledgeChanges>(() => props.book.practice.changes ?? noChanges)
const copy = computed(() => changedKnowledge(diagnosisKnowledge, changes.value))
const differing = computed(() => countChanges(changes.value))
const list = ref<KnowledgeList>('faults')
const names: Readonly<Record<KnowledgeList, string>> = { faults: 'Faults', tests: 'Tests', remedies: 'Remedies' }
const search = ref('')
const only = ref<'engine' | 'all' | 'differing'>('engine')
const onlyNames = { engine: 'Of this engine', all: 'All', differing: 'Changed' } as const

const heads: Readonly<Record<KnowledgeList, readonly string[]>> = {
  faults: ['At one place'],
  tests: ['Takes', 'Misread'],
  remedies: ['Takes', 'Takes hold'],
}
const asides: Readonly<Record<KnowledgeList, string>> = {
  faults: 'Area; what mends it',
  tests: 'Comes out as',
  remedies: 'Parts and products',
}
const all = computed(() => knowledgeRows(list.value, copy.value, changes.value, props.description))
const rows = computed(() => {
  const words = search.value.toLowerCase().split(/\s+/).filter(Boolean)
  return all.value.filter(
    (row) =>
      (only.value === 'all' || row.state !== 'as shipped' || (only.value === 'engine' && row.concerns)) &&
      words.every((word) => `${row.name} ${row.aside} ${row.id}`.toLowerCase().includes(word)),
  )
})
const FEW = 40
const many = ref(false)
watch([list, search, only], () => {
  many.value = false
})

async function save(next: KnowledgeChanges): Promise<void> {
  const { version, changes: base } = props.book.practice
  await outbox.send(
    'type-knowledge.save',
    { id: props.book.type.id, fields: { changes: plainCopy(next) } },
    version > 0 ? { version, changes: base ?? noChanges } : undefined,
  )
}
const setBack = (id: string): Promise<void> => save(asShipped(changes.value, list.value, id))
const leaveOut = (id: string): Promise<void> => save(leftOut(diagnosisKnowledge, changes.value, list.value, id))
const asking = ref(false)

const editing = shallowRef<{
  readonly list: KnowledgeList
  readonly row: Fault | Test | Remedy
  readonly asNew: boolean
} | null>(null)
function edit(id: string, asNew = false): void {
  const row = (copy.value[list.value] as ReadonlyArray<Fault | Test | Remedy>).find((entry) => entry.id === id)
  if (row && session.mayWrite) editing.value = { list: list.value, row, asNew }
}
async function keep(row: Fault | Test | Remedy): Promise<void> {
  const of = editing.value?.list
  editing.value = null
  if (!of) return
  // A row brought back to what it was is no change.
  const next: Knowledge = {
    ...copy.value,
    [of]: [...(copy.value[of] as ReadonlyArray<{ id: string }>).filter((entry) => entry.id !== row.id), row],
  }
  await save(changesBetween(diagnosisKnowledge, next))
}

function leaveOutEdited(): void {
  if (editing.value) void leaveOut(editing.value.row.id)
  editing.value = null
}
</script>

<template>
  <section class="known" aria-label="What we know of this type">
    <KnowledgeFile :copy="copy" :name="book.type.name" :may-write="session.mayWrite" @taken="save">
      <p class="quiet intro">
        How often each fault is met on the {{ book.type.maker }} {{ book.type.name }}, what each test costs and what
        mends it. A row changed here counts for every engine of the type; what the shop learns from closed jobs comes on
        top.
      </p>
    </KnowledgeFile>

    <div class="bar">
      <div class="lists" role="tablist" aria-label="What to show">
        <button
          v-for="of in knowledgeLists"
          :key="of"
          type="button"
          role="tab"
          :aria-selected="list === of"
          @click="list = of"
        >
          {{ names[of] }} <span class="figure">{{ copy[of].length }}</span>
        </button>
      </div>
      <v-text-field
        v-model="search"
        label="Word"
        type="search"
        clearable
        density="compact"
        class="search"
        @click:clear="search = ''"
      />
      <div class="lists" role="group" aria-label="Which of them">
        <button
          v-for="(name, key) in onlyNames"
          :key="key"
          type="button"
          :aria-pressed="only === key"
          @click="only = key"
        >
          {{ name }} <span v-if="key === 'differing'" class="figure">{{ differing }}</span>
        </button>
      </div>
    </div>

    <EmptyState
      v-if="rows.length === 0"
      :title="only === 'differing' ? 'Nothing changed' : 'No row fits'"
      :text="
        only === 'differing'
          ? 'This type is judged by what ships. Open a row to change what is different with this type.'
          : 'Try another word, or all rows.'
      "
      action="All rows"
      @act="
        () => {
          only = 'all'
          search = ''
        }
      "
    />
    <table v-else>
      <thead>
        <tr>
          <th scope="col">{{ names[list] }}</th>
          <th scope="col">{{ asides[list] }}</th>
          <th v-for="head in heads[list]" :key="head" scope="col" class="number">{{ head }}</th>
          <th scope="col"><span class="visually-hidden">What can be done</span></th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in many ? rows : rows.slice(0, FEW)"
          :key="row.id"
          :class="{ out: row.state === 'left out', own: row.state === 'changed' || row.state === 'own' }"
        >
          <th scope="row">
            <button type="button" :disabled="row.state === 'left out' || !session.mayWrite" @click="edit(row.id)">
              {{ row.name }}
            </button>
          </th>
          <td class="aside quiet">{{ row.aside }}</td>
          <td v-for="(figure, index) in row.figures" :key="index" class="number figure">
            {{ figure
            }}<span v-if="row.shipped && row.shipped[index] !== figure" class="quiet">
              was {{ row.shipped[index] }}</span
            >
          </td>
          <td class="doing">
            <template v-if="row.state !== 'as shipped'"
              ><span class="label">{{ row.state }}</span
              ><button v-if="session.mayWrite" type="button" class="plain" @click="setBack(row.id)">
                {{ row.state === 'own' ? 'Take away' : 'As it ships' }}
              </button></template
            >
          </td>
        </tr>
      </tbody>
    </table>
    <button v-if="rows.length > FEW && !many" type="button" class="plain" @click="many = true">
      All {{ rows.length }} rows
    </button>
    <p v-if="asking" class="ask">
      <span class="sign sign--care"
        >This type is then judged by what ships, as every other. What it was stays in the journal.</span
      ><v-btn
        color="error"
        variant="flat"
        @click="
          () => {
            asking = false
            save(noChanges)
          }
        "
        >Set all back</v-btn
      ><v-btn variant="outlined" @click="asking = false">Leave it</v-btn>
    </p>
    <button v-else-if="differing > 0 && session.mayWrite" type="button" class="plain" @click="asking = true">
      Set all back to what ships
    </button>
    <KnowledgeRowDialog
      v-if="editing"
      :list="editing.list"
      :row="editing.row"
      :as-new="editing.asNew"
      :knowledge="copy"
      :ships="
        (diagnosisKnowledge[editing.list] as ReadonlyArray<{ id: string }>).some(
          (entry) => entry.id === editing?.row.id,
        )
      "
      @keep="keep"
      @leave="editing = null"
      @leave-out="leaveOutEdited"
      @as-new="editing = { ...editing, asNew: true }"
    />
  </section>
</template>

<style scoped>
.known {
  display: grid;
  gap: 12px;
  grid-template-columns: minmax(0, 1fr);
}
.intro {
  max-width: 64ch;
}
.ask {
  display: flex;
  gap: 12px;
  align-items: center;
  flex-wrap: wrap;
}
.bar {
  display: flex;
  gap: 18px;
  align-items: center;
  flex-wrap: wrap;
  border-bottom: 1px solid var(--rule);
}
.search {
  max-width: 240px;
}
.lists {
  display: flex;
}
.lists button {
  padding: 0 12px;
  min-height: var(--target);
  color: var(--soft);
  font-weight: 600;
  border-bottom: 3px solid transparent;
}
.lists [aria-selected='true'],
.lists [aria-pressed='true'] {
  color: var(--ink);
  border-color: var(--brass);
}
.lists .figure {
  font-weight: 400;
  font-size: 0.86em;
}
table {
  border-collapse: collapse;
  width: 100%;
}
thead th {
  font-size: 0.82rem;
  color: var(--soft);
  font-weight: 550;
  text-align: left;
  padding: 4px 0;
}
tbody tr {
  border-top: 1px solid var(--rule);
}
tbody th {
  text-align: left;
  font-weight: 500;
  padding: 0 18px 0 0;
}
tbody th button {
  display: block;
  text-align: left;
  min-height: var(--target);
  font-weight: 550;
  padding: 4px 0;
}
tbody th button:not(:disabled):hover {
  text-decoration: underline;
  text-decoration-color: var(--brass);
  text-underline-offset: 3px;
}
.aside {
  font-size: 0.9rem;
  padding: 4px 0;
  width: 44%;
}
.number {
  text-align: right !important;
  white-space: nowrap;
  padding-left: 18px;
}
.doing {
  text-align: right;
  white-space: nowrap;
  padding-left: 18px;
  width: 1%;
}
.doing .label {
  margin-right: 12px;
}
.own > th {
  border-left: 3px solid var(--brass);
  padding-left: 10px;
}
.out th button,
.out .figure {
  text-decoration: line-through;
  color: var(--soft);
}
.plain {
  font-weight: 600;
  color: var(--green);
  min-height: var(--target);
  justify-self: start;
}
@media (max-width: 800px) {
  .doing {
    white-space: normal;
  }
}
@media (max-width: 600px) {
  .search {
    max-width: none;
    flex-basis: 100%;
  }
}
@media (max-width: 700px) {
  .aside,
  thead th:nth-child(2) {
    display: none;
  }
  .doing {
    width: auto;
    padding-left: 8px;
  }
  .number {
    padding-left: 8px;
  }
}
</style>
