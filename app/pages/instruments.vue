<script setup lang="ts">
import { plainCopy } from '~/forms/plain-copy'
import { v7 as newId } from 'uuid'
import type { ClampPlace, KeptReading } from '~~/messages/live-bench'
import type { BenchChange } from '~~/messages/commands'

/** Every bench supply of the shop, watched live; several at once, the same on every screen. */
const workshop = useWorkshopStore()
const session = useSessionStore()
const outbox = useOutbox()
const router = useRouter()
onMounted(() => void workshop.load())
const { states, takenBy, rings, failure, cut, post } = useBenchStream()

const instruments = computed(() => (workshop.book?.instruments ?? []).filter((entry) => !entry.retired))
const selectedId = ref<string | null>(null)
const selected = computed(
  () => instruments.value.find((entry) => entry.id === selectedId.value) ?? instruments.value[0] ?? null,
)
const stateOf = (id: string) => states.value.get(id) ?? null
const live = (id: string): boolean => stateOf(id)?.status === 'live'

const open = (id: string, engineId: string | null, place: ClampPlace): void =>
  void post(id, 'open', { engineId, place })
const set = (id: string, change: BenchChange): void => void post(id, 'set', change)
const close = (id: string): void => void post(id, 'close')
function allOff(): void {
  for (const entry of instruments.value) if (live(entry.id)) set(entry.id, { on: false })
}

/** The latest reading kept from each bench, until it is struck again. */
const kept = shallowRef<ReadonlyMap<string, KeptReading>>(new Map())
function remember(id: string, reading: KeptReading | null): void {
  const next = new Map(kept.value)
  if (reading) next.set(id, reading)
  else next.delete(id)
  kept.value = next
}
async function keep(id: string, held: boolean): Promise<void> {
  const answer = await post<{ kept: KeptReading }>(id, 'keep', { commandId: newId(), held })
  if (answer) remember(id, answer.kept)
}
async function strike(id: string, { readingId, sheetId, jobId }: KeptReading): Promise<void> {
  const strikeId = newId()
  await outbox.send('reading.strike', { id: strikeId, jobId, sheetId, readingId, reason: '' })
  remember(id, null)
}
const keepSelected = (held: boolean): void => {
  if (selected.value && live(selected.value.id) && session.mayWrite) void keep(selected.value.id, held)
}

const zeroing = ref<string | null>(null)
const zeroed = shallowRef<{ ohms: number; halfWidth: number } | null>(null)
const zeroRow = computed(() => instruments.value.find((entry) => entry.id === zeroing.value) ?? null)
const zeroFailure = ref('')
async function measureLeads(): Promise<void> {
  if (!zeroing.value) return
  zeroFailure.value = ''
  zeroed.value = await post<{ ohms: number; halfWidth: number }>(zeroing.value, 'zero')
  if (!zeroed.value) zeroFailure.value = failure.value
}
async function keepLeads(): Promise<void> {
  const row = zeroRow.value
  if (!row || !zeroed.value) return
  const { id, version, ...fields } = row
  await outbox.send(
    'instrument.save',
    { id, fields: { ...plainCopy(fields), leadOhms: Number(zeroed.value.ohms.toFixed(4)) } },
    { version, ...fields },
    'leads',
  )
  zeroing.value = null
}

const selectedState = computed(() => (selected.value ? stateOf(selected.value.id) : null))
const label = computed(() =>
  !selected.value
    ? 'Enter a supply'
    : live(selected.value.id)
      ? selectedState.value?.settings.on
        ? `Output off, ${selected.value.name}`
        : `Output on, ${selected.value.name}`
      : 'To the bench',
)
useNextAction({
  label,
  run: () => {
    const row = selected.value
    if (!row) return void router.push('/workshop')
    if (live(row.id) && session.mayWrite) return set(row.id, { on: !selectedState.value?.settings.on })
    void router.push('/')
  },
  back: () => void router.push('/'),
})
const nudge = (voltsBy: number): void => {
  if (selected.value && live(selected.value.id)) set(selected.value.id, { voltsBy })
}
useBenchKeys([
  { key: 'Escape', label: 'All outputs off', run: allOff },
  {
    key: 'r',
    label: 'Reverse the selected bench',
    run: () => {
      if (selected.value && live(selected.value.id))
        set(selected.value.id, { reversed: !selectedState.value?.settings.reversed })
    },
  },
  { key: 'm', label: 'Keep the running reading in the sheet', run: () => keepSelected(false) },
  { key: 'h', label: 'Keep the held reading in the sheet', run: () => keepSelected(true) },
  { key: 'ArrowUp', label: 'Half a volt more', run: () => nudge(0.5) },
  { key: 'ArrowDown', label: 'Half a volt less', run: () => nudge(-0.5) },
  ...[1, 2, 3, 4].map((place) => ({
    key: String(place),
    label: `Bench ${place}`,
    run: () => {
      selectedId.value = instruments.value[place - 1]?.id ?? selectedId.value
    },
  })),
])
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Instruments</h1>
      <v-btn
        v-if="instruments.some((entry) => live(entry.id))"
        class="push"
        variant="outlined"
        color="error"
        @click="allOff"
        >All outputs off<kbd>Esc</kbd></v-btn
      >
    </div>
    <p v-if="(failure || workshop.failure) && !zeroing" class="sign sign--fault" role="alert">
      {{ failure || workshop.failure }}
    </p>
    <p v-if="cut" class="sign sign--care" role="status">
      The connection to the server is cut. Each supply goes off by itself two seconds after the server falls silent;
      this screen looks again.
    </p>
    <EmptyState
      v-if="workshop.book && instruments.length === 0"
      title="No supply yet"
      text="A bench supply with meter is entered under Workshop. The simulated one shows what it does without anything being connected."
      action="To the workshop"
      to="/workshop"
    />
    <div class="benches" :class="{ several: instruments.length > 1 }">
      <LiveBenchPanel
        v-for="(entry, index) in instruments"
        :key="entry.id"
        :instrument="entry"
        :state="stateOf(entry.id)"
        :taken-by="takenBy.get(entry.id) ?? null"
        :ring="() => rings.get(entry.id) ?? []"
        :selected="selected?.id === entry.id"
        :place="instruments.length > 1 && index < 4 ? index + 1 : null"
        :kept="kept.get(entry.id) ?? null"
        @select="selectedId = entry.id"
        @open="(engineId, place) => open(entry.id, engineId, place)"
        @set="set(entry.id, $event)"
        @keep="keep(entry.id, $event)"
        @strike="strike(entry.id, $event)"
        @close="close(entry.id)"
        @zero="
          () => {
            zeroing = entry.id
            zeroed = null
            zeroFailure = ''
          }
        "
      />
    </div>
    <p class="caution">
      A bench supply up to 24 V, never mains. What is clamped may turn by itself: fingers, hair and springs away before
      the output goes on.
    </p>
    <v-dialog :model-value="zeroing !== null" max-width="520" @update:model-value="zeroing = null">
      <v-card :title="`Leads of ${zeroRow?.name ?? ''}`">
        <v-card-text class="zero">
          <p v-if="!zeroed">
            Put the two clips together, metal on metal. Half an amp at most flows for a second; what the leads lose is
            taken off every reading from then on.
          </p>
          <p v-else>
            <span class="numeral">{{ (zeroed.ohms * 1000).toFixed(0) }}</span> mΩ, give or take
            {{ Math.max(1, zeroed.halfWidth * 1000).toFixed(0) }}. Until now it was
            {{ ((zeroRow?.leadOhms ?? 0) * 1000).toFixed(0) }} mΩ.
          </p>
          <p v-if="zeroFailure" class="sign sign--fault" role="alert">{{ zeroFailure }}</p>
        </v-card-text>
        <v-card-actions
          ><v-btn variant="outlined" @click="zeroing = null">Leave</v-btn><v-spacer /><v-btn
            v-if="zeroed"
            variant="outlined"
            @click="measureLeads"
            >Once more</v-btn
          ><v-btn color="primary" variant="flat" @click="zeroed ? keepLeads() : measureLeads()">{{
            zeroed ? 'Keep it' : 'Together: measure'
          }}</v-btn></v-card-actions
        >
      </v-card>
    </v-dialog>
    <NextBar />
  </div>
</template>

<style scoped>
.benches {
  display: grid;
  gap: 26px;
  margin-bottom: 18px;
}
@media (min-width: 1080px) {
  .benches.several {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
}
.zero {
  display: grid;
  gap: 10px;
}
</style>
