import { scaleLinear } from 'd3-scale'
import { line } from 'd3-shape'
import type { SheetReading } from '../../core/motor/sheet-reading'
import { isMetered } from '../../core/motor/sheet-reading'
import type { SweepFit } from '../../core/motor/sweep-fit'

export interface ChartSide {
  readonly readings: readonly SheetReading[]
  readonly fit: SweepFit | null
}

const WIDTH = 500
const HEIGHT = 190
const MARGIN = { top: 10, right: 10, bottom: 30, left: 44 }
const BEFORE = '#5C6B77'
const AFTER = '#1F4D3A'

/**
 * Current over volts, before and after, as an SVG for print: open rings and a dashed line before, filled dots
 * and a full line after, so that a black-and-white print can be read as well.
 *
 * @returns null when neither side was measured while running
 */
export function beforeAfterChart(before: ChartSide, after: ChartSide): string | null {
  const points = (side: ChartSide): Array<[number, number]> =>
    side.readings
      .filter(isMetered)
      .filter((reading) => reading.kind === 'running')
      .map((reading) => [reading.voltage.value, reading.current.value * 1000])
  const [first, second] = [points(before), points(after)]
  const all = [...first, ...second]
  if (first.length === 0 || second.length === 0) return null
  const x = scaleLinear(
    [0, Math.max(...all.map(([volts]) => volts)) * 1.05],
    [MARGIN.left, WIDTH - MARGIN.right],
  ).nice()
  const y = scaleLinear(
    [0, Math.max(...all.map(([, milliamps]) => milliamps)) * 1.15],
    [HEIGHT - MARGIN.bottom, MARGIN.top],
  ).nice()

  const grid = y
    .ticks(5)
    .map(
      (tick) =>
        `<line x1="${MARGIN.left}" x2="${WIDTH - MARGIN.right}" y1="${y(tick)}" y2="${y(tick)}" stroke="#D8D0C0" stroke-width="0.5"/><text x="${MARGIN.left - 6}" y="${y(tick) + 3}" text-anchor="end" font-size="8" fill="#23282D">${tick}</text>`,
    )
  const feet = x
    .ticks(7)
    .map(
      (tick) =>
        `<text x="${x(tick)}" y="${HEIGHT - MARGIN.bottom + 12}" text-anchor="middle" font-size="8" fill="#23282D">${tick}</text>`,
    )
  const curve = (side: ChartSide, own: Array<[number, number]>, colour: string, dashed: boolean): string => {
    const volts = own.map(([value]) => value)
    const [low, high] = [Math.min(...volts), Math.max(...volts)]
    const fitted =
      side.fit && high > low
        ? Array.from({ length: 25 }, (_, i) => low + ((high - low) * i) / 24).flatMap(
            (value): Array<[number, number]> => {
              const band = side.fit?.currentAt(value)
              return band ? [[value, band.value * 1000]] : []
            },
          )
        : []
    const path = line<[number, number]>()
      .x(([value]) => x(value))
      .y(([, value]) => y(value))(fitted)
    return path
      ? `<path d="${path}" fill="none" stroke="${colour}" stroke-width="1.2"${dashed ? ' stroke-dasharray="4 3"' : ''}/>`
      : ''
  }
  const rings = first.map(
    ([volts, milliamps]) =>
      `<circle cx="${x(volts)}" cy="${y(milliamps)}" r="3" fill="#FFFFFF" stroke="${BEFORE}" stroke-width="1.2"/>`,
  )
  const dots = second.map(
    ([volts, milliamps]) => `<circle cx="${x(volts)}" cy="${y(milliamps)}" r="3" fill="${AFTER}"/>`,
  )
  const key = `<circle cx="${WIDTH - 150}" cy="${HEIGHT - 6}" r="3" fill="#FFFFFF" stroke="${BEFORE}" stroke-width="1.2"/><text x="${WIDTH - 143}" y="${HEIGHT - 3}" font-size="8" fill="#23282D">before</text><circle cx="${WIDTH - 95}" cy="${HEIGHT - 6}" r="3" fill="${AFTER}"/><text x="${WIDTH - 88}" y="${HEIGHT - 3}" font-size="8" fill="#23282D">after</text>`
  const titles = `<text x="${MARGIN.left}" y="${HEIGHT - 3}" font-size="8" fill="#23282D">current in mA over voltage in V</text>`
  return `<svg xmlns="http://www.w3.org/2000/svg" font-family="Atkinson" width="${WIDTH}" height="${HEIGHT}" viewBox="0 0 ${WIDTH} ${HEIGHT}">${grid.join('')}${feet.join('')}<line x1="${MARGIN.left}" x2="${WIDTH - MARGIN.right}" y1="${y(0)}" y2="${y(0)}" stroke="#23282D" stroke-width="0.8"/>${curve(before, first, BEFORE, true)}${curve(after, second, AFTER, false)}${rings.join('')}${dots.join('')}${titles}${key}</svg>`
}
