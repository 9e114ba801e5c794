<script setup lang="ts">
import { products } from '~~/core/care/lubrication-card'
import { atStart, inSentence } from '~~/core/engine/name-in-sentence'
import { materials } from '~~/core/engine/description-schema'
import { careKnowledge } from '~~/core/knowledge/care/care-knowledge'
import { cleaningSubjects, levels, type CleaningSubject, type Level } from '~~/core/knowledge/care/care-schema'
import {
  checkOwnCareRows,
  noCareRows,
  ownCareKnowledge,
  type OwnCareRows,
  type OwnRule,
  type OwnWay,
} from '~~/core/knowledge/care/own-care-rows'

/** What is done otherwise here than what ships says: what harms, what is taken first, what goes where. */
const rows = defineModel<OwnCareRows | null | undefined>({ required: true })
defineProps<{ disabled?: boolean }>()
const own = computed(() => rows.value ?? noCareRows)
const { agents, methods, soils } = careKnowledge
const wordsOf = (id: string): string =>
  [...agents, ...methods, ...soils].find((row) => row.id === id)?.words ?? id.replaceAll('-', ' ')
const named = (list: ReadonlyArray<{ readonly id: string; readonly words: string }>) =>
  list.map(({ id, words }) => ({ value: id, title: atStart(words) }))
// Made once: lists made anew at every drawing are lost under a hand that chooses while an answer of the server arrives.
const soilItems = named(soils)
const methodItems = named(methods)
const whatItems = [...named(agents), ...named(methods)]
const material = (id: string): string => id.replaceAll('-', ' ')

const NOTHING = 'nothing'
const agentItems = [{ value: NOTHING, title: 'Nothing, dry' }, ...named(agents)]
const subjectItems = Object.entries(cleaningSubjects).map(([value, title]) => ({ value, title }))
/** “material:abs” or “subject:treads”: one list for what it is made of and what it is. */
const surfaces = [
  ...Object.entries(cleaningSubjects).map(([id, title]) => ({ value: `subject:${id}`, title })),
  ...materials.map((id) => ({ value: `material:${id}`, title: `${atStart(material(id))} (material)` })),
]
const rule = reactive({ what: null as string | null, on: null as string | null, level: 'never' as Level, why: '' })
const way = reactive({
  soil: null as string | null,
  subject: null as CleaningSubject | null,
  agent: NOTHING,
  method: null as string | null,
})
const flawsOf = (candidate: OwnCareRows) =>
  checkOwnCareRows(
    careKnowledge,
    candidate,
    products.map((product) => product.id),
  )
const flaws = computed(() => flawsOf(own.value))
/** Why what was just entered is not taken; empty where it was. */
const refused = ref('')
/** Takes rows that hold together; what does not is said, and stays in its fields. */
function take(candidate: OwnCareRows): boolean {
  const known = new Set(flaws.value.map((flaw) => flaw.message))
  refused.value = flawsOf(candidate).find((flaw) => !known.has(flaw.message))?.message ?? ''
  if (refused.value) return false
  rows.value = candidate
  return true
}
/** What ships as never stays at least “with care”: said where somebody softens it. */
const laid = computed(() => ownCareKnowledge(careKnowledge, [own.value]))
const heldAt = ({ what, material: of, subject }: OwnRule): Level | undefined =>
  of === null
    ? laid.value.subjectRules.find((row) => row.what === what && row.subject === subject)?.level
    : laid.value.materialRules.find((row) => row.what === what && row.material === of)?.level
const flawOf = (list: keyof OwnCareRows, index: number): string =>
  flaws.value.find((flaw) => flaw.place === `${list}.${index}`)?.message ?? ''

function addRule(): void {
  const [kind, id] = (rule.on ?? '').split(':')
  if (!rule.what || !id || !rule.why.trim()) return
  const next = {
    what: rule.what,
    material: kind === 'material' ? (id as OwnRule['material']) : null,
    subject: kind === 'subject' ? (id as CleaningSubject) : null,
    level: rule.level,
    why: rule.why.trim(),
  }
  const others = own.value.rules.filter(
    (row) => row.what !== next.what || row.material !== next.material || row.subject !== next.subject,
  )
  if (take({ ...own.value, rules: [...others, next] })) Object.assign(rule, { what: null, on: null, why: '' })
}
function addWay(): void {
  const { soil, subject, agent, method } = way
  if (!soil || !subject || !method) return
  const others = own.value.ways.filter((row) => row.soil !== soil || row.subject !== subject)
  const next = { soil, subject, agent: agent === NOTHING ? null : agent, method }
  if (take({ ...own.value, ways: [...others, next] }))
    Object.assign(way, { soil: null, subject: null, agent: NOTHING, method: null })
}
const without = (change: Partial<OwnCareRows>): void => void (rows.value = { ...own.value, ...change })
const wayWords = ({ agent, method }: OwnWay): string =>
  [agent === null ? '' : wordsOf(agent), wordsOf(method)].filter(Boolean).join(', ')
</script>

<template>
  <div class="own">
    <section v-if="!disabled || own.rules.length > 0" aria-label="What harms here, and what does not">
      <h3>What harms, what does not</h3>
      <ul v-if="own.rules.length > 0" class="ruled-list">
        <li v-for="(row, index) in own.rules" :key="`${row.what} ${row.material} ${row.subject}`">
          <span class="level" :class="heldAt(row)">{{ levels[heldAt(row) ?? row.level] }}</span>
          <span
            ><b>{{ atStart(wordsOf(row.what)) }}</b> on
            {{
              row.material ? material(row.material) : row.subject ? cleaningSubjects[row.subject].toLowerCase() : ''
            }}:
            {{ inSentence(row.why) }}
            <span v-if="heldAt(row) !== row.level" class="quiet"
              >Elsewhere it is never taken, so with care at most.</span
            >
            <span v-if="flawOf('rules', index)" class="sign sign--fault">{{ flawOf('rules', index) }}</span></span
          >
          <button
            v-if="!disabled"
            type="button"
            class="plain"
            @click="without({ rules: own.rules.filter((other) => other !== row) })"
          >
            Take off
          </button>
        </li>
      </ul>
      <div v-if="!disabled" class="add add--rule">
        <v-autocomplete v-model="rule.what" :items="whatItems" label="Agent or tool" />
        <v-autocomplete v-model="rule.on" :items="surfaces" label="On what" />
        <v-select
          v-model="rule.level"
          :items="Object.entries(levels).map(([value, title]) => ({ value, title: atStart(title) }))"
          label="Is"
        />
        <v-text-field v-model="rule.why" label="Because" maxlength="200" @keydown.enter.prevent="addRule" />
        <v-btn variant="outlined" :disabled="!rule.what || !rule.on || !rule.why.trim()" @click="addRule">Add</v-btn>
      </div>
    </section>
    <section v-if="!disabled || own.ways.length > 0" aria-label="What is taken first">
      <h3>What is taken first</h3>
      <ul v-if="own.ways.length > 0" class="ruled-list">
        <li v-for="(row, index) in own.ways" :key="`${row.soil} ${row.subject}`">
          <span class="level">first</span>
          <span
            ><b>{{ atStart(wayWords(row)) }}</b> against {{ wordsOf(row.soil) }} on
            {{ cleaningSubjects[row.subject].toLowerCase() }}
            <span v-if="flawOf('ways', index)" class="sign sign--fault">{{ flawOf('ways', index) }}</span></span
          >
          <button
            v-if="!disabled"
            type="button"
            class="plain"
            @click="without({ ways: own.ways.filter((other) => other !== row) })"
          >
            Take off
          </button>
        </li>
      </ul>
      <div v-if="!disabled" class="add add--way">
        <v-autocomplete v-model="way.soil" :items="soilItems" label="Against" />
        <v-autocomplete v-model="way.subject" :items="subjectItems" label="On which surface" />
        <v-autocomplete v-model="way.agent" :items="agentItems" label="Agent" />
        <v-autocomplete v-model="way.method" :items="methodItems" label="Tool" />
        <v-btn variant="outlined" :disabled="!way.soil || !way.subject || !way.method" @click="addWay">Add</v-btn>
      </div>
    </section>
    <p v-if="refused" class="sign sign--fault" role="alert">{{ refused }}</p>
    <PointAmountsForm
      v-if="!disabled || own.amounts.length > 0"
      :model-value="own.amounts"
      label="What goes where"
      :disabled="disabled"
      @update:model-value="without({ amounts: $event ?? [] })"
    />
  </div>
</template>

<style scoped>
.own {
  display: grid;
  gap: 18px;
  grid-template-columns: minmax(0, 1fr);
  container-type: inline-size;
  letter-spacing: normal;
}
h3,
.own :deep(.advice > .label) {
  font-size: 1rem;
  font-weight: 600;
  color: var(--ink);
  padding-bottom: 6px;
}
li {
  display: grid;
  grid-template-columns: 76px minmax(0, 1fr) max-content;
  gap: 12px;
  align-items: center;
  min-height: var(--target);
}
.level {
  font-weight: 650;
  color: var(--sound-ink);
}
.level.care {
  color: var(--amber-ink);
}
.level.never {
  color: var(--red);
}
.add {
  display: grid;
  gap: 6px 14px;
  align-items: end;
}
.add--rule {
  grid-template-columns: 1fr 1fr 116px 1.3fr max-content;
}
.add--way {
  grid-template-columns: 1fr 1fr 1fr 1fr max-content;
}
@container (max-width: 900px) {
  .add--rule,
  .add--way {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }
}
@container (max-width: 560px) {
  .add--rule,
  .add--way {
    grid-template-columns: minmax(0, 1fr);
  }
  li {
    grid-template-columns: 64px minmax(0, 1fr);
  }
}
</style>
