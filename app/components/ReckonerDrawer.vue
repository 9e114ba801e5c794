<script setup lang="ts">
import { findScale, scales, scaleSpeed } from '~~/core/measure/scales'
import { timedSpeed } from '~~/core/measure/timed-speed'
import { readTypedQuantity } from '~~/core/measure/typed-quantity'
import { describeFigure } from '~~/core/measure/significant-digits'
import { inUnit } from '~~/core/measure/measured-value'

/** The drawer of calculators: what a timed run means at full size. */
const { opened } = useReckoner()
const scaleId = ref('h0-87')
const distance = ref('1 m')
const duration = ref('')
const ratio = computed(() => findScale(scaleId.value)?.ratio ?? 87)
const errorOf = (kind: 'length' | 'duration', text: string): string[] => {
  if (text.trim() === '') return []
  const read = readTypedQuantity(kind, text)
  return read.ok ? [] : [read.error.message]
}
const result = computed(() => {
  const [length, time] = [readTypedQuantity('length', distance.value), readTypedQuantity('duration', duration.value)]
  if (!length.ok || !time.ok || length.quantity.value <= 0 || time.quantity.value <= 0) return null
  const speed = timedSpeed(length.quantity.value, [time.quantity.value], length.quantity.resolution)
  const full = scaleSpeed(1, ratio.value)
  return {
    model: describeFigure(inUnit(speed, 1000, 'mm/s')),
    kilometres: describeFigure(inUnit(speed, full.kilometresPerHour, 'km/h')),
    miles: describeFigure(inUnit(speed, full.milesPerHour, 'mph')),
  }
})
</script>

<template>
  <v-navigation-drawer v-model="opened" location="right" temporary width="360" class="drawer">
    <section v-if="opened" class="inside" aria-label="Reckoner">
      <div class="head">
        <h2>Scale speed</h2>
        <button type="button" class="close" aria-label="Close the reckoner" @click="opened = false">
          Close <kbd>K</kbd>
        </button>
      </div>
      <v-select
        v-model="scaleId"
        :items="scales.map((scale) => ({ value: scale.id, title: scale.name }))"
        label="Scale"
      />
      <v-text-field v-model="distance" label="Distance (mm, cm, m, in)" :error-messages="errorOf('length', distance)" />
      <v-text-field
        v-model="duration"
        label="Time (s)"
        inputmode="decimal"
        :error-messages="errorOf('duration', duration)"
      />
      <dl v-if="result" aria-live="polite">
        <dt class="label">Full size</dt>
        <dd class="numeral">{{ result.kilometres }}</dd>
        <dt class="label">or</dt>
        <dd class="figure">{{ result.miles }}</dd>
        <dt class="label">The model itself</dt>
        <dd class="figure">{{ result.model }}</dd>
      </dl>
      <p v-else class="quiet">Type the time over the distance; the ± is the thumb on the stopwatch.</p>
    </section>
  </v-navigation-drawer>
</template>

<style scoped>
.inside {
  padding: 16px 20px;
  display: grid;
  gap: 10px;
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.close {
  min-height: var(--target);
  color: var(--soft);
  font-weight: 550;
}
dl {
  margin: 12px 0 0;
}
dd {
  margin: 0 0 10px;
}
.numeral {
  font-size: 26px;
}
.drawer {
  background: var(--sheet) !important;
  color: var(--ink);
}
</style>
