import type { EngineDescription } from '../engine/description-schema'
import { wheelPoint, pickupMap } from '../engine/pickup-map'
import { hasDecoder } from '../engine/fit-decoder'
import { inSentence } from '../engine/name-in-sentence'
import { placeInTrain } from '../engine/train-layout'
import { stayAliveSeconds } from './coasting'
import { contactPoints, failChances, type ContactGrade } from './contact-grades'
import { stallRisk, type ContactPoint, type DeadStretch, type StallRisk } from './stall-risk'

/** What can be done against stalling, as data; minutes and prices are judged and the shop's to change. */
export interface StallRemedyRow {
  readonly id: string
  readonly kind: 'clean' | 'wipers' | 'plain-wheel' | 'weight' | 'stay-alive'
  /** With {truck} where the truck's name goes. */
  readonly name: string
  readonly minutes: number
  readonly minutesPerPoint: number
  /** Parts, in hundredths of the shop's currency. */
  readonly price: number
  readonly pricePerPoint: number
  /** Of `weight`: what is left of every chance to fail. */
  readonly failFactor?: number
  /** Of `stay-alive`. */
  readonly farads?: number
  readonly fromVolts?: number
  readonly toVolts?: number
  readonly against: string
  readonly source: string
}

export interface StallPass {
  readonly stretches: readonly DeadStretch[]
  readonly grades: Readonly<Record<string, ContactGrade>>
  /** How fast it crosses, m/s. */
  readonly metresPerSecond: number
  /** How far it rolls by itself, mm. */
  readonly coastMm: number
  /** What the motor draws, A. */
  readonly amps: number
}

export interface StallRemedy {
  readonly row: StallRemedyRow
  readonly name: string
  readonly minutes: number
  readonly price: number
  /** Points it adds. */
  readonly adds: number
  readonly risk: StallRisk
  /** The same with everything cleaned besides; null for cleaning itself. */
  readonly withCleaning: StallRisk | null
}

/**
 * What each remedy this engine allows would make of a pass over the dead pieces, cheapest first in minutes.
 *
 * @param description the engine
 * @param rows remedies as data
 * @param pass stretches, grades of the contacts, speed, coast, current
 */
export function stallRemedies(
  description: EngineDescription,
  rows: readonly StallRemedyRow[],
  pass: StallPass,
): StallRemedy[] {
  const now = contactPoints(description, pass.grades)
  const cleaned = now.map((point) => ({ ...point, failChance: Math.min(point.failChance, failChances.clean) }))
  const risk = (points: readonly ContactPoint[], carriedMm = 0): StallRisk =>
    stallRisk({ points, stretches: pass.stretches, bridgedMm: pass.coastMm + carriedMm })
  return rows
    .flatMap((row): StallRemedy[] => {
      const make = (
        name: string,
        change: (points: readonly ContactPoint[]) => readonly ContactPoint[],
        count: number,
        adds: number,
        carriedMm = 0,
      ): StallRemedy => ({
        row,
        name,
        adds,
        minutes: row.minutes + row.minutesPerPoint * count,
        price: row.price + row.pricePerPoint * count,
        risk: risk(change(now), carriedMm),
        withCleaning: row.kind === 'clean' ? null : risk(change(cleaned), carriedMm),
      })
      switch (row.kind) {
        case 'clean':
          return [make(row.name, () => cleaned, now.length, 0)]
        case 'stay-alive': {
          // On plain DC the rails change sign with the direction: nothing can be stored there.
          if (!hasDecoder(description)) return []
          const seconds = stayAliveSeconds(row.farads ?? 0, row.fromVolts ?? 0, row.toVolts ?? 0, pass.amps)
          return [make(row.name, (points) => points, 0, 0, 1000 * seconds * pass.metresPerSecond)]
        }
        case 'weight':
          return description.trucks.flatMap((truck) => {
            const here = new Set(
              now.filter((point) => truckOf(description, point.id) === truck.id).map((point) => point.id),
            )
            return here.size === 0 || description.trucks.length < 2
              ? []
              : [
                  make(
                    named(row, truck.name),
                    (points) =>
                      points.map((point) =>
                        here.has(point.id) ? { ...point, failChance: point.failChance * (row.failFactor ?? 1) } : point,
                      ),
                    0,
                    0,
                  ),
                ]
          })
        case 'wipers':
          return extraPoints(description, row, (entry) => !entry.tyre).map(({ name, points }) =>
            make(name, (list) => [...list, ...points], points.length, points.length),
          )
        case 'plain-wheel':
          return extraPoints(description, row, (entry) => entry.tyre).map(({ name, points }) =>
            make(name, (list) => [...list, ...points], points.length, points.length),
          )
      }
    })
    .sort((first, second) => first.minutes - second.minutes || first.price - second.price)
}

/** Metal wheels of each truck that touch a rail and lead nowhere. */
function extraPoints(
  description: EngineDescription,
  row: StallRemedyRow,
  fits: (point: { readonly tyre: boolean }) => boolean,
): Array<{ readonly name: string; readonly points: ContactPoint[] }> {
  const along = placeInTrain(description)
  const idle = pickupMap(description).filter(
    (point) => !point.collects && point.rail !== null && point.component !== null && fits(point),
  )
  return description.trucks.flatMap((truck) => {
    const points = idle
      .filter((point) => point.truck === truck.id)
      .map((point) => ({
        id: point.id,
        pole: point.rail as ContactPoint['pole'],
        atMm: along(point),
        failChance: failChances.clean,
      }))
    return points.length > 0 ? [{ name: named(row, truck.name), points }] : []
  })
}

const sides = ['left', 'right'] as const

function truckOf(description: EngineDescription, point: string): string | null {
  return description.wheelSets.find(({ id }) => sides.some((side) => wheelPoint(id, side) === point))?.truck ?? null
}

function named(row: StallRemedyRow, truck: string): string {
  return row.name.replace('{truck}', inSentence(truck))
}
