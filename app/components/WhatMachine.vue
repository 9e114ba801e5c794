<script setup lang="ts">
import { constructionPlans, describeConstruction } from '~~/core/knowledge/constructions'
import {
  currentTraits,
  motorTraits,
  wheelTraits,
  type ConstructionTraits,
} from '~~/core/knowledge/identify/construction-traits'
import { fittingConstructions, type SeenTraits } from '~~/core/knowledge/identify/fitting-constructions'
import { constructions, type Construction } from '~~/messages/vocabulary'
import { currentDrawings, motorDrawings, wheelDrawings, type TraitDrawing } from '~/drawing/trait-drawings'

/** What machine it is, by what a finger and an eye find out: three questions in small drawings, then the constructions left. */
const construction = defineModel<Construction>({ required: true })
const emit = defineEmits<{ choose: [construction: Construction] }>()
const seen = ref<SeenTraits>({})

interface Question {
  readonly id: keyof ConstructionTraits
  readonly words: string
  readonly against: string
  readonly answers: ReadonlyArray<{ readonly id: string; readonly words: string; readonly drawing: TraitDrawing }>
}
const answersOf = (words: Readonly<Record<string, string>>, drawings: Readonly<Record<string, TraitDrawing>>) =>
  Object.entries(words).map(([id, text]) => ({ id, words: text, drawing: drawings[id] as TraitDrawing }))
const questions: readonly Question[] = [
  {
    id: 'wheels',
    words: 'Which wheels resist a finger?',
    against: 'other wheels of it are driven',
    answers: answersOf(wheelTraits, wheelDrawings),
  },
  {
    id: 'motor',
    words: 'Where does the motor sit?',
    against: 'its motor sits elsewhere',
    answers: answersOf(motorTraits, motorDrawings),
  },
  {
    id: 'current',
    words: 'What carries the current? Seen from below.',
    against: 'its current goes another way',
    answers: answersOf(currentTraits, currentDrawings),
  },
]
const answered = computed(() => Object.values(seen.value).some((answer) => answer !== undefined))
const left = computed(() => (answered.value ? fittingConstructions(seen.value) : []))
const MOST_SHOWN = 6
function answer(question: Question['id'], id: string): void {
  seen.value = { ...seen.value, [question]: seen.value[question] === id ? undefined : id }
}
/** Answers that leave nothing are not offered: they still can be tapped, where an answer before was wrong. */
const dead = (question: Question['id'], id: string): boolean =>
  answered.value &&
  seen.value[question] !== id &&
  fittingConstructions({ ...seen.value, [question]: id }).every(({ against }) => against.length > 0)
const planOf = (id: string) => constructionPlans.find((plan) => plan.id === id)
const motorWords = (id: string): string => {
  const motor = describeConstruction(id).motors[0]
  if (!motor || motor.field) return ''
  return motor.opens ? 'Its brushes are to be seen.' : 'A closed can: no brush to be seen.'
}
const againstWords = (questionId: string): string => questions.find(({ id }) => id === questionId)?.against ?? ''
function choose(id: string): void {
  construction.value = id as Construction
  emit('choose', id as Construction)
}
</script>

<template>
  <div class="machine">
    <fieldset v-for="question in questions" :key="question.id">
      <legend class="label">{{ question.words }}</legend>
      <div class="answers">
        <button
          v-for="option in question.answers"
          :key="option.id"
          type="button"
          :aria-pressed="seen[question.id] === option.id"
          :class="{ dead: dead(question.id, option.id) }"
          @click="answer(question.id, option.id)"
        >
          <TraitPicture :drawing="option.drawing" /><span>{{ option.words }}</span>
        </button>
      </div>
    </fieldset>
    <div class="left" role="status">
      <p v-if="!answered" class="quiet">One answer is enough to begin with; what is not known is left out.</p>
      <p v-else-if="left.length === 0" class="sign sign--care">
        None that ships is like this. Take the nearest by its name below, and say what differs on the engine’s page.
      </p>
      <p v-else class="label">
        {{
          (left[0]?.against.length ?? 0) > 0
            ? `None is quite so; nearest: ${left.length}`
            : left.length === 1
              ? 'One is so'
              : `${left.length} are so`
        }}
      </p>
      <div class="found">
        <button
          v-for="entry in left.slice(0, MOST_SHOWN)"
          :key="entry.construction"
          type="button"
          :aria-pressed="construction === entry.construction"
          @click="choose(entry.construction)"
        >
          <b>{{ constructions[entry.construction as Construction] }}</b>
          <EngineDrawing
            :description="describeConstruction(entry.construction)"
            :off="new Set()"
            :in-hand="null"
            :title="constructions[entry.construction as Construction]"
            still
          />
          <span>{{ planOf(entry.construction)?.summary }}</span>
          <span v-if="motorWords(entry.construction)" class="quiet">{{ motorWords(entry.construction) }}</span>
          <span v-if="entry.against.length > 0" class="sign sign--care"
            >But {{ entry.against.map(againstWords).join(', and ') }}.</span
          >
        </button>
      </div>
      <p v-if="left.length > MOST_SHOWN" class="quiet">
        {{ left.length - MOST_SHOWN }} more: answer one more question.
      </p>
    </div>
  </div>
</template>

<style scoped>
.machine,
.left {
  display: grid;
  gap: 12px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
}
legend {
  padding: 0;
  margin-bottom: 4px;
}
.answers {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(126px, 1fr));
  gap: 6px;
}
.found {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(270px, 1fr));
  gap: 8px;
}
button {
  display: grid;
  gap: 6px;
  align-content: start;
  text-align: left;
  padding: 8px 10px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--paper);
  font-size: 0.88rem;
  line-height: 1.25;
}
.found button {
  font-size: 0.95rem;
  padding: 10px 12px;
}
button:hover {
  border-color: var(--brass);
}
[aria-pressed='true'] {
  border-color: var(--green);
  box-shadow: inset 0 -4px 0 var(--green);
}
.answers [aria-pressed='true'] {
  font-weight: 600;
}
.dead {
  color: var(--soft);
  border-style: dashed;
}
.dead :deep(svg) {
  opacity: 0.35;
}
@media (max-width: 600px) {
  .answers {
    grid-template-columns: repeat(auto-fill, minmax(104px, 1fr));
  }
}
</style>
