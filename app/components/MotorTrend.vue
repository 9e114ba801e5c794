<script setup lang="ts">
import {
  Chart,
  Filler,
  LinearScale,
  LineElement,
  PointElement,
  ScatterController,
  Tooltip,
  type ChartData,
  type ChartOptions,
} from 'chart.js'
import { Scatter } from 'vue-chartjs'
import { useTheme } from 'vuetify'
import type { HistoryLine } from '~~/core/motor/history-judgement'
import type { HistoryFigureName } from '~~/core/motor/motor-figures'
import type { FollowedSheet } from '~~/work/motor-history'
import { inBenchUnit, showFigure } from '~~/work/shown-figure'

/** One figure over the years: each sheet with its uncertainty, hollow before the work and full after it, on the usual band. */
Chart.register(ScatterController, LineElement, PointElement, LinearScale, Filler, Tooltip)
const props = defineProps<{
  name: HistoryFigureName
  sheets: readonly FollowedSheet[]
  usual: HistoryLine['usual'] | null
}>()
const theme = useTheme()
const YEAR_MS = 365.25 * 86_400_000
const colours = computed(() =>
  theme.global.current.value.dark
    ? { soft: '#AAB4BB', rule: '#42494C', mark: '#8CC7AA', band: '#7CC59633', paper: '#191c1e' }
    : { soft: '#525D67', rule: '#CBC0AA', mark: '#1F4D3A', band: '#2E7D4F22', paper: '#f5f0e6' },
)
const shown = computed(() =>
  props.sheets.flatMap((sheet) => {
    const figure = sheet.figures[props.name]
    return figure ? [{ sheet, figure: inBenchUnit(figure) }] : []
  }),
)
const year = (at: number): number => 1970 + at / YEAR_MS
const reach = computed(() => {
  const at = shown.value.map(({ sheet }) => year(sheet.at))
  const margin = Math.max(0.25, (Math.max(...at) - Math.min(...at)) * 0.06)
  return { from: Math.floor(Math.min(...at) - margin), to: Math.ceil(Math.max(...at) + margin) }
})
const data = computed<ChartData<'scatter'>>(() => {
  const { mark, band, paper } = colours.value
  const unit = shown.value[0]?.figure.unit ?? ''
  const factor =
    (shown.value[0]?.figure.value ?? 1) /
    (props.sheets.find((sheet) => sheet.figures[props.name])?.figures[props.name]?.value ?? 1)
  const edge = (value: number) => [
    { x: reach.value.from, y: value * factor },
    { x: reach.value.to, y: value * factor },
  ]
  const plain = { showLine: true, pointRadius: 0, borderWidth: 0, backgroundColor: band }
  return {
    datasets: [
      ...(props.usual
        ? [
            { label: 'usual', data: edge(props.usual.low), ...plain },
            { label: 'usual', data: edge(props.usual.high), ...plain, fill: '-1' },
          ]
        : []),
      ...shown.value.map(({ sheet, figure }) => ({
        label: 'doubt',
        data: [
          { x: year(sheet.at), y: figure.low },
          { x: year(sheet.at), y: figure.high },
        ],
        showLine: true,
        pointRadius: 0,
        borderColor: mark,
        borderWidth: 1.5,
      })),
      {
        label: unit,
        data: shown.value.map(({ sheet, figure }) => ({ x: year(sheet.at), y: figure.value })),
        showLine: true,
        borderColor: mark,
        borderWidth: 1,
        radius: 5,
        pointBorderWidth: 2,
        pointBorderColor: mark,
        pointBackgroundColor: shown.value.map(({ sheet }) => (sheet.station === 'prove' ? mark : paper)),
      },
    ],
  }
})
const options = computed<ChartOptions<'scatter'>>(() => {
  const { soft, rule } = colours.value
  const font = { family: 'Atkinson Hyperlegible Mono Variable', size: 12 }
  return {
    animation: false,
    maintainAspectRatio: false,
    scales: {
      x: {
        min: reach.value.from,
        max: reach.value.to,
        ticks: {
          color: soft,
          font,
          stepSize: Math.max(1, Math.ceil((reach.value.to - reach.value.from) / 6)),
          maxRotation: 0,
          callback: (value) => String(value),
        },
        grid: { display: false },
        border: { color: rule },
      },
      y: {
        ticks: {
          color: soft,
          font,
          maxTicksLimit: 5,
          callback: (value) => `${value} ${shown.value[0]?.figure.unit ?? ''}`,
        },
        grid: { color: rule },
        border: { display: false },
        grace: '15%',
      },
    },
    plugins: {
      legend: { display: false },
      tooltip: {
        filter: (item) => item.datasetIndex === data.value.datasets.length - 1,
        callbacks: {
          label: (item) => (shown.value[item.dataIndex] ? showFigure(shown.value[item.dataIndex]!.figure) : ''),
        },
      },
    },
  }
})
</script>

<template>
  <div class="trend">
    <Scatter
      :data="data"
      :options="options"
      :aria-label="`${shown.length} sheets, the latest ${shown.at(-1) ? showFigure(shown.at(-1)!.figure) : ''}`"
    />
  </div>
</template>

<style scoped>
.trend {
  height: 190px;
}
</style>
