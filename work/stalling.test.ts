import { expect, it } from 'vitest'
import { pickupMap } from '../core/engine/pickup-map'
import { describeConstruction } from '../core/knowledge/constructions'
import { deadTracks, stallRemedyRows, stretchesOf } from '../core/knowledge/stall-knowledge'
import { contactPoints, type ContactGrade } from '../core/mechanism/contact-grades'
import { stallRemedies } from '../core/mechanism/stall-remedies'
import { stallRisk } from '../core/mechanism/stall-risk'
import { cheapestEnough, isEnough, stallVerdict, stopsInFigures } from './stalling'

function over(construction: string, grade: ContactGrade, lengthMm: number) {
  const description = describeConstruction(construction)
  const grades = Object.fromEntries(pickupMap(description).map((point) => [point.id, grade]))
  const track = deadTracks.find((entry) => entry.perGauge.length === 1) as (typeof deadTracks)[number]
  const stretches = stretchesOf(track, 16.5, 'plus').map((entry) => ({ ...entry, toMm: entry.fromMm + lengthMm }))
  const pass = { stretches, grades, metresPerSecond: 0.06, coastMm: 0, amps: 0.2 }
  return {
    risk: stallRisk({ points: contactPoints(description, grades), stretches, bridgedMm: 0 }),
    remedies: stallRemedies(description, stallRemedyRows, pass),
  }
}

it('a piece longer than its contacts reach stops it however clean it is, and bright wheels ride over a short one', () => {
  const long = over('tank-can', 'clean', 200)
  expect(stallVerdict(long.risk, 0)).toMatchObject({ tone: 'fault', words: expect.stringContaining('however clean') })
  expect(cheapestEnough(long.remedies, 6000)).toBeNull()
  const short = over('tank-can', 'clean', 4)
  expect(stallVerdict(short.risk, 0)).toEqual({ tone: 'sound', words: 'It rides through.' })
  expect(isEnough(short.risk)).toBe(true)
})

it('cleaning is enough for dirty wheels that reach, and costs its minutes at the shop’s rate', () => {
  const { risk, remedies } = over('tank-can', 'dirty', 4)
  expect(isEnough(risk)).toBe(false)
  const best = cheapestEnough(remedies, 6000)
  expect(best?.remedy.row.kind).toBe('clean')
  // 60.00 an hour is 1.00 a minute.
  expect(best?.price).toBe((best?.remedy.price ?? 0) + Math.round((best?.remedy.minutes ?? 0) * 100))
})

it('gives stops with the figures they are worth', () => {
  expect([0.0001, 0.0042, 0.042, 1.26].map(stopsInFigures)).toEqual(['0', '0.004', '0.04', '1.3'])
})
