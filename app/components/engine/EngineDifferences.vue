<script setup lang="ts">
import { plainCopy } from '~/forms/plain-copy'
import { problemSentence } from '~/stores/problem-sentence'
import { cutText } from '~~/messages/cut-text'
import { v7 as newId } from 'uuid'
import type { Difference } from '~~/core/engine/difference-schema'
import type { EngineBook, TemplateTag } from '~~/messages/book'
import type { DescribedDifference, DescribedEngine } from '~~/work/describe-engine'

/** How this engine departs from how its kind is made: of the type, and of this example. Each step can be taken back. */
const props = defineProps<{ book: EngineBook; described: DescribedEngine }>()
const outbox = useOutbox()
const session = useSessionStore()
const scope = ref<'engine' | 'type'>('engine')
const adding = ref(false)

// What was sent but has not come back yet is what the next step starts from.
const sent = shallowRef<{ scope: 'engine' | 'type'; list: readonly Difference[] } | null>(null)
watch(
  () => props.book,
  () => {
    sent.value = null
  },
)
const listOf = (which: 'engine' | 'type'): readonly Difference[] =>
  sent.value?.scope === which
    ? sent.value.list
    : which === 'engine'
      ? props.book.engine.adaptations
      : props.book.type.adaptations

async function write(which: 'engine' | 'type', list: readonly Difference[]): Promise<void> {
  const adaptations = plainCopy([...list])
  sent.value = { scope: which, list }
  const { engine, type } = props.book
  if (which === 'engine') await outbox.send('engine.adapt', { id: engine.id, fields: { adaptations } }, engine)
  else
    await outbox.send('engine-type.adapt', { id: type.id, fields: { templateId: type.templateId, adaptations } }, type)
}
const histories = {
  engine: useDifferenceHistory(
    () => listOf('engine'),
    (list) => write('engine', list),
  ),
  type: useDifferenceHistory(
    () => listOf('type'),
    (list) => write('type', list),
  ),
}
const history = computed(() => histories[scope.value])
const remove = (entry: DescribedDifference): void => {
  if (entry.origin !== 'engine' && entry.origin !== 'type') return
  scope.value = entry.origin
  void histories[entry.origin].change(listOf(entry.origin).filter((_, index) => index !== entry.index))
}
const origins = {
  figures: 'From the type’s figures',
  type: 'All of this type',
  fitted: 'From what is fitted',
  engine: 'This example',
} as const

/** Bringing in and giving out whole constructions. */
const file = ref<HTMLInputElement>()
const checked = ref<{
  name: string
  description: unknown
  problems: ReadonlyArray<{ place: string; message: string; fatal: boolean }>
} | null>(null)
const own = shallowRef<readonly TemplateTag[]>([])
const choosing = ref(false)
async function choose(): Promise<void> {
  own.value = await $fetch<TemplateTag[]>('/api/constructions').catch(() => [])
  choosing.value = true
}
async function pick(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const [picked] = input.files ?? []
  input.value = ''
  if (!picked) return
  try {
    const description = JSON.parse(await picked.text()) as { name?: unknown }
    const { problems } = await $fetch<{ problems: Array<{ place: string; message: string; fatal: boolean }> }>(
      '/api/constructions/check',
      { method: 'POST', body: description as Record<string, unknown> },
    )
    checked.value = {
      name: typeof description.name === 'string' ? cutText(description.name, 120) : picked.name,
      description,
      problems,
    }
  } catch (error) {
    const unreadable = error instanceof SyntaxError
    checked.value = {
      name: picked.name,
      description: null,
      problems: [
        {
          place: 'the file',
          message: unreadable
            ? 'This is not JSON: a construction is a file as this program gives one out.'
            : problemSentence(error),
          fatal: true,
        },
      ],
    }
  }
}
async function bringIn(): Promise<void> {
  if (!checked.value?.description) return
  const id = newId()
  await outbox.send('construction.save', {
    id,
    fields: { name: checked.value.name, description: plainCopy(checked.value.description) as never },
  })
  await useTemplate(id)
  checked.value = null
}
async function useTemplate(templateId: string | null): Promise<void> {
  const { type } = props.book
  choosing.value = false
  await outbox.send(
    'engine-type.adapt',
    { id: type.id, fields: { templateId, adaptations: plainCopy([...listOf('type')]) } },
    type,
    'construction',
  )
}
/** The construction itself: differences of type and example stay in the book. */
function giveOut(): void {
  const blob = new Blob([`${JSON.stringify(props.described.construction, null, 2)}\n`], { type: 'application/json' })
  const link = document.createElement('a')
  link.href = URL.createObjectURL(blob)
  link.download = `${props.described.construction.id}.construction.json`
  link.click()
  URL.revokeObjectURL(link.href)
}
const fatal = computed(() => checked.value?.problems.some((problem) => problem.fatal) ?? false)
</script>

<template>
  <section class="differences" aria-labelledby="differs">
    <div class="head">
      <h2 id="differs">How it is made</h2>
      <v-btn v-if="session.mayWrite" variant="outlined" @click="adding = true">Note a difference</v-btn>
    </div>
    <p>
      {{ described.construction.name }}<template v-if="book.type.templateId">, the shop’s own</template>.
      <span class="quiet">{{ described.construction.summary }}</span>
    </p>
    <p v-if="described.generic" class="sign sign--care">
      Nobody has said how this type is made: a generic machine stands in. Choose its construction under “Change the
      type”.
    </p>
    <p v-if="described.differences.length === 0" class="quiet">Nothing differs from that, as far as is noted.</p>
    <ul v-else class="ruled-list">
      <li v-for="entry in described.differences" :key="`${entry.origin}-${entry.index}`">
        <span class="label">{{ origins[entry.origin] }}</span>
        <span
          ><strong>{{ entry.words }}</strong
          ><span v-if="entry.problem" class="sign sign--fault problem">{{ entry.problem }}</span></span
        >
        <v-btn
          v-if="session.mayWrite && (entry.origin === 'engine' || entry.origin === 'type')"
          size="small"
          variant="outlined"
          :aria-label="`Take back: ${entry.words}`"
          @click="remove(entry)"
          >Take back</v-btn
        >
      </li>
    </ul>
    <div v-if="session.mayWrite" class="tools">
      <label class="label" for="scope">New differences count for</label>
      <select id="scope" v-model="scope">
        <option value="engine">this example</option>
        <option value="type">all of this type</option>
      </select>
      <v-btn variant="outlined" :disabled="!history.mayUndo.value" @click="history.undo()">Undo</v-btn>
      <v-btn variant="outlined" :disabled="!history.mayRedo.value" @click="history.redo()">Redo</v-btn>
    </div>
    <div class="tools">
      <v-btn variant="outlined" @click="giveOut">Save the construction as a file</v-btn>
      <template v-if="session.mayWrite">
        <v-btn variant="outlined" @click="file?.click()">Bring in a construction</v-btn
        ><input
          ref="file"
          type="file"
          accept="application/json,.json"
          class="hidden"
          aria-label="Construction file"
          @change="pick"
        />
        <v-btn variant="outlined" @click="choose">The shop’s own</v-btn>
      </template>
    </div>
    <DifferenceDialog
      v-model="adding"
      :description="described.description"
      :scope="scope === 'engine' ? 'this example' : 'the type'"
      @keep="history.change([...listOf(scope), $event])"
    />
    <v-dialog :model-value="checked !== null" max-width="640" @update:model-value="checked = null">
      <v-card v-if="checked" title="Bring in a construction">
        <v-card-text>
          <v-text-field v-model="checked.name" label="Its name here" />
          <p v-if="checked.problems.length === 0" class="sign sign--sound found">
            It is sound. The type will be made as it says.
          </p>
          <ul v-else class="ruled-list found">
            <li v-for="(problem, index) in checked.problems.slice(0, 12)" :key="index">
              <span class="sign" :class="problem.fatal ? 'sign--fault' : 'sign--care'">{{ problem.message }}</span><span
                class="quiet figure where"
                >{{ problem.place }}</span
              >
            </li>
          </ul>
          <p v-if="checked.problems.length > 12" class="quiet">{{ checked.problems.length - 12 }} more of the kind.</p>
        </v-card-text>
        <v-card-actions
          ><v-btn variant="outlined" @click="checked = null">Leave</v-btn><v-spacer /><v-btn
            color="primary"
            variant="flat"
            :disabled="fatal"
            @click="bringIn"
            >Bring it in for this type</v-btn
          ></v-card-actions
        >
      </v-card>
    </v-dialog>
    <v-dialog v-model="choosing" max-width="560">
      <v-card title="The shop’s own constructions">
        <v-card-text>
          <p v-if="own.length === 0" class="quiet">
            None yet. Save one as a file, change it, and bring it in; or bring in one from another shop.
          </p>
          <ul v-else class="ruled-list">
            <li v-for="entry in own" :key="entry.id" class="own">
              <strong>{{ entry.name }}</strong><v-btn size="small" variant="outlined" @click="useTemplate(entry.id)"
                >Use for this type</v-btn
              >
            </li>
          </ul>
        </v-card-text>
        <v-card-actions
          ><v-btn v-if="book.type.templateId" variant="outlined" @click="useTemplate(null)"
            >Back to the one that ships</v-btn
          ><v-spacer /><v-btn variant="outlined" @click="choosing = false">Leave</v-btn></v-card-actions
        >
      </v-card>
    </v-dialog>
  </section>
</template>

<style scoped>
.differences {
  display: grid;
  gap: 10px;
  margin-top: 18px;
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.ruled-list > li {
  display: grid;
  grid-template-columns: 130px 1fr max-content;
  gap: 12px;
  align-items: center;
}
.problem {
  display: flex;
  font-size: 0.9rem;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
select {
  min-height: var(--target);
  border: 0;
  border-bottom: 1px solid var(--steel);
  background: transparent;
  color: var(--ink);
  font: inherit;
}
select option {
  background: var(--sheet);
  color: var(--ink);
}
.hidden {
  position: absolute;
  opacity: 0;
  width: 1px;
  height: 1px;
}
.found {
  margin-top: 12px;
}
.found > li {
  grid-template-columns: 1fr;
  gap: 2px;
}
.where {
  font-size: 0.8rem;
}
.own {
  grid-template-columns: 1fr max-content !important;
}
</style>
