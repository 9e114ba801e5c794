<script setup lang="ts">
import { emptyOwner, emptyType, emptyEngine, emptyJob, emptyParcel } from '~/forms/empty-entries'
import { plainCopy } from '~/forms/plain-copy'
import type { Machine, TakeInDraft } from '~/forms/take-in-draft'
import { v7 as newId } from 'uuid'
import { showDay, today } from '~~/work/describe-due'
import type { CommandPayload } from '~~/messages/commands'
import type { EngineTag, EngineTypeRow, OwnerRow, ParcelBook, ParcelTag } from '~~/messages/book'

/** Owner and engine found or made, and what is wrong, in one flow. Kept as it is typed; one write at the end. */
const router = useRouter()
const route = useRoute()
const outbox = useOutbox()
const session = useSessionStore()
const workshop = useWorkshopStore()
onMounted(() => void workshop.need())

const { draft, touched, clear, handOver } = useDraft<TakeInDraft>('take-in', () => ({
  owner: null,
  newOwner: null,
  type: null,
  newType: null,
  engine: null,
  newEngine: null,
  job: emptyJob(),
}))
const ownersEngines = shallowRef<readonly EngineTag[]>([])
const photographs = shallowRef<File[]>([])
const problems = ref<Record<string, string>>({})
const { fits, under, forget } = useFormCheck('job.take-in')
const leaving = ref(false)

watch(
  () => draft.value.owner?.id,
  async (id) => {
    ownersEngines.value = id
      ? (await $fetch<{ engines: EngineTag[] }>(`/api/owners/${id}`).catch(() => ({ engines: [] }))).engines
      : []
  },
  { immediate: true },
)
const engineBook = (id: string) =>
  $fetch<{
    engine: { id: string; nickname: string; runningNumber: string; history: string }
    type: EngineTypeRow
    owner: OwnerRow
  }>(`/api/engines/${id}`).catch(() => null)
/** What is known of an engine of the book tells what can be said of it. */
async function takeEngine(id: string, name: string): Promise<void> {
  draft.value.engine = { id, name }
  const book = await engineBook(id)
  if (book && draft.value.engine?.id === id)
    draft.value.engine = {
      id,
      name,
      construction: book.type.construction,
      power: book.type.power,
      history: book.engine.history,
    }
}
/** Parcels that are being unpacked: what comes out of one belongs to it. */
const parcels = shallowRef<readonly ParcelTag[]>([])
onMounted(async () => {
  parcels.value = await $fetch<ParcelTag[]>('/api/parcels').catch(() => [])
})
const parcel = shallowRef<{ readonly id: string; readonly words: string } | null>(null)
onMounted(async () => {
  const { parcel: parcelId } = route.query
  if (typeof parcelId !== 'string') return
  const book = await $fetch<ParcelBook>(`/api/parcels/${parcelId}`).catch(() => null)
  if (!book) return
  draft.value = { ...draft.value, owner: { id: book.owner.id, name: book.owner.name }, newOwner: null }
  parcel.value = { id: parcelId, words: `the parcel that came ${showDay(book.parcel.arrivedOn)}` }
})
async function openParcel(): Promise<void> {
  const { owner } = draft.value
  if (!owner) return
  const id = newId()
  await outbox.send('parcel.save', { id, fields: { ...emptyParcel(owner.id), arrivedOn: today() } })
  await router.push(`/parcels/${id}`)
}
onMounted(async () => {
  const engineId = route.query.engine
  if (typeof engineId !== 'string') return
  const book = await engineBook(engineId)
  if (!book) return
  draft.value = { ...draft.value, owner: { id: book.owner.id, name: book.owner.name }, newOwner: null, newEngine: null }
  await takeEngine(engineId, book.engine.nickname || `${book.type.maker} ${book.type.name}`)
})
const machine = computed<Machine>(() => {
  const { engine, newEngine, type, newType } = draft.value
  const known = engine ?? type ?? newType
  return {
    construction: known?.construction ?? 'other',
    power: known?.power ?? 'dc',
    history: engine?.history ?? newEngine?.history ?? '',
  }
})

const ownerReady = computed(() => draft.value.owner !== null || draft.value.newOwner !== null)
const engineReady = computed(() => draft.value.engine !== null || draft.value.newEngine !== null)

function findProblems(): Record<string, string> {
  const found: Record<string, string> = {}
  const { owner, newOwner, engine, newEngine, type, newType, job } = draft.value
  if (!owner && !newOwner) found.owner = 'Whose engine is it?'
  if (newOwner && !newOwner.name.trim()) found.name = 'The owner needs a name.'
  if (!engine && !newEngine) found.engine = 'Which engine is it?'
  if (newEngine && !type && !newType) found.type = 'Which type is it? A new one takes maker and name.'
  if (newEngine && newType && !newType.maker.trim()) found.maker = 'Who made it? “Unknown maker” will do.'
  if (newEngine && newType && !newType.name.trim()) found.typeName = 'The type needs a name.'
  if (newEngine?.units.some((unit) => !unit.name.trim())) found.units = 'Every unit needs a name.'
  if (!job.complaint.trim()) found.complaint = 'What is wrong, in the owner’s words?'
  return found
}

async function takeIn(): Promise<void> {
  if (leaving.value) return
  problems.value = findProblems()
  if (Object.keys(problems.value).length > 0) {
    await nextTick()
    document.querySelector('.problem, .v-input--error')?.scrollIntoView({ block: 'center' })
    return
  }
  if (!(await fits(messageOf(newId(), plainCopy(draft.value))))) return
  leaving.value = true
  try {
    const jobId = draft.value.jobId ?? newId()
    await handOver((written) => queue(jobId, written))
    await router.push(`/jobs/${jobId}/first-run`)
  } finally {
    leaving.value = false
  }
}

function messageOf(jobId: string, written: TakeInDraft): CommandPayload<'job.take-in'> {
  const { owner, newOwner, engine, newEngine, type, newType, job } = written
  const made = <F extends object>(fields: F) => ({ made: { id: newId(), fields: plainCopy(fields) } })
  return {
    jobId,
    owner: owner ? { existing: owner.id } : made(newOwner ?? emptyOwner()),
    type: newEngine ? (type ? { existing: type.id } : made(newType ?? emptyType())) : null,
    engine: engine ? { existing: engine.id } : made(newEngine ?? emptyEngine()),
    job: { ...plainCopy(job), ...(parcel.value ? { parcelId: parcel.value.id } : {}) },
  }
}

async function queue(jobId: string, written: TakeInDraft): Promise<void> {
  await outbox.send('job.take-in', messageOf(jobId, written))
  for (const file of photographs.value) await outbox.sendPhotograph(jobId, 'take-in', file)
  photographs.value = []
}

useNextAction({ label: ref('Take it in'), run: () => void takeIn(), back: () => void router.push('/') })
const engineTitle = (row: EngineTypeRow): string => `${row.maker} ${row.name}`
</script>

<template>
  <div class="page take-in">
    <div class="page-head">
      <h1>Take in an engine</h1>
      <v-btn
        v-if="touched"
        variant="outlined"
        class="push"
        @click="
          () => {
            clear()
            photographs = []
            problems = {}
            forget()
          }
        "
        >Start over</v-btn
      >
    </div>
    <p v-if="parcel" class="sign sign--sound">
      <span
        >It comes out of <NuxtLink :to="`/parcels/${parcel.id}`">{{ parcel.words }}</NuxtLink>.</span
      >
    </p>
    <p v-else-if="parcels.length > 0" class="quiet">
      Being unpacked:
      <template v-for="(entry, index) in parcels" :key="entry.id"
        ><template v-if="index > 0">, </template
        ><NuxtLink :to="`/parcels/${entry.id}`"
          >{{ entry.ownerName }}, {{ showDay(entry.arrivedOn) }}</NuxtLink
        ></template
      >.
    </p>
    <section aria-labelledby="whose">
      <h2 id="whose"><span class="step figure">1</span>Whose is it</h2>
      <p v-if="problems.owner && !ownerReady" class="sign sign--fault problem">{{ problems.owner }}</p>
      <div v-if="draft.owner" class="chosen">
        <strong>{{ draft.owner.name }}</strong><v-btn
          variant="outlined"
          @click="
            () => {
              draft.owner = null
              draft.engine = null
            }
          "
          >Another</v-btn
        ><v-btn v-if="!parcel && session.mayWrite" variant="outlined" @click="openParcel"
          >Several came in one parcel</v-btn
        >
      </div>
      <template v-else-if="draft.newOwner"
        ><OwnerFieldsForm
          v-model="draft.newOwner"
          :problems="{ ...under('owner.made.fields'), ...(problems.name && { name: problems.name }) }"
        /><v-btn variant="outlined" @click="draft.newOwner = null">Find one in the book instead</v-btn></template
      >
      <template v-else>
        <!-- Above the list: what arrives late must not slide a button away from under the finger. -->
        <div><v-btn variant="outlined" color="primary" @click="draft.newOwner = emptyOwner()">A new owner</v-btn></div>
        <FindBox
          path="/api/owners"
          label="Find the owner"
          :title="(row: OwnerRow) => row.name"
          :detail="(row: OwnerRow) => row.address.split('\n').at(-1) ?? ''"
          @choose="draft.owner = { id: $event.id, name: $event.name }"
        />
      </template>
    </section>
    <section v-if="ownerReady" aria-labelledby="which">
      <h2 id="which"><span class="step figure">2</span>Which engine</h2>
      <p v-if="problems.engine && !engineReady" class="sign sign--fault problem">{{ problems.engine }}</p>
      <div v-if="draft.engine" class="chosen">
        <strong>{{ draft.engine.name }}</strong><v-btn variant="outlined" @click="draft.engine = null">Another</v-btn>
      </div>
      <template v-else-if="draft.newEngine">
        <p
          v-if="(problems.type || problems.typeName || problems.units) && !(draft.type || draft.newType?.name)"
          class="sign sign--fault problem"
        >
          {{ problems.type || problems.typeName || problems.units }}
        </p>
        <div v-if="draft.type" class="chosen">
          <strong>{{ draft.type.name }}</strong><v-btn variant="outlined" @click="draft.type = null"
            >Another type</v-btn
          >
        </div>
        <template v-else-if="draft.newType"
          ><h3>A new type</h3>
          <TypeFieldsForm
            v-model="draft.newType"
            :problems="{
              ...under('type.made.fields'),
              ...(problems.maker && { maker: problems.maker }),
              ...(problems.typeName && { name: problems.typeName }),
            }"
          /><v-btn variant="outlined" @click="draft.newType = null">Find the type in the book instead</v-btn></template
        >
        <template v-else
          ><FindBox
            path="/api/engine-types"
            label="Find its type"
            :title="engineTitle"
            :detail="(row: EngineTypeRow) => row.variantMarks || row.yearsMade"
            @choose="
              draft.type = {
                id: $event.id,
                name: engineTitle($event),
                construction: $event.construction,
                power: $event.power,
              }
            "
          /><v-btn variant="outlined" color="primary" @click="draft.newType = emptyType()">A new type</v-btn></template
        >
        <h3 class="example">This example</h3>
        <EngineFieldsForm v-model="draft.newEngine" :problems="under('engine.made.fields')" />
      </template>
      <template v-else>
        <ul v-if="ownersEngines.length > 0" class="engines">
          <li v-for="entry in ownersEngines" :key="entry.id">
            <button type="button" @click="takeEngine(entry.id, entry.name)">
              <strong>{{ entry.name }}</strong><span class="quiet"
                >{{ entry.typeName }}{{ entry.openJobId ? ', is here already' : '' }}</span
              >
            </button>
          </li>
        </ul>
        <v-btn variant="outlined" color="primary" @click="draft.newEngine = emptyEngine()"
          >An engine not in the book yet</v-btn
        >
      </template>
    </section>
    <section v-if="ownerReady && engineReady" aria-labelledby="what">
      <h2 id="what"><span class="step figure">3</span>What is wrong, and what is wanted</h2>
      <JobFieldsForm
        v-model="draft.job"
        :problems="{ ...under('job'), ...(problems.complaint && { complaint: problems.complaint }) }"
        :construction="machine.construction"
        :power="machine.power"
        :history="machine.history"
      />
      <div class="photographs">
        <label class="pick"
          ><input
            type="file"
            accept="image/*"
            multiple
            @change="photographs = [...photographs, ...(($event.target as HTMLInputElement).files ?? [])]"
          />Photographs{{ photographs.length ? `: ${photographs.length} chosen` : '' }}</label
        >
        <span class="quiet">As it came, before anything is touched.</span>
      </div>
    </section>
    <NextBar />
  </div>
</template>

<style scoped>
.take-in {
  max-width: 980px;
}
section {
  border-top: 1px solid var(--rule);
  padding: 16px 0 24px;
  display: grid;
  gap: 12px;
  justify-items: stretch;
}
section > .v-btn {
  justify-self: start;
}
h2 {
  display: flex;
  align-items: baseline;
  gap: 12px;
}
.step {
  color: var(--brass-ink);
  font-size: 1.5rem;
}
.chosen {
  display: flex;
  align-items: center;
  gap: 18px;
  font-size: 1.1rem;
}
.example {
  margin-top: 10px;
}
.engines {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
  gap: 6px;
}
.engines li {
  display: grid;
}
.engines button {
  width: 100%;
  align-content: start;
  text-align: left;
  display: grid;
  padding: 8px 12px;
  min-height: var(--target);
  border: 1px solid var(--rule);
  background: var(--sheet);
}
.engines button:hover {
  border-color: var(--brass);
}
.photographs {
  display: flex;
  gap: 14px;
  align-items: center;
  flex-wrap: wrap;
}
.pick {
  border: 1px solid var(--rule);
  min-height: var(--target);
  padding: 0 16px;
  display: inline-flex;
  align-items: center;
  font-weight: 600;
  cursor: pointer;
}
.pick input {
  position: absolute;
  opacity: 0;
  width: 1px;
  height: 1px;
}
.pick:focus-within {
  outline: 3px solid var(--brass);
  outline-offset: 2px;
}
</style>
