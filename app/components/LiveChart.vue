<script setup lang="ts">
import { Chart, LineController, LineElement, LinearScale, PointElement } from 'chart.js'
import { useTheme } from 'vuetify'
import { RING_SECONDS, type LiveReading } from '~~/messages/live-bench'

/** Current and volts of the last minute, moving to the left. */
Chart.register(LineController, LineElement, PointElement, LinearScale)
const props = defineProps<{ ring: () => readonly LiveReading[] }>()
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const theme = useTheme()
/** Drawn ten times a second: the eye wants no more, and four benches share one machine. */
const FRAME_MS = 100
let chart: Chart<'line', Array<{ x: number; y: number }>> | null = null
let frame = 0
let drawn = 0

const colours = (): { soft: string; rule: string; current: string; volts: string } =>
  theme.global.current.value.dark
    ? { soft: '#AAB4BB', rule: '#42494C', current: '#8CC7AA', volts: '#CFA651' }
    : { soft: '#525D67', rule: '#CBC0AA', current: '#1F4D3A', volts: '#8A6618' }

function build(): void {
  if (!canvas.value) return
  chart?.destroy()
  const { soft, rule, current, volts } = colours()
  const font = { family: 'Atkinson Hyperlegible Mono Variable', size: 13 }
  const axis = (unit: string, position: 'left' | 'right', colour: string) => ({
    type: 'linear' as const,
    position,
    beginAtZero: true,
    grace: '10%',
    ticks: { color: colour, font, maxTicksLimit: 5, callback: (value: number | string) => `${value} ${unit}` },
    grid: { color: rule, display: position === 'left' },
    border: { display: false },
  })
  const line = (colour: string, yAxisID: string, borderWidth: number) => ({
    data: [],
    borderColor: colour,
    borderWidth,
    pointRadius: 0,
    yAxisID,
    tension: 0,
  })
  chart = new Chart(canvas.value, {
    type: 'line',
    data: {
      datasets: [
        { ...line(current, 'amps', 2), label: 'mA' },
        { ...line(volts, 'volts', 1.5), label: 'V', borderDash: [5, 4] },
      ],
    },
    options: {
      animation: false,
      parsing: false,
      normalized: true,
      maintainAspectRatio: false,
      events: [],
      scales: {
        x: {
          type: 'linear',
          min: -RING_SECONDS,
          max: 0,
          ticks: { color: soft, font, stepSize: 15, callback: (value) => (value === 0 ? 'now' : `${value} s`) },
          grid: { display: false },
          border: { color: rule },
        },
        amps: axis('mA', 'left', current),
        volts: axis('V', 'right', volts),
      },
      plugins: { legend: { display: false }, tooltip: { enabled: false } },
    },
  })
}
function draw(now: number): void {
  frame = requestAnimationFrame(draw)
  if (!chart || now - drawn < FRAME_MS) return
  drawn = now
  const ring = props.ring()
  const latest = ring.at(-1)?.at ?? 0
  const [amps, volts] = chart.data.datasets
  if (!amps || !volts) return
  amps.data = ring.map((reading) => ({ x: (reading.at - latest) / 1000, y: Math.abs(reading.amps) * 1000 }))
  volts.data = ring.map((reading) => ({ x: (reading.at - latest) / 1000, y: Math.abs(reading.volts) }))
  chart.update('none')
}
onMounted(() => {
  build()
  frame = requestAnimationFrame(draw)
})
watch(
  () => theme.global.name.value,
  () => void nextTick(build),
)
onBeforeUnmount(() => {
  cancelAnimationFrame(frame)
  chart?.destroy()
})
</script>

<template>
  <div class="live-chart"><canvas ref="canvas" role="img" aria-label="Current and volts of the last minute" /></div>
</template>

<style scoped>
.live-chart {
  position: relative;
  height: 100%;
  min-height: 220px;
}
</style>
