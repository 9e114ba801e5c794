<script setup lang="ts">
import { gauges, scales } from '~~/core/measure/scales'
import type { EngineTypeFields } from '~~/messages/book-entries'
import { constructions, motorKinds, powers, type Construction } from '~~/messages/vocabulary'

/** A type of engine: what all its examples have in common. Gauge and scale are asked apart. */
const fields = defineModel<EngineTypeFields>({ required: true })
defineProps<{ problems?: Readonly<Record<string, string>> }>()
const items = (values: Readonly<Record<string, string>>) =>
  Object.entries(values).map(([value, title]) => ({ value, title }))

const ownOpen = ref(false)
/** Motor and power go with the construction that was recognised, as far as nobody has said otherwise. */
async function takeFrom(id: Construction): Promise<void> {
  const { describeConstruction } = await import('~~/core/knowledge/constructions')
  const { power, motors } = describeConstruction(id)
  const [motor] = motors
  if (power === 'ac') fields.value.power = 'ac'
  else if (fields.value.power === 'ac') fields.value.power = 'dc'
  if (motor && fields.value.motorKind === 'unknown') fields.value.motorKind = motor.kind
}
</script>

<template>
  <div class="fields">
    <v-text-field v-model="fields.maker" v-focus-first label="Maker" :error-messages="problems?.maker" />
    <v-text-field v-model="fields.name" label="Type" :error-messages="problems?.name" />
    <v-text-field v-model="fields.variantMarks" label="Marks of the variant" :error-messages="problems?.variantMarks" />
    <v-text-field v-model="fields.yearsMade" label="Years made" :error-messages="problems?.yearsMade" />
    <v-select
      v-model="fields.gaugeMm"
      :items="[
        { value: null, title: 'Not known' },
        ...gauges.map((gauge) => ({ value: gauge.millimetres, title: gauge.name })),
      ]"
      label="Gauge, between the rails"
    />
    <v-select
      v-model="fields.scaleId"
      :items="[{ value: null, title: 'Not known' }, ...scales.map((scale) => ({ value: scale.id, title: scale.name }))]"
      label="Scale, size of the model"
    />
    <v-select v-model="fields.power" :items="items(powers)" label="Power" />
    <NumberField
      :model-value="fields.nominalVolts"
      label="Made for (V)"
      needed
      :problem="problems?.nominalVolts"
      @update:model-value="fields.nominalVolts = $event ?? fields.nominalVolts"
    />
    <LazyWhatMachine v-model="fields.construction" class="wide" @choose="takeFrom" />
    <v-select v-model="fields.construction" :items="items(constructions)" label="Construction" class="wide" />
    <v-select v-model="fields.motorKind" :items="items(motorKinds)" label="Motor" />
    <NumberField v-model="fields.poles" label="Poles" whole :problem="problems?.poles" />
    <NumberField v-model="fields.gearRatio" label="Motor turns per wheel turn" :problem="problems?.gearRatio" />
    <NumberField
      v-model="fields.wheelDiameterMm"
      label="Driven wheel diameter (mm)"
      :problem="problems?.wheelDiameterMm"
    />
    <v-text-field
      v-model="fields.pickupLayout"
      label="Pickup layout"
      class="wide"
      placeholder="Locomotive collects right, tender left; wipers on wheel backs"
      :error-messages="problems?.pickupLayout"
    />
    <FormRest :problems="problems" />
    <LazyPointAmountsForm v-model="fields.makersAdvice" label="The maker’s own word on oil and grease" class="wide" />
    <details class="wide" @toggle="ownOpen = ($event.target as HTMLDetailsElement).open">
      <summary>Cleaned or oiled otherwise than usual</summary>
      <LazyOwnCareRows v-if="ownOpen" v-model="fields.careRows" />
    </details>
    <v-textarea
      v-model="fields.notes"
      label="To be noted of every one, a line each"
      rows="2"
      auto-grow
      class="wide"
      :error-messages="problems?.notes"
    />
  </div>
</template>

<style scoped>
summary {
  padding: 12px 0;
  font-weight: 600;
  letter-spacing: normal;
  cursor: pointer;
}
</style>
