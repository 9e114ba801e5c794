<script setup lang="ts">
import { engineName } from '~~/work/engine-name'
import { standingReadings } from '~~/work/sheet-readings'
import { stationSlices } from '~~/work/station-slices'
import type { PhoneAim } from '~~/messages/photograph-entries'
import { stationIds, type StationId, stationAfter, stationBefore, stationName } from '~~/messages/vocabulary'

/** One job: its tag, the line of stations, the station one stands at, and the ledger beside it. */
definePageMeta({ key: (route) => `job-${String(route.params.id)}` })
const route = useRoute()
const router = useRouter()
const jobs = useJobStore()
const workshop = useWorkshopStore()
const session = useSessionStore()
const jobId = computed(() => String(route.params.id))
const book = computed(() => jobs.book)
const asked = (): StationId | undefined => stationIds.find((id) => id === route.params.station)
const shown = computed<StationId>(() => asked() ?? book.value?.job.station ?? 'take-in')
const { moveTo } = useJobActions(book)
const finding = useFindingDialog()
const photographInput = ref<HTMLInputElement>()

watch(jobId, (id) => void jobs.open(id, stationSlices(asked() ?? 'take-in')), { immediate: true })
watch(shown, (station) => void jobs.need(stationSlices(station)))
const ready = computed(() => jobs.has(stationSlices(shown.value)))
onMounted(() => void workshop.need())
const here = jobId.value
onBeforeUnmount(() => jobs.close(here))

const open = computed(() => {
  const counts: Partial<Record<StationId, number>> = {}
  const findings = book.value?.findings ?? []
  const count = (station: StationId, number: number): void => {
    if (number > 0) counts[station] = number
  }
  count('find', findings.filter((entry) => entry.state === 'suspected').length)
  count('mend', findings.filter((entry) => entry.state === 'confirmed').length)
  return counts
})
const hasFirstRun = computed(() =>
  (book.value?.sheets ?? []).some(
    (sheet) => sheet.station === 'first-run' && standingReadings(sheet.readings).length > 0,
  ),
)
/** Once the hands are at work the head is one strip: the step takes the screen. */
const atWork = computed(() => ['strip', 'clean', 'mend', 'lubricate', 'rebuild'].includes(shown.value))
const closed = computed(() => book.value?.job.state === 'handed-back')

const nextStation = computed(() => stationAfter(shown.value))
/** There is no such job: the bench is where one goes on. */
const nowhere = computed(() => !book.value && jobs.failure !== null)
const nextLabel = computed(() => {
  if (nowhere.value) return 'Back to the bench'
  if (shown.value === 'hand-back') return closed.value ? 'Back to the bench' : 'Hand back and close'
  return `Go on to ${stationName(nextStation.value ?? 'hand-back')}`
})
const handBack = ref<{ submit: () => Promise<void> }>()

async function goOn(): Promise<void> {
  if (nowhere.value) return void router.push('/')
  if (!book.value) return
  if (shown.value === 'hand-back') {
    if (closed.value) return void router.push('/')
    return handBack.value?.submit()
  }
  const to = nextStation.value
  if (!to) return
  const ahead = stationIds.indexOf(to) > stationIds.indexOf(book.value.job.station)
  if (ahead && session.mayWrite && !closed.value) await moveTo(to)
  await router.push(`/jobs/${jobId.value}/${to}`)
}

useNextAction({
  label: nextLabel,
  run: () => void goOn(),
  back: () => {
    const to = nowhere.value ? null : stationBefore(shown.value)
    void router.push(to ? `/jobs/${jobId.value}/${to}` : '/')
  },
})
useBenchKeys([
  {
    key: 'f',
    label: 'Note a finding',
    run: () => {
      if (session.mayWrite) finding.openNew()
    },
  },
  {
    key: 'm',
    label: 'Type a reading',
    run: () =>
      void router.push(
        `/jobs/${jobId.value}/${hasFirstRun.value && book.value?.job.station !== 'first-run' ? 'prove' : 'first-run'}`,
      ),
  },
  {
    key: 'p',
    label: 'Photograph',
    run: () => {
      if (session.mayWrite) photographInput.value?.click()
    },
  },
  { key: 'h', label: 'Photographs from a phone', run: () => void showPhone() },
])

const outbox = useOutbox()
const subject = usePhotographSubject()
async function keepPhotographs(files: readonly File[]): Promise<void> {
  if (!session.mayWrite) return
  const { about } = subject.value
  for (const file of files) await outbox.sendPhotograph(jobId.value, shown.value, file, about)
}
async function takePhotographs(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const files = [...(input.files ?? [])]
  input.value = ''
  await keepPhotographs(files)
}
const dropped = ref(false)
async function dropPhotographs(event: DragEvent): Promise<void> {
  dropped.value = false
  const files = [...(event.dataTransfer?.files ?? [])].filter((file) => file.type.startsWith('image/'))
  await keepPhotographs(files)
}
function dragOver(event: DragEvent): void {
  if (event.dataTransfer?.types.includes('Files')) dropped.value = true
}

const aim = computed<PhoneAim>(() => ({
  station: shown.value,
  about: subject.value.about,
  words: subject.value.words,
}))
const { phone, url: phoneUrl, failure: phoneFailure, open: openPhone } = usePhone(jobId, aim)
const phoneShown = ref(false)
async function showPhone(): Promise<void> {
  if (!session.mayWrite) return
  if (!phone.value) await openPhone()
  phoneShown.value = true
}
</script>

<template>
  <div
    class="page job"
    :class="{ dropped }"
    @dragover.prevent="dragOver"
    @dragleave.self="dropped = false"
    @drop.prevent="dropPhotographs"
  >
    <p v-if="jobs.failure && !book" class="sign sign--fault" role="alert">{{ jobs.failure }}</p>
    <p v-else-if="!book" class="quiet" role="status">Opening the job …</p>
    <template v-else>
      <JobHead :book="book" :slim="atWork" />
      <StationLine
        :job-id="jobId"
        :reached="book.job.station"
        :shown="shown"
        :open="open"
        :closed="closed"
        :slim="atWork"
      />
      <p v-if="jobs.failure" class="sign sign--care" role="alert">{{ jobs.failure }}</p>
      <div class="columns columns--with-side body">
        <section class="station" :aria-label="stationName(shown)">
          <p v-if="!ready" class="quiet" role="status">Fetching what this station needs …</p>
          <TakeInStation v-else-if="shown === 'take-in'" :book="book" @photograph="photographInput?.click()" />
          <SheetStation
            v-else-if="shown === 'first-run' || shown === 'prove'"
            :key="`${jobId}-${shown}`"
            :book="book"
            :station="shown"
          />
          <FindStation v-else-if="shown === 'find'" :book="book" />
          <LazyStripStation v-else-if="shown === 'strip'" :key="`${jobId}-strip`" :book="book" />
          <LazyCleanStation v-else-if="shown === 'clean'" :key="`${jobId}-clean`" :book="book" />
          <LazyLubricateStation v-else-if="shown === 'lubricate'" :key="`${jobId}-lubricate`" :book="book" />
          <MendStation v-else-if="shown === 'mend'" :book="book" />
          <RebuildStation v-else-if="shown === 'rebuild'" :key="`${jobId}-rebuild`" :book="book" />
          <HandBackStation v-else-if="shown === 'hand-back'" ref="handBack" :book="book" />
        </section>
        <JobLedger :book="book" @photograph="photographInput?.click()" @phone="showPhone" />
      </div>
      <FindingDialog :book="book" :station="shown" />
      <PhoneCode
        v-if="phoneShown"
        :url="phoneUrl"
        :failure="phoneFailure"
        :words="aim.words || stationName(shown)"
        @close="phoneShown = false"
      />
    </template>
    <input
      ref="photographInput"
      type="file"
      accept="image/*"
      multiple
      hidden
      aria-label="Photographs"
      @change="takePhotographs"
    />
    <NextBar />
    <Head
      ><Title>{{ book ? `${book.job.number} ${engineName(book.engine, book.type)}` : 'Job' }}</Title></Head
    >
  </div>
</template>

<style scoped>
.job {
  padding-top: 12px;
}
/* Pictures held over the page fall into the job. */
.dropped {
  outline: 3px dashed var(--brass);
  outline-offset: -6px;
}
.body {
  margin-top: 14px;
}
.station {
  min-width: 0;
}
</style>
