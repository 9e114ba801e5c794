<script setup lang="ts">
import { v7 as newId } from 'uuid'
import type { PhoneAim } from '~~/messages/photograph-entries'
import { stationName } from '~~/messages/vocabulary'
import { failedStatus, problemSentence } from '~/stores/problem-sentence'
import { phonePictures, type PhonePicture } from '~/stores/phone-pictures'

/** The phone beside the bench: one large button, and what became of each picture. */
interface Bench {
  readonly person: string
  readonly jobNumber: number
  readonly engine: string
  readonly aim: PhoneAim
  readonly expiresAt: string
}
interface Sent {
  readonly id: string
  readonly words: string
  readonly preview: string
  readonly state: 'sending' | 'kept' | 'refused'
  readonly sentence: string
}

const ASK_EVERY_MS = 2000
const TRY_AGAIN_MS = 4000
const token = ref('')
const bench = shallowRef<Bench | null>(null)
const failure = ref('')
const sent = ref<Sent[]>([])
const headers = computed(() => ({ 'x-phone-token': token.value }))

async function ask(): Promise<void> {
  if (document.hidden) return
  try {
    bench.value = await $fetch<Bench>('/api/phone', { headers: headers.value })
    failure.value = ''
  } catch (error) {
    failure.value = problemSentence(error)
    if (failedStatus(error) === 401) bench.value = null
  }
}

async function take(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const files = [...(input.files ?? [])]
  input.value = ''
  const aim = bench.value?.aim
  if (!aim) return
  for (const bytes of files) {
    const picture = {
      id: newId(),
      commandId: newId(),
      token: token.value,
      aim,
      takenAt: new Date().toISOString(),
      bytes,
    }
    await phonePictures.keep(picture)
    show(picture)
  }
  void sendAll()
}
function show(picture: PhonePicture): void {
  sent.value.unshift({
    id: picture.id,
    words: picture.aim.words || stationName(picture.aim.station),
    preview: URL.createObjectURL(picture.bytes),
    state: 'sending',
    sentence: '',
  })
}
function settle(id: string, state: Sent['state'], sentence = ''): void {
  sent.value = sent.value.map((entry) => (entry.id === id ? { ...entry, state, sentence } : entry))
}

let sending = false
/** One after the other; what does not arrive is tried again, from the start, under the same number. */
async function sendAll(): Promise<void> {
  if (sending) return
  sending = true
  try {
    for (const picture of await phonePictures.all()) if (picture.token === token.value) await send(picture)
  } finally {
    sending = false
  }
}
async function send(picture: PhonePicture): Promise<void> {
  const { id, commandId, aim, takenAt, bytes } = picture
  try {
    await $fetch(`/api/phone/photographs/${id}`, {
      method: 'PUT',
      query: {
        commandId,
        takenAt,
        station: aim.station,
        ...(aim.about ? { about: JSON.stringify(aim.about) } : {}),
      },
      body: bytes,
      headers: { ...headers.value, 'content-type': 'application/octet-stream' },
      retry: 0,
    })
    settle(id, 'kept')
    await phonePictures.remove(id)
  } catch (error) {
    const status = failedStatus(error)
    const refused = status !== undefined && status >= 400 && status < 500 && status !== 429
    settle(id, refused ? 'refused' : 'sending', refused ? problemSentence(error) : '')
    if (refused && status !== 401) await phonePictures.remove(id)
  }
}

const timers: Array<ReturnType<typeof setInterval>> = []
onMounted(async () => {
  token.value = location.hash.slice(1)
  await ask()
  for (const picture of await phonePictures.all()) if (picture.token === token.value) show(picture)
  void sendAll()
  timers.push(
    setInterval(() => void ask(), ASK_EVERY_MS),
    setInterval(() => void sendAll(), TRY_AGAIN_MS),
  )
})
onBeforeUnmount(() => timers.forEach(clearInterval))
useEventListener(
  () => window,
  'hashchange',
  () => location.reload(),
)
const stateWords = { sending: 'on its way', kept: 'stands at the bench', refused: 'not taken' } as const
</script>

<template>
  <main class="phone">
    <p v-if="failure" class="sign sign--care" role="alert">{{ failure }}</p>
    <template v-if="bench">
      <p class="job">
        <b class="numeral">{{ bench.jobNumber }}</b> {{ bench.engine }}
      </p>
      <h1>{{ bench.aim.words || stationName(bench.aim.station) }}</h1>
      <label class="take"
        ><input
          type="file"
          accept="image/jpeg,image/png,image/webp"
          capture="environment"
          multiple
          aria-label="Photograph it"
          @change="take"
        />Photograph it</label
      >
      <p class="quiet">For {{ bench.person }}. The picture stands at this step on the bench screen.</p>
    </template>
    <p v-else-if="!failure" class="quiet" role="status">Asking the bench …</p>
    <ul v-if="sent.length > 0" class="sent">
      <li v-for="entry in sent" :key="entry.id">
        <img :src="entry.preview" alt="" />
        <span
          ><b>{{ entry.words }}</b
          ><span
            class="sign"
            :class="{ kept: 'sign--sound', refused: 'sign--fault', sending: 'sign--ask' }[entry.state]"
            >{{ stateWords[entry.state] }}</span
          ><span v-if="entry.sentence" class="quiet">{{ entry.sentence }}</span></span
        >
      </li>
    </ul>
    <Head><Title>Photographs for the bench</Title></Head>
  </main>
</template>

<style scoped>
.phone {
  max-width: 560px;
  margin: 0 auto;
  padding: 20px 18px 40px;
  display: grid;
  gap: 14px;
}
.job {
  display: flex;
  gap: 10px;
  align-items: baseline;
}
.take {
  display: grid;
  place-items: center;
  min-height: 34vh;
  border-radius: 3px;
  background: var(--green);
  color: var(--on-green);
  font-size: 1.6rem;
  font-weight: 650;
  cursor: pointer;
}
.take:focus-within {
  outline: 3px solid var(--brass);
  outline-offset: 3px;
}
.take input {
  position: absolute;
  opacity: 0;
  width: 1px;
  height: 1px;
}
.sent {
  list-style: none;
  margin: 0;
  padding: 0;
}
.sent li {
  display: grid;
  grid-template-columns: 84px minmax(0, 1fr);
  gap: 12px;
  padding: 8px 0;
  border-top: 1px solid var(--rule);
}
.sent span {
  display: grid;
}
.sent .sign {
  display: inline-flex;
}
.sent img {
  width: 84px;
  height: 64px;
  object-fit: cover;
  border-radius: 2px;
}
</style>
