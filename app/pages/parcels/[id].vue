<script setup lang="ts">
import { v7 as newId } from 'uuid'
import { plainCopy } from '~/forms/plain-copy'
import type { ParcelBook } from '~~/messages/book'
import { parcelBookWith } from '~~/messages/changes'
import type { ParcelFields } from '~~/messages/parcel-entries'
import { showDay, today } from '~~/work/describe-due'
import { packingLines } from '~~/work/packing-lines'

/** A parcel: how it came, its engines, what lay loose in it, and what is packed again before it goes back. */
const route = useRoute()
const router = useRouter()
const outbox = useOutbox()
const session = useSessionStore()
const id = computed(() => String(route.params.id))
const { book, failure } = useShopBook<ParcelBook>({
  address: () => `/api/parcels/${id.value}`,
  put: parcelBookWith,
  // Only just sent, it was not in the book yet when it was asked for.
  readsAnew: (before, _after, changes) =>
    before === null && changes.parcels?.some((row) => row.id === id.value) === true,
})
const refusal = ref('')

const lines = computed(() => (book.value ? packingLines(book.value) : []))
const left = computed(() => lines.value.filter((line) => !line.packed))
const came = ref('')
const condition = ref('')
const arrivedOn = ref('')
const paper = useFreshPaper()
const remarks = ref('')
for (const [field, typed] of Object.entries({ came, condition, arrivedOn, remarks }))
  watch(
    () => book.value?.parcel[field as 'came'],
    (kept = '', before = '') => {
      // What is being typed stays when an earlier write comes back, or somebody else's.
      if (typed.value === before) typed.value = kept
    },
    { immediate: true },
  )

async function change(part: Partial<ParcelFields>): Promise<void> {
  const parcel = book.value?.parcel
  if (!parcel || !session.mayWrite) return
  const { ownerId, items, packed, sentBackOn } = parcel
  const fields: ParcelFields = {
    ownerId,
    came: came.value.trim(),
    condition: condition.value,
    arrivedOn: arrivedOn.value || parcel.arrivedOn,
    remarks: remarks.value.trim(),
    items: plainCopy(items),
    packed: [...packed],
    sentBackOn,
    ...part,
  }
  await outbox.send('parcel.save', { id: parcel.id, fields }, parcel)
}
const item = reactive({ what: '', held: '', jobId: null as string | null, borrowed: false })
async function addItem(): Promise<void> {
  const what = item.what.trim()
  if (!what || !book.value) return
  const added = { id: newId(), what, held: item.held.trim(), jobId: item.jobId, borrowed: item.borrowed }
  Object.assign(item, { what: '', held: '', jobId: null, borrowed: false })
  await change({ items: [...plainCopy(book.value.parcel.items), added] })
}
const takeOff = (line: string): Promise<void> =>
  change({
    items: plainCopy(book.value?.parcel.items ?? []).filter((entry) => entry.id !== line),
    packed: (book.value?.parcel.packed ?? []).filter((entry) => entry !== line),
  })
function pack(line: string): void {
  const packed = book.value?.parcel.packed ?? []
  void change({ packed: packed.includes(line) ? packed.filter((entry) => entry !== line) : [...packed, line] })
}
async function sendBack(): Promise<void> {
  refusal.value =
    left.value.length > 0 && remarks.value.trim() === ''
      ? `Not packed yet: ${left.value.map((line) => line.what).join(', ')}. Pack it, or say why it stays behind.`
      : ''
  if (!refusal.value) await change({ sentBackOn: today() })
}
const takeInAnother = (): void => void router.push({ path: '/take-in', query: { parcel: id.value } })
useNextAction({
  label: computed(() => (book.value?.parcel.sentBackOn ? '' : 'Take in an engine of it')),
  active: computed(() => book.value !== null && !book.value.parcel.sentBackOn && session.mayWrite),
  run: takeInAnother,
  back: () => void router.back(),
})
</script>

<template>
  <div class="page">
    <p v-if="failure && !book" class="sign sign--care" role="alert">{{ failure }}</p>
    <template v-if="book">
      <div class="page-head">
        <h1>
          Parcel of <NuxtLink :to="`/owners/${book.owner.id}`">{{ book.owner.name }}</NuxtLink>
        </h1>
        <span class="quiet"
          >came {{ showDay(book.parcel.arrivedOn)
          }}{{ book.parcel.sentBackOn ? `, sent back ${showDay(book.parcel.sentBackOn)}` : '' }}</span
        >
        <a class="push plain" :href="`/api/parcels/${id}/packing-list`" target="_blank" @click="paper.open"
          >Packing list (PDF)</a
        >
        <p v-if="paper.late.value" class="quiet" role="status">{{ paper.words }}</p>
      </div>
      <div class="columns columns--with-side">
        <section aria-labelledby="contents">
          <h2 id="contents">What came in it</h2>
          <p v-if="lines.length === 0" class="quiet">
            Nothing is noted yet. Count it out of the box: each engine becomes a job, each loose bag a line.
          </p>
          <ul v-else class="ruled-list lines" aria-label="What came in it">
            <li v-for="line in lines" :key="line.id">
              <label class="pack"
                ><input
                  type="checkbox"
                  :checked="line.packed"
                  :disabled="!session.mayWrite || book.parcel.sentBackOn !== null"
                  :aria-label="`${line.what}: packed`"
                  @change="pack(line.id)"
                /><span class="label">packed</span></label
              >
              <span>
                <NuxtLink v-if="line.kind === 'engine'" :to="`/jobs/${line.id}`"
                  ><b>{{ line.what }}</b></NuxtLink
                ><b v-else>{{ line.what }}</b>
                <span v-if="line.borrowed" class="sign sign--care borrowed">borrowed</span>
                <span v-if="line.more.length > 0" class="quiet more">{{ line.more.join('; ') }}</span>
              </span>
              <button
                v-if="line.kind === 'loose' && session.mayWrite && !book.parcel.sentBackOn"
                type="button"
                class="plain"
                @click="takeOff(line.id)"
              >
                Take off
              </button>
            </li>
          </ul>
          <form v-if="session.mayWrite && !book.parcel.sentBackOn" class="add" @submit.prevent="addItem">
            <h3>Something loose</h3>
            <v-text-field v-model="item.what" label="What" placeholder="Bag, small box, spare tender" />
            <v-text-field v-model="item.held" label="What it held" placeholder="Seven screws, two washers, a spring" />
            <v-select
              v-model="item.jobId"
              :items="[
                { value: null, title: 'Not known yet' },
                ...book.tags.map((tag) => ({ value: tag.id, title: `${tag.number}, ${tag.engineName}` })),
              ]"
              label="Belongs to"
            />
            <v-checkbox v-model="item.borrowed" label="Borrowed for the work: it goes back" />
            <v-btn type="submit" variant="outlined">Add it</v-btn>
          </form>
        </section>
        <aside class="side">
          <h2>How it came</h2>
          <v-text-field
            v-model="arrivedOn"
            label="Came on"
            type="date"
            :disabled="!session.mayWrite"
            @change="change({})"
          />
          <v-text-field
            v-model="came"
            label="By what, in what"
            placeholder="By post, a wine carton"
            :disabled="!session.mayWrite"
            @change="change({})"
          />
          <v-textarea
            v-model="condition"
            label="Condition of the box and what was crushed"
            rows="2"
            auto-grow
            :disabled="!session.mayWrite"
            @change="change({})"
          />
          <h2 class="back">Going back</h2>
          <template v-if="book.parcel.sentBackOn">
            <p>Sent back {{ showDay(book.parcel.sentBackOn) }}.</p>
            <p v-if="book.parcel.remarks" class="quiet">Stayed behind: {{ book.parcel.remarks }}</p>
            <v-btn v-if="session.mayWrite" variant="outlined" @click="change({ sentBackOn: null })"
              >It is still here</v-btn
            >
          </template>
          <template v-else>
            <p v-if="left.length > 0" class="quiet">
              {{ left.length === 1 ? '1 thing is' : `${left.length} things are` }} not packed.
            </p>
            <p v-else-if="lines.length > 0" class="sign sign--sound">All of it is packed.</p>
            <v-textarea
              v-if="left.length > 0"
              v-model="remarks"
              label="Why something stays behind"
              rows="1"
              auto-grow
              :disabled="!session.mayWrite"
            />
            <p v-if="refusal" class="sign sign--fault" role="alert">{{ refusal }}</p>
            <v-btn v-if="session.mayWrite && lines.length > 0" variant="outlined" @click="sendBack"
              >Sent back today</v-btn
            >
          </template>
        </aside>
      </div>
    </template>
    <NextBar />
  </div>
</template>

<style scoped>
.page-head .plain {
  align-self: center;
}
.lines li {
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr) max-content;
  gap: 12px;
  align-items: center;
  min-height: var(--target);
}
.pack {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: var(--target);
  cursor: pointer;
}
.pack input {
  width: 24px;
  height: 24px;
  accent-color: var(--green);
}
.more {
  display: block;
}
.borrowed {
  display: inline-flex;
  margin-left: 10px;
}
.add {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 16px;
  align-items: end;
  margin-top: 22px;
}
.add h3 {
  grid-column: 1 / -1;
}
.add .v-btn {
  justify-self: start;
}
.side {
  display: grid;
  gap: 8px;
  align-content: start;
}
.side .v-btn {
  justify-self: start;
}
.back {
  margin-top: 18px;
}
@media (max-width: 600px) {
  .add {
    grid-template-columns: 1fr;
  }
  .lines li {
    grid-template-columns: 44px minmax(0, 1fr);
  }
  .pack .label {
    display: none;
  }
  .lines .plain {
    grid-column: 2;
    justify-self: start;
  }
}
</style>
