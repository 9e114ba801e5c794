<script setup lang="ts">
import { readTypedQuantity } from '~~/core/measure/typed-quantity'
import type { SheetRow } from '~~/messages/book'
import type { SheetFields } from '~~/messages/bench-entries'
import { supplies } from '~~/messages/vocabulary'

/** Under which conditions the sheet was taken: without them no two sheets can be compared. */
const props = defineProps<{ sheet: SheetRow; power: 'dc' | 'ac' | 'dcc' }>()
const emit = defineEmits<{ change: [fields: Partial<SheetFields>] }>()
const session = useSessionStore()
const workshop = useWorkshopStore()
const celsius = ref(props.sheet.roomCelsius?.toString() ?? '')
watch(
  () => props.sheet.roomCelsius,
  (value) => {
    celsius.value = value?.toString() ?? ''
  },
)
const reading = computed(() => readTypedQuantity('temperature', celsius.value))
const problem = computed(() =>
  reading.value.ok || reading.value.error.code === 'empty' ? '' : reading.value.error.message,
)
const meterItems = (quantity: 'voltage' | 'current') => [
  { value: null, title: 'Not known: ±(1 % + 1 digit)' },
  ...workshop
    .metersFor(quantity)
    .map((meter) => ({ value: meter.id, title: `${meter.name}, ±(${meter.percentOfReading} % + ${meter.digits})` })),
]
const smooth = computed(
  () =>
    !props.sheet.withMeter ||
    props.power !== 'dc' ||
    props.sheet.supply === 'smooth-dc' ||
    props.sheet.supply === 'battery',
)

function keepCelsius(): void {
  if (problem.value) return
  const value = reading.value.ok ? reading.value.quantity.value : null
  if (value !== props.sheet.roomCelsius) emit('change', { roomCelsius: value })
}
</script>

<template>
  <details class="conditions" :open="sheet.roomCelsius === null && sheet.withMeter">
    <summary>
      <span class="label">Conditions</span>
      <span>{{
        [
          supplies[sheet.supply],
          sheet.roomCelsius === null ? 'temperature not noted' : `${sheet.roomCelsius} °C`,
          sheet.warmedUp ? 'warmed up' : 'cold',
        ].join(', ')
      }}</span>
    </summary>
    <div class="fields">
      <v-select
        :model-value="sheet.supply"
        :items="Object.entries(supplies).map(([value, title]) => ({ value, title }))"
        label="Supply"
        :disabled="!session.mayWrite"
        @update:model-value="emit('change', { supply: $event })"
      />
      <v-text-field
        v-model="celsius"
        label="Room (°C)"
        inputmode="decimal"
        :readonly="!session.mayWrite"
        :error-messages="problem ? [problem] : []"
        @change="keepCelsius"
        @keydown.enter="keepCelsius"
      />
      <v-checkbox
        :model-value="sheet.warmedUp"
        label="Warmed up by running"
        :disabled="!session.mayWrite"
        @update:model-value="emit('change', { warmedUp: Boolean($event) })"
      />
      <template v-if="sheet.withMeter">
        <v-select
          :model-value="sheet.voltageMeterId"
          :items="meterItems('voltage')"
          label="Volts read on"
          :disabled="!session.mayWrite"
          @update:model-value="emit('change', { voltageMeterId: $event })"
        />
        <v-select
          :model-value="sheet.currentMeterId"
          :items="meterItems('current')"
          label="Amps read on"
          :disabled="!session.mayWrite"
          @update:model-value="emit('change', { currentMeterId: $event })"
        />
      </template>
    </div>
    <p v-if="sheet.warmedUp" class="quiet">
      A winding warmed by running has a temperature nobody measured: nothing is referred to 20 °C.
    </p>
  </details>
  <p v-if="!smooth" class="caution">
    A pulsed or rectified supply shows a meter something other than the motor feels. Use a bench supply or a battery
    where you can.
  </p>
</template>

<style scoped>
.conditions {
  border-bottom: 1px solid var(--rule);
  padding-bottom: 8px;
}
summary {
  cursor: pointer;
  min-height: 34px;
  display: flex;
  align-items: center;
  gap: 12px;
}
summary .label {
  flex: none;
}
</style>
