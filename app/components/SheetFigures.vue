<script setup lang="ts">
import { isRefused, inUnit, type Figure, type IntervalFigure } from '~~/core/measure/measured-value'
import { describeFigure } from '~~/core/measure/significant-digits'
import { findScale, scaleSpeed } from '~~/core/measure/scales'
import { stopsPerLap } from '~~/core/measure/stops-per-lap'
import { timedSpeed } from '~~/core/measure/timed-speed'
import type { SeriesFigureName, SeriesFit } from '~~/core/motor/series-fit'
import type { SheetJudgement } from '~~/core/motor/sheet-judgement'
import type { SheetReading } from '~~/core/motor/sheet-reading'
import { dragFigureNames, type DragFigureName, type SweepFigureName } from '~~/core/motor/sweep-fit'
import type { EngineTypeRow } from '~~/messages/book'
import { showFigure } from '~~/work/shown-figure'

/** What the readings say so far: figures with their uncertainty, or why not and what to read next. */
const props = defineProps<{
  judgement: SheetJudgement
  type: EngineTypeRow
  withMeter: boolean
  readings: readonly SheetReading[]
}>()
const volts = computed(() => `${props.type.nominalVolts} V`)

const rows = computed<Array<{ label: string; names: SweepFigureName[] }>>(() => [
  { label: 'Winding, brushes', names: ['resistanceAt20', 'resistance'] },
  { label: 'Magnet', names: ['backEmfAt20', 'backEmf'] },
  { label: 'Starts at', names: ['startVoltage'] },
  { label: 'Turns on down to', names: ['keepsTurningDownTo'] },
  { label: 'Drag at standstill', names: ['coulombFriction'] },
  { label: `Free at ${volts.value}, draws`, names: ['noLoadCurrent'] },
  { label: 'and turns', names: ['noLoadSpeed'] },
  { label: `Stalled at ${volts.value}`, names: ['stallCurrent'] },
  { label: 'Best efficiency', names: ['bestEfficiency'] },
])
/** Each way on its own once the two measurably differ. */
const differ = computed(() => props.judgement.remarks.some((remark) => remark.code === 'directions-differ'))
const figures = computed(() => {
  const fit = props.judgement.fit
  if (!fit) return []
  return rows.value.map(({ label, names }) => {
    const name = names.find((candidate) => !isRefused(fit.figures[candidate])) ?? names.at(-1)!
    const figure: Figure = fit.figures[name]
    const at20 = name.endsWith('At20') ? ', at 20 °C' : ''
    if (differ.value && dragFigureNames.includes(name as DragFigureName)) {
      const ways = (['forward', 'reverse'] as const).map((way) => fit.byDirection[way]?.[name as DragFigureName])
      if (ways.every((way): way is IntervalFigure => way !== undefined && !isRefused(way)))
        return { label, text: ways.map((way) => showFigure(way)), refusal: null }
    }
    return isRefused(figure)
      ? { label, text: null, refusal: figure.refused }
      : { label: label + at20, text: [showFigure(figure)], refusal: null }
  })
})
const seriesRows = computed<Array<{ label: string; name: SeriesFigureName }>>(() => [
  { label: 'Winding, field, brushes', name: 'resistance' },
  { label: 'Field acts', name: 'fieldConstant' },
  { label: 'Reactance on AC', name: 'reactance' },
  { label: `Stalled at ${volts.value} AC`, name: 'stallCurrent' },
  { label: `Turns at ${volts.value} AC`, name: 'runningSpeed' },
])
const wound = computed(() =>
  props.judgement.series
    ? seriesRows.value.map(({ label, name }) => {
        const figure = (props.judgement.series as SeriesFit).figures[name]
        return isRefused(figure)
          ? { label, text: null, refusal: figure.refused }
          : { label, text: [showFigure(figure)], refusal: null }
      })
    : [],
)
const known = computed(() => [...figures.value, ...wound.value].filter((row) => row.text))
const unknown = computed(() => [...figures.value, ...wound.value].filter((row) => !row.text))
/** Each missing reading once, however many figures want it. */
const wanted = computed(() => {
  const refusals = props.judgement.refusal
    ? [props.judgement.refusal]
    : unknown.value.flatMap((row) => row.refusal ?? [])
  const seen = new Map(refusals.map((refusal) => [refusal.code, refusal]))
  return [...seen.values()]
})
const ratio = computed(() => (props.type.scaleId ? (findScale(props.type.scaleId)?.ratio ?? null) : null))
const topSpeed = computed(() => {
  const figure = props.judgement.fit?.figures.noLoadSpeed
  const { gearRatio, wheelDiameterMm } = props.type
  if (!figure || isRefused(figure) || !ratio.value || !gearRatio || !wheelDiameterMm) return null
  const metresPerRadian = wheelDiameterMm / 2000 / gearRatio
  return describeFigure(inUnit(figure, metresPerRadian * scaleSpeed(1, ratio.value).kilometresPerHour, 'km/h'))
})
/** Repeats of one run over one distance count as one figure: three show how well it repeats. */
const runs = computed(() => {
  const groups = new Map<string, { label: string; metres: number; resolution: number; seconds: number[] }>()
  for (const reading of props.readings) {
    if (reading.kind !== 'timed' && reading.kind !== 'creep') continue
    const { distance, duration } = reading.run
    const key = `${reading.kind} ${reading.direction} ${distance.value}`
    const group = groups.get(key) ?? {
      label: `${reading.kind === 'creep' ? 'Creep' : 'Timed run'}, ${reading.direction}`,
      metres: distance.value,
      resolution: distance.resolution,
      seconds: [],
    }
    group.seconds.push(duration.value)
    groups.set(key, group)
  }
  const timed = [...groups.values()].map(({ label, metres, resolution, seconds }) => {
    const speed = timedSpeed(metres, seconds, resolution)
    const full = ratio.value
      ? [`${describeFigure(inUnit(speed, scaleSpeed(1, ratio.value).kilometresPerHour, 'km/h'))} full size`]
      : []
    return {
      label: seconds.length > 1 ? `${label}, ${seconds.length} times` : label,
      text: [showFigure(speed), ...full],
    }
  })
  const stops = props.readings.flatMap((reading) =>
    reading.kind === 'stops'
      ? [{ label: 'Stops', text: [describeFigure(stopsPerLap(reading.stops, reading.laps))] }]
      : [],
  )
  return [...timed, ...stops]
})
</script>

<template>
  <section class="figures" aria-label="What the readings say" aria-live="polite">
    <p v-for="remark in judgement.remarks" :key="remark.code" class="sign remark" :class="`sign--${remark.weight}`">
      {{ remark.sentence }}
    </p>
    <dl v-if="known.length > 0">
      <template v-for="row in known" :key="row.label"
        ><dt>
          {{ row.label }}<span v-if="(row.text?.length ?? 0) > 1" class="ways">forward<br />reverse</span>
        </dt>
        <dd class="figure">
          <template v-for="text in row.text" :key="text">{{ text }}<br /></template></dd
      ></template>
      <template v-if="topSpeed"
        ><dt>Full-size speed at {{ volts }}</dt>
        <dd class="figure">{{ topSpeed }}</dd></template
      >
    </dl>
    <dl v-if="runs.length > 0">
      <template v-for="(run, index) in runs" :key="index"
        ><dt>{{ run.label }}</dt>
        <dd class="figure">
          <template v-for="text in run.text" :key="text">{{ text }}<br /></template></dd
      ></template>
    </dl>
    <p v-if="unknown.length > 0" class="quiet">
      Not to be told yet: {{ unknown.map((row) => row.label.toLowerCase()).join('; ') }}.
    </p>
    <div v-for="refusal in wanted" :key="refusal.code" class="wanted">
      <p>{{ refusal.message }}</p>
      <p v-if="refusal.wanted" class="quiet"><strong>Read next:</strong> {{ refusal.wanted }}</p>
    </div>
    <p v-if="readings.length === 0 && figures.length === 0 && wanted.length === 0" class="quiet">
      {{
        withMeter
          ? 'Three running readings each way and six held ones tell winding, magnet and drag apart.'
          : 'A timed distance, the stops counted per lap, the slowest steady creep: each counts, and “dead” does too.'
      }}
    </p>
  </section>
</template>

<style scoped>
.figures {
  display: grid;
  gap: 10px;
}
dl {
  display: grid;
  grid-template-columns: minmax(0, 1fr) max-content;
  margin: 0;
}
dt,
dd {
  border-top: 1px solid var(--rule);
  padding: 5px 0;
  margin: 0;
}
dt {
  color: var(--soft);
  font-size: 0.92rem;
}
dd {
  text-align: right;
  font-weight: 600;
  padding-left: 12px;
}
.ways {
  float: right;
  text-align: right;
  padding-left: 12px;
}
.remark {
  align-items: flex-start;
  font-weight: 550;
  line-height: 1.35;
}
.remark::before {
  margin-top: 5px;
}
.wanted {
  border-left: 3px solid var(--brass);
  padding: 2px 0 2px 12px;
  font-size: 0.94rem;
}
</style>
