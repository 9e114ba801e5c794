<script setup lang="ts">
import { v7 as newId } from 'uuid'
import type { EngineFields } from '~~/messages/book-entries'

/** This example: what sets it apart from the others of its type. */
const fields = defineModel<Omit<EngineFields, 'ownerId' | 'typeId'>>({ required: true })
defineProps<{ problems?: Readonly<Record<string, string>> }>()
function addUnit(): void {
  fields.value.units = [...fields.value.units, { id: newId(), name: '', powered: false, marks: '' }]
}
</script>

<template>
  <div class="fields">
    <v-text-field
      v-model="fields.nickname"
      v-focus-first
      label="Nickname at the bench"
      :error-messages="problems?.nickname"
    />
    <v-text-field v-model="fields.runningNumber" label="Running number" :error-messages="problems?.runningNumber" />
    <v-text-field
      v-model="fields.marks"
      label="Marks: repaint, damage, labels"
      class="wide"
      :error-messages="problems?.marks"
    />
    <v-textarea
      v-model="fields.history"
      label="History: last run, stored where, run where, who worked on it"
      class="wide"
      :error-messages="problems?.history"
    />
    <v-textarea
      v-model="fields.differences"
      label="Differs from its type: motor, wheels, added pickups"
      class="wide"
      :error-messages="problems?.differences"
    />
    <div class="wide units">
      <span class="label">Units</span>
      <FormRest :problems="problems" />
      <div v-for="unit in fields.units" :key="unit.id" class="unit">
        <v-text-field v-model="unit.name" label="Unit" placeholder="Locomotive, tender, trailer" />
        <v-checkbox v-model="unit.powered" label="Powered" />
        <v-text-field v-model="unit.marks" label="Marks" />
        <v-btn
          v-if="fields.units.length > 1"
          variant="outlined"
          @click="fields.units = fields.units.filter((other) => other.id !== unit.id)"
          >Take off</v-btn
        >
      </div>
      <v-btn variant="outlined" class="add" @click="addUnit">Add a unit</v-btn>
    </div>
  </div>
</template>

<style scoped>
.units > .label {
  display: block;
  margin: 8px 0 2px;
}
.unit {
  display: grid;
  grid-template-columns: 1fr max-content 1fr max-content;
  gap: 16px;
  align-items: end;
}
.add {
  margin-top: 8px;
  justify-self: start;
}
@media (max-width: 600px) {
  .unit {
    grid-template-columns: 1fr;
  }
}
</style>
