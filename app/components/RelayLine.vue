<script setup lang="ts">
import { judgeRelay, type MeanVolts } from '~~/core/motor/relay-account'
import type { ReadingRow } from '~~/messages/book'
import { relayReadings } from '~~/work/relay-lines'

/** A relay on a scale of volts: where it lets go, where it pulls in, each repeat a mark, and what that means. */
const props = defineProps<{ lines: readonly ReadingRow[] }>()
const readings = computed(() => relayReadings(props.lines))
const account = computed(() => (readings.value ? judgeRelay(readings.value) : null))
const inWords = ({ mean, halfWidth }: MeanVolts): string =>
  `${mean.toFixed(2)}\u00A0±\u00A0${halfWidth.toFixed(2)}\u00A0V`
const most = computed(() => Math.ceil(Math.max(6, 1.4 * Math.max(0, ...(readings.value?.pullInVolts ?? [])))))
const WIDTH = 420
const x = (volts: number): number => 14 + ((WIDTH - 28) * volts) / most.value
const ticks = computed(() => Array.from({ length: most.value + 1 }, (_, volts) => volts))
const letsGo = computed(() => (readings.value?.dropOutVolts ?? []).flatMap((volts) => volts ?? []))
</script>

<template>
  <section v-if="account && readings" class="relay" aria-label="Relay">
    <h3>Relay</h3>
    <p v-if="account.sound" class="sign sign--sound">It pulls in and lets go as it should, and AC leaves it at rest.</p>
    <p v-for="sentence in account.says" :key="sentence" class="sign sign--fault">{{ sentence }}</p>
    <template v-if="account.pullIn">
      <svg
        :viewBox="`0 0 ${WIDTH} 66`"
        role="img"
        :aria-label="`Pulls in at ${inWords(account.pullIn)}${account.dropOut ? `, lets go at ${inWords(account.dropOut)}` : ', does not let go'}`"
      >
        <rect
          v-if="account.dropOut"
          class="keeps"
          :x="x(account.dropOut.mean)"
          y="20"
          :width="x(account.pullIn.mean) - x(account.dropOut.mean)"
          height="16"
        />
        <rect
          class="pulled"
          :x="x(account.pullIn.mean)"
          y="20"
          :width="WIDTH - 14 - x(account.pullIn.mean)"
          height="16"
        />
        <path class="scale" :d="`M14,42 H${WIDTH - 14} ${ticks.map((volts) => `M${x(volts)},42 v5`).join(' ')}`" />
        <text v-for="volts in ticks" :key="volts" class="tick" :x="x(volts)" y="60" text-anchor="middle">
          {{ volts }}{{ volts === most ? ' V' : '' }}
        </text>
        <path
          v-for="(volts, index) in readings.pullInVolts"
          :key="`in-${index}`"
          class="mark"
          :d="`M${x(volts)},14 v24`"
        />
        <path
          v-for="(volts, index) in letsGo"
          :key="`out-${index}`"
          class="mark mark--out"
          :d="`M${x(volts)},14 v24`"
        />
        <text v-if="account.dropOut" class="word" :x="x(account.dropOut.mean)" y="10" text-anchor="middle">
          lets go
        </text>
        <text class="word" :x="x(account.pullIn.mean)" y="10" text-anchor="middle">pulls in</text>
      </svg>
      <p class="quiet">
        Smooth DC at the rails: pulls in at {{ inWords(account.pullIn)
        }}<template v-if="account.dropOut">, lets go at {{ inWords(account.dropOut) }}</template
        >; each mark is one of {{ readings.pullInVolts.length }}
        {{ readings.pullInVolts.length === 1 ? 'rise' : 'rises' }}.<template v-if="readings.pulledByAc === null">
          AC left it at rest.</template
        >
      </p>
    </template>
  </section>
</template>

<style scoped>
.relay {
  display: grid;
  gap: 8px;
}
svg {
  width: 100%;
  max-width: 520px;
  height: auto;
}
.scale {
  stroke: var(--steel);
  stroke-width: 1.2;
  fill: none;
}
.tick {
  font-size: 11px;
  fill: var(--soft);
}
.word {
  font-size: 11.5px;
  font-weight: 600;
  fill: var(--ink);
}
.pulled {
  fill: color-mix(in srgb, var(--sound) 26%, transparent);
}
.keeps {
  fill: color-mix(in srgb, var(--brass) 22%, transparent);
}
.mark {
  stroke: var(--green);
  stroke-width: 2.4;
}
.mark--out {
  stroke: var(--brass-ink);
  stroke-dasharray: 4 3;
}
</style>
