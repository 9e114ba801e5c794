<script setup lang="ts">
import { nameInGeneral } from '~~/work/name-in-general'
import type { KnowledgeList } from '~~/core/knowledge/knowledge-changes'
import {
  LIGHT_SHARE,
  STUCK_TIMES,
  type Fault,
  type Knowledge,
  type Remedy,
  type Test,
} from '~~/core/knowledge/knowledge-schema'

/** One row of the knowledge, to be changed for a type: its figures, and for a fault the signs it gives. */
const props = defineProps<{
  list: KnowledgeList
  row: Fault | Test | Remedy
  asNew: boolean
  knowledge: Knowledge
  ships: boolean
}>()
const emit = defineEmits<{ keep: [Fault | Test | Remedy]; leave: []; leaveOut: []; asNew: [] }>()

const asFault = computed(() => (props.list === 'faults' ? (props.row as Fault) : null))
const asTest = computed(() => (props.list === 'tests' ? (props.row as Test) : null))
const asRemedy = computed(() => (props.list === 'remedies' ? (props.row as Remedy) : null))
const drags = computed(() =>
  asFault.value?.effect.kind === 'drag' && asFault.value.effect.times < STUCK_TIMES ? asFault.value.effect : null,
)
const shown = (chance: number): string => String(Number((chance * 100).toPrecision(3)))
const name = ref('')
const source = ref('')
const figures = ref<Record<'chance' | 'minutes', string>>({ chance: '', minutes: '' })
/** Of a fault that drags: how often so little that nothing shows in the running. */
const light = ref('')
const remedy = ref('')
const caution = ref('')
const how = ref('')
const parts = ref('')
const products = ref('')
const signs = ref<Array<{ test: string; outcome: string; chance: string; seen?: boolean }>>([])
watch(
  () => [props.row, props.asNew] as const,
  () => {
    name.value = props.row.name
    source.value = props.row.source
    const [fault, test, mend] = [asFault.value, asTest.value, asRemedy.value]
    figures.value = {
      chance: shown(fault?.prior ?? test?.misread ?? mend?.success ?? 0),
      minutes: String(test?.minutes ?? mend?.minutes ?? ''),
    }
    light.value = shown(drags.value?.light ?? LIGHT_SHARE)
    remedy.value = fault?.remedy ?? ''
    caution.value = test?.caution ?? mend?.caution ?? ''
    how.value = test?.how ?? ''
    parts.value = mend?.parts.join(', ') ?? ''
    products.value = mend?.products.join(', ') ?? ''
    signs.value = (fault?.signs ?? []).map((sign) => ({ ...sign, chance: shown(sign.chance) }))
  },
  { immediate: true },
)

const read = (text: string): number =>
  text.trim() === '' ? Number.NaN : Number(text.replace(',', '.').replace('%', ''))
const words = (text: string): string[] =>
  text
    .split(',')
    .map((part) => part.trim())
    .filter(Boolean)
const signTests = computed(() =>
  props.knowledge.tests
    .filter((test) => test.reading.kind === 'signs')
    .map((test) => ({ value: test.id, title: nameInGeneral(test) })),
)
const outcomesOf = (id: string) =>
  (props.knowledge.tests.find((test) => test.id === id)?.outcomes.slice(1) ?? []).map((outcome) => ({
    value: outcome.id,
    title: outcome.name,
  }))
const chanceLabel = computed(() =>
  asFault.value ? 'Chance at one place (%)' : asTest.value ? 'Misread (%)' : 'Takes hold (%)',
)
const bounds = computed<readonly [number, number]>(() =>
  asFault.value ? [0.01, 50] : asTest.value ? [0.1, 40] : [1, 100],
)
const problems = computed(() => {
  const found: string[] = []
  const [low, high] = bounds.value
  if (!name.value.trim()) found.push('The row needs a name.')
  if (!source.value.trim()) found.push('Say where it is from: a leaflet, this shop’s jobs, from memory.')
  if (!(read(figures.value.chance) >= low && read(figures.value.chance) <= high))
    found.push(`${chanceLabel.value.replace(' (%)', '')} lies between ${low} and ${high} %.`)
  if (
    !asFault.value &&
    !(
      read(figures.value.minutes) >= (asTest.value ? 0.1 : 0) &&
      read(figures.value.minutes) <= (asTest.value ? 240 : 600)
    )
  )
    found.push(`Minutes lie between ${asTest.value ? '0.1 and 240' : '0 and 600'}.`)
  if (drags.value && !(read(light.value) >= 0 && read(light.value) <= 95))
    found.push('Too slight to show lies between 0 and 95 %.')
  for (const sign of signs.value) {
    if (!sign.test || !outcomesOf(sign.test).some((outcome) => outcome.value === sign.outcome))
      found.push('Every sign names a test and one of its outcomes.')
    else if (!(read(sign.chance) >= 0.1 && read(sign.chance) <= 100))
      found.push('How often a sign shows lies between 0.1 and 100 %.')
  }
  return [...new Set(found)]
})
const newId = computed(() => {
  const stem =
    name.value
      .toLowerCase()
      .replaceAll(/[^a-z0-9]+/g, '-')
      .replaceAll(/^-|-$/g, '')
      .slice(0, 40) || 'own-row'
  const taken = new Set((props.knowledge[props.list] as ReadonlyArray<{ id: string }>).map((row) => row.id))
  for (let count = 1; ; count++)
    if (!taken.has(count === 1 ? stem : `${stem}-${count}`)) return count === 1 ? stem : `${stem}-${count}`
})
function keep(): void {
  if (problems.value.length > 0) return
  const head = { id: props.asNew ? newId.value : props.row.id, name: name.value.trim(), source: source.value.trim() }
  const chance = Number((read(figures.value.chance) / 100).toPrecision(6))
  const minutes = read(figures.value.minutes)
  if (asFault.value)
    emit('keep', {
      ...asFault.value,
      ...head,
      prior: chance,
      ...(drags.value ? { effect: { ...drags.value, light: Number((read(light.value) / 100).toPrecision(6)) } } : {}),
      remedy: remedy.value,
      signs: signs.value.map((sign) => ({
        test: sign.test,
        outcome: sign.outcome,
        chance: Number((read(sign.chance) / 100).toPrecision(6)),
        ...(sign.seen === undefined ? {} : { seen: sign.seen }),
      })),
    })
  else if (asTest.value)
    emit('keep', {
      ...asTest.value,
      ...head,
      misread: chance,
      minutes,
      how: how.value.trim() || asTest.value.how,
      caution: caution.value.trim(),
    })
  else if (asRemedy.value)
    emit('keep', {
      ...asRemedy.value,
      ...head,
      success: chance,
      minutes,
      parts: words(parts.value).slice(0, 6),
      products: words(products.value).slice(0, 6),
      caution: caution.value.trim(),
    })
}
</script>

<template>
  <v-dialog :model-value="true" max-width="760" scrollable @update:model-value="emit('leave')">
    <v-card :title="asNew ? 'A row of its own' : asFault ? 'Fault' : asTest ? 'Test' : 'Remedy'">
      <v-card-text class="fields">
        <v-text-field
          v-model="name"
          label="In words"
          class="wide"
          hint="{place} stands for where it is"
          persistent-hint
        />
        <v-text-field v-model="figures.chance" :label="chanceLabel" inputmode="decimal" />
        <v-text-field v-if="drags" v-model="light" label="Too slight to show (%)" inputmode="decimal" />
        <v-text-field v-if="!asFault" v-model="figures.minutes" label="Minutes" inputmode="decimal" />
        <v-select
          v-if="asFault"
          v-model="remedy"
          label="Mended by"
          :items="knowledge.remedies.map((entry) => ({ value: entry.id, title: entry.name }))"
        />
        <v-textarea v-if="asTest" v-model="how" label="What to do and where to touch" rows="2" class="wide" />
        <v-text-field v-if="asRemedy" v-model="parts" label="Parts, with commas between" class="wide" />
        <v-text-field v-if="asRemedy" v-model="products" label="Products, with commas between" class="wide" />
        <v-text-field v-if="!asFault" v-model="caution" label="Caution" class="wide" />
        <fieldset v-if="asFault" class="wide signs">
          <legend class="label">Signs it gives</legend>
          <div v-for="(sign, index) in signs" :key="index" class="sign-row">
            <v-select v-model="sign.test" :items="signTests" label="At" /><v-select
              v-model="sign.outcome"
              :items="outcomesOf(sign.test)"
              label="Shows"
            /><v-text-field v-model="sign.chance" label="How often (%)" inputmode="decimal" />
            <button
              type="button"
              class="plain"
              :aria-label="`Take away sign ${index + 1}`"
              @click="signs.splice(index, 1)"
            >
              Take away
            </button>
          </div>
          <button
            v-if="signs.length < 16"
            type="button"
            class="plain"
            @click="signs.push({ test: signTests[0]?.value ?? '', outcome: '', chance: '50' })"
          >
            One more sign
          </button>
          <p class="quiet">
            What circuit and drive show of it follows from the engine’s own description and is not asked here.
          </p>
        </fieldset>
        <v-text-field v-model="source" label="Where this is from" class="wide" />
        <p v-for="problem in problems" :key="problem" class="wide sign sign--care">{{ problem }}</p>
      </v-card-text>
      <v-card-actions class="acts">
        <v-btn variant="outlined" @click="emit('leave')">Leave</v-btn>
        <button v-if="!asNew" type="button" class="plain" @click="emit('leaveOut')">
          {{ ships ? 'Leave out of this type' : 'Take away' }}
        </button>
        <button v-if="!asNew" type="button" class="plain" @click="emit('asNew')">Copy as a new row</button>
        <v-spacer /><v-btn color="primary" variant="flat" :disabled="problems.length > 0" @click="keep">Keep</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.signs {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 8px;
}
.sign-row {
  display: grid;
  grid-template-columns: minmax(0, 1.4fr) minmax(0, 1.2fr) 120px max-content;
  gap: 10px;
  align-items: center;
}
.plain {
  font-weight: 600;
  color: var(--green);
  min-height: var(--target);
  justify-self: start;
}
.acts {
  gap: 14px;
  flex-wrap: wrap;
}
@media (max-width: 600px) {
  .sign-row {
    grid-template-columns: minmax(0, 1fr) 110px;
  }
}
</style>
