<script setup lang="ts">
import type { EngineDescription } from '~~/core/engine/description-schema'
import { inSentence } from '~~/core/engine/name-in-sentence'
import type { JobBook } from '~~/messages/book'

/** A motor taken for closed that opens after all: said here, and its brushes and commutator can be looked at. */
const props = defineProps<{ book: JobBook; description: EngineDescription }>()
const teach = useTeachDifference(toRef(props, 'book'))
const closedMotors = computed(() => props.description.motors.filter((motor) => !motor.opens && motor.field === null))
/** Judged; how it is held in truth is put right on the engine’s page. */
const usual = { kind: 'opened', heldBy: 'tongues bent over its edge', minutes: 3 } as const
const opens = (motor: string, scope: 'engine' | 'type'): void => void teach({ ...usual, motor }, scope)
</script>

<template>
  <p v-for="motor in closedMotors" :key="motor.id" class="quiet opens">
    <span>The {{ inSentence(motor.name) }} is taken for closed: nothing is asked of its brushes and commutator.</span>
    <button type="button" class="plain" @click="opens(motor.id, 'engine')">This one opens</button>
    <button type="button" class="plain" @click="opens(motor.id, 'type')">Every one of this type opens</button>
  </p>
</template>

<style scoped>
.opens {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
}
.opens > span {
  flex-basis: 100%;
}
</style>
