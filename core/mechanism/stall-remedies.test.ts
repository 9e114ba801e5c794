import { describe, expect, it } from 'vitest'
import { expectedContinuity } from '../continuity/expected-continuity'
import { judgeContinuity } from '../continuity/judge-continuity'
import { pickupMap } from '../engine/pickup-map'
import { constructionPlans, describeConstruction } from '../knowledge/constructions'
import { deadTracks, stallRemedyRows, stretchesOf } from '../knowledge/stall-knowledge'
import { coastOf } from './coast-of-engine'
import { contactPoints, effectivePoints, failChances, gradeOf, type ContactGrade } from './contact-grades'
import { stallRemedies } from './stall-remedies'

const allOf = (construction: string, grade: ContactGrade): Record<string, ContactGrade> =>
  Object.fromEntries(pickupMap(describeConstruction(construction)).map((point) => [point.id, grade]))
const frog = deadTracks.find((track) => track.id === 'long-frog') as (typeof deadTracks)[number]

describe('remedies against stalling', () => {
  // Case F, common practice: cups of an axle-cup railcar full of oil; cleaning before a stay-alive, the price of both.
  it('case F: says how many cups are effectively missing, and offers cleaning before a stay-alive with the price of both', () => {
    const description = describeConstruction('axle-cup', 'dcc')
    const grades = allOf('axle-cup', 'dirty')
    const effective = effectivePoints(contactPoints(description, grades), 'plus')
    expect(effective.fitted).toBe(4)
    expect(effective.effective).toBeCloseTo(4 * 0.7, 12)
    const pass = { stretches: stretchesOf(frog, 32, 'plus'), grades, metresPerSecond: 0.15, coastMm: 3, amps: 0.25 }
    const remedies = stallRemedies(description, stallRemedyRows, pass)
    const kinds = remedies.map((remedy) => remedy.row.kind)
    expect(kinds.indexOf('clean')).toBeLessThan(kinds.indexOf('stay-alive'))
    const of = (kind: string) => remedies.find((remedy) => remedy.row.kind === kind)
    const clean = of('clean')
    const store = of('stay-alive')
    expect(clean && store && clean.price > 0 && clean.price < store.price && clean.minutes < store.minutes).toBe(true)
    // t = 1000 µF · 9 V / 0.25 A = 36 ms, 5.4 mm at 0.15 m/s (derived): it carries over little of a dirty contact.
    expect(clean?.risk.stopsPerPass).toBeLessThan(store?.risk.stopsPerPass ?? 0)
  })

  // Case H, common practice: each rail has two points close together; cleaning alone leaves the stall on a long frog.
  it('case H: the stall stays after cleaning where each rail has two points, and extra pickups take it away', () => {
    const description = describeConstruction('side-brush-bogie')
    const grades = allOf('side-brush-bogie', 'dirty')
    const stretches = stretchesOf(frog, 22.5, 'plus')
    const coast = coastOf(description, 0.08)
    expect(coast?.coastMm).toBeGreaterThan(0)
    const remedies = stallRemedies(description, stallRemedyRows, {
      stretches,
      grades,
      metresPerSecond: 0.08,
      coastMm: coast?.coastMm ?? 0,
      amps: coast?.amps ?? 0,
    })
    const clean = remedies.find((remedy) => remedy.row.kind === 'clean')
    expect(clean?.risk.longestWithoutMm).toBe(54 - 34)
    expect(clean?.risk.stopsPerPass).toBeGreaterThan(0.9)
    const plainWheels = remedies.find((remedy) => remedy.row.kind === 'plain-wheel')
    // Two more points on the right rail, in the other bogie: they span the frog.
    expect(plainWheels?.adds).toBe(2)
    expect(plainWheels?.withCleaning?.stopsPerPass).toBeLessThan(0.05)
    expect(remedies.some((remedy) => remedy.row.kind === 'weight' && remedy.name.includes('trailing'))).toBe(true)
    // A capacitor cannot be fitted to plain DC: the rails change sign with the direction.
    expect(remedies.some((remedy) => remedy.row.kind === 'stay-alive')).toBe(false)
  })

  it('no remedy that adds contact makes any engine worse over any dead piece', () => {
    for (const { id } of constructionPlans) {
      const description = describeConstruction(id)
      for (const track of deadTracks) {
        const pass = {
          stretches: stretchesOf(track, 16.5, 'plus'),
          grades: allOf(id, 'dull'),
          metresPerSecond: 0.06,
          coastMm: 2,
          amps: 0.2,
        }
        const points = contactPoints(description, pass.grades)
        if (points.length === 0) continue
        const remedies = stallRemedies(description, stallRemedyRows, pass)
        const now =
          remedies[0] &&
          stallRemedies(
            description,
            [
              {
                ...(stallRemedyRows.find((row) => row.kind === 'weight') as (typeof stallRemedyRows)[number]),
                failFactor: 1,
              },
            ],
            pass,
          )[0]?.risk
        for (const remedy of remedies) {
          expect(remedy.withCleaning?.worst.noSupply ?? 0).toBeLessThanOrEqual(remedy.risk.worst.noSupply + 1e-12)
          if (now)
            expect(remedy.risk.worst.noSupply, `${id} ${track.id} ${remedy.name}`).toBeLessThanOrEqual(
              now.worst.noSupply + 1e-12,
            )
        }
      }
    }
  })

  it('grades a wheel by its readings: bright, poor, dead, dirty rim', () => {
    const readings = {
      'tender-1.left': { rim: { kind: 'closed' as const }, own: { kind: 'closed' as const } },
      'tender-2.left': { rim: { kind: 'closed' as const }, own: { kind: 'ohms' as const, ohms: 80 } },
      'tender-3.left': { own: { kind: 'open' as const } },
      'driver-1.right': { rim: { kind: 'open' as const } },
    }
    const graded = new Map(
      judgeContinuity(expectedContinuity(describeConstruction('tender-pickup')), readings).map((entry) => [
        entry.wheel.point,
        gradeOf(entry),
      ]),
    )
    expect(
      ['tender-1.left', 'tender-2.left', 'tender-3.left', 'driver-1.right', 'driver-2.right'].map((point) =>
        graded.get(point),
      ),
    ).toEqual(['clean', 'dirty', 'dead', 'dirty', null])
    expect(failChances.clean).toBeLessThan(failChances.dull)
  })
})
