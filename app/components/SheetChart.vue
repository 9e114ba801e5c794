<script setup lang="ts">
import {
  Chart,
  Filler,
  Legend,
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
import { isMetered, type SheetReading } from '~~/core/motor/sheet-reading'
import type { SweepFit } from '~~/core/motor/sweep-fit'

/** Current and speed over volts: the readings, the fitted line, and the band it may honestly lie in. */
Chart.register(ScatterController, LineElement, PointElement, LinearScale, Filler, Tooltip, Legend)
const props = defineProps<{ readings: readonly SheetReading[]; fit: SweepFit | null }>()
const theme = useTheme()
const RPM = 60 / (2 * Math.PI)

const colours = computed(() =>
  theme.global.current.value.dark
    ? { ink: '#ECE5D8', soft: '#AAB4BB', rule: '#42494C', current: '#8CC7AA', speed: '#CFA651', held: '#F08A83' }
    : { ink: '#23282D', soft: '#525D67', rule: '#CBC0AA', current: '#1F4D3A', speed: '#8A6618', held: '#A3231F' },
)
const metered = computed(() => props.readings.filter(isMetered))
const topVolts = computed(
  () => Math.max(props.fit?.nominalVoltage ?? 0, ...metered.value.map((reading) => reading.voltage.value)) * 1.04,
)

const data = computed<ChartData<'scatter'>>(() => {
  const { current, speed, held } = colours.value
  const steps = Array.from({ length: 41 }, (_, i) => (topVolts.value * i) / 40)
  const band = (side: 'value' | 'low' | 'high', what: 'currentAt' | 'speedAt', factor: number) =>
    steps.flatMap((volts) => {
      const point = props.fit?.[what](volts)
      const turning = what === 'currentAt' ? (props.fit?.speedAt(volts)?.value ?? 1) > 0 : true
      return point && turning ? [{ x: volts, y: Math.max(0, point[side] * factor) }] : []
    })
  const line = (colour: string, fill: string | false = false) => ({
    showLine: true,
    pointRadius: 0,
    borderColor: colour,
    backgroundColor: `${colour}22`,
    borderWidth: fill === false ? 2 : 0,
    fill,
  })
  const points = (direction: 'forward' | 'reverse') =>
    metered.value.filter((reading) => reading.kind === 'running' && reading.direction === direction)
  const running = metered.value.filter((reading) => reading.kind === 'running')
  return {
    datasets: [
      { label: 'band', data: band('low', 'currentAt', 1000), ...line(current), borderWidth: 0, yAxisID: 'y' },
      { label: 'band', data: band('high', 'currentAt', 1000), ...line(current, '-1'), yAxisID: 'y' },
      { label: 'current', data: band('value', 'currentAt', 1000), ...line(current), yAxisID: 'y' },
      { label: 'band', data: band('low', 'speedAt', RPM), ...line(speed), borderWidth: 0, yAxisID: 'speed' },
      { label: 'band', data: band('high', 'speedAt', RPM), ...line(speed, '-1'), yAxisID: 'speed' },
      { label: 'speed', data: band('value', 'speedAt', RPM), ...line(speed), borderDash: [6, 4], yAxisID: 'speed' },
      {
        label: 'Forward, mA',
        data: points('forward').map((reading) => ({ x: reading.voltage.value, y: reading.current.value * 1000 })),
        pointStyle: 'circle',
        radius: 5,
        backgroundColor: current,
        borderColor: current,
        yAxisID: 'y',
      },
      {
        label: 'Reverse, mA',
        data: points('reverse').map((reading) => ({ x: reading.voltage.value, y: reading.current.value * 1000 })),
        pointStyle: 'circle',
        radius: 5,
        borderWidth: 2,
        backgroundColor: 'transparent',
        borderColor: current,
        yAxisID: 'y',
      },
      {
        label: 'Held, mA',
        data: metered.value
          .filter((reading) => reading.kind === 'locked')
          .map((reading) => ({ x: reading.voltage.value, y: reading.current.value * 1000 })),
        pointStyle: 'rect',
        radius: 5,
        backgroundColor: held,
        borderColor: held,
        yAxisID: 'y',
      },
      {
        label: 'Speed, rpm',
        data: running.flatMap((reading) =>
          reading.kind === 'running' && reading.speed
            ? [{ x: reading.voltage.value, y: reading.speed.value * RPM }]
            : [],
        ),
        pointStyle: 'triangle',
        radius: 5,
        backgroundColor: speed,
        borderColor: speed,
        yAxisID: 'speed',
      },
    ],
  }
})

const options = computed<ChartOptions<'scatter'>>(() => {
  const { ink, soft, rule } = colours.value
  const font = { family: 'Atkinson Hyperlegible Next Variable', size: 13 }
  const axis = (text: string) => ({
    title: { display: true, text, color: soft, font },
    ticks: { color: soft, font: { ...font, family: 'Atkinson Hyperlegible Mono Variable' } },
    grid: { color: rule, drawTicks: false },
    border: { color: ink },
  })
  const hasSpeed = props.fit?.constants !== null && props.fit !== null
  return {
    animation: false,
    maintainAspectRatio: false,
    layout: { padding: 0 },
    scales: {
      x: { ...axis('volts'), min: 0, max: Math.ceil(topVolts.value), grid: { display: false } },
      y: { ...axis('mA'), beginAtZero: true, grace: '8%' },
      speed: { ...axis('rpm'), position: 'right', beginAtZero: true, display: hasSpeed, grid: { display: false } },
    },
    plugins: {
      legend: {
        position: 'bottom',
        labels: {
          color: ink,
          font,
          usePointStyle: true,
          boxHeight: 7,
          filter: (item, chart) =>
            !['band', 'current', 'speed'].includes(item.text) &&
            (chart.datasets[item.datasetIndex ?? 0]?.data.length ?? 0) > 0,
        },
      },
      tooltip: { filter: (item) => (item.datasetIndex ?? 0) > 5, bodyFont: font },
    },
  }
})
const summary = computed(
  () =>
    `Chart of current over volts: ${metered.value.length} readings${props.fit ? ' with the fitted line and its 95 % band' : ''}.`,
)
</script>

<template>
  <div class="chart"><Scatter :data="data" :options="options" :aria-label="summary" /></div>
</template>

<style scoped>
.chart {
  height: 250px;
  min-width: 0;
  position: relative;
}
</style>
