import { describe, expect, it } from 'vitest'
import { careKnowledge } from '../knowledge/care/care-knowledge'
import type { CleaningSubject } from '../knowledge/care/care-schema'
import { constructionPlans, describeConstruction } from '../knowledge/constructions'
import { cleaningCard } from './cleaning-card'
import { cleaningGroups } from './cleaning-groups'
import { lubricationCard } from './lubrication-card'

/**
 * What each kind of engine is oiled and cleaned with, written by hand from how it is built and from what practice puts
 * where (common practice, no published source); nothing of it is read from the rows the cards are made of.
 */

const motorThatOpens = [
  'motor-bearing-far: light oil',
  'motor-bearing-commutator: none',
  'commutator: none',
  'brushes: none',
]
const closedCan = ['motor-bearing-far: light oil', 'motor-bearing-commutator: none']
const wormDrive = ['worm: gear grease']
const spurGears = ['gear-train: gear grease']
const shafts = ['universal-joint: gear oil']
const coupled = ['rods: light oil']
const liveAxles = ['axle-bearing-live: contact-safe oil']
const deadAxles = ['axle-bearing: light oil']
const wipers = ['collecting-contact: none']
const treads = ['tread: none']
const tyres = ['tyre: none']

const oiled: Readonly<Record<string, readonly string[]>> = {
  'open-frame': [...motorThatOpens, ...wormDrive, ...coupled, ...liveAxles, ...deadAxles, ...wipers, ...treads],
  'tender-pickup': [...motorThatOpens, ...wormDrive, ...coupled, ...liveAxles, ...deadAxles, ...treads, ...tyres],
  'split-frame': [...motorThatOpens, ...wormDrive, ...spurGears, ...coupled, ...liveAxles, ...deadAxles, ...treads],
  'tank-can': [...closedCan, ...wormDrive, ...coupled, ...liveAxles, ...wipers, ...treads],
  'tank-open': [...motorThatOpens, ...wormDrive, ...coupled, ...liveAxles, ...wipers, ...treads],
  articulated: [...closedCan, ...shafts, ...wormDrive, ...coupled, ...deadAxles, ...wipers, ...treads, ...tyres],
  'side-brush-bogie': [...motorThatOpens, ...spurGears, ...liveAxles, ...wipers, ...treads, ...tyres],
  'centre-motor': [...motorThatOpens, ...shafts, ...wormDrive, ...spurGears, ...deadAxles, ...wipers, ...treads],
  'motor-bogie-unit': [...closedCan, ...wormDrive, ...spurGears, ...deadAxles, ...wipers, ...treads, ...tyres],
  'axle-cup': [...closedCan, ...shafts, ...wormDrive, ...liveAxles, ...wipers, ...treads],
  'narrow-gauge': [
    ...closedCan,
    ...wormDrive,
    ...spurGears,
    'axle-box-worn: heavy gear lubricant',
    ...wipers,
    ...treads,
  ],
  'three-rail-single': [
    ...motorThatOpens,
    ...spurGears,
    ...coupled,
    ...liveAxles,
    ...wipers,
    'switch-contacts: none',
    'shoe: none',
    ...treads,
    ...tyres,
  ],
  'three-rail-twin': [
    ...motorThatOpens,
    ...wormDrive,
    ...spurGears,
    ...liveAxles,
    ...wipers,
    'switch-contacts: none',
    'roller-spindle: contact-safe oil',
    ...treads,
  ],
  other: [...motorThatOpens, ...wormDrive, ...spurGears, ...deadAxles, ...wipers, ...treads],
}

const alcohol = ['isopropyl', 'methylated-spirit', 'weak-alcohol']
const spirit = 'mineral-spirit'
const dry = ['dry-pad', 'wood', 'tweezers', 'soft-brush', 'puffer']
const byHand = ['bud', 'swab', 'soft-brush', 'wood', 'puffer', 'tweezers']
/** Soap and water where a plastic beside it takes no solvent, dried at once; metal and gears that are off may go into the bath in rounds. */
const water = 'soapy-water'
const bath = 'ultrasonic'
/** By surface what is good or goes with care: agents, then tools. What is said never of it stands in neither. */
const practice: Readonly<Partial<Record<CleaningSubject, readonly [readonly string[], readonly string[]]>>> = {
  treads: [
    [water, ...alcohol, spirit, 'contact-cleaner-safe', 'contact-cleaner'],
    [...byHand, 'dry-pad', 'pad-under-power', 'track-rubber', 'fibre-pen', 'grit-1000', 'grit-2000', 'felt-rouge'],
  ],
  'wheel-backs': [
    [water, ...alcohol, 'contact-cleaner-safe', 'contact-cleaner', spirit],
    [...byHand, bath, 'dry-pad', 'fibre-pen', 'grit-600', 'grit-1000', 'grit-2000'],
  ],
  contacts: [
    [water, ...alcohol, 'contact-cleaner-safe', 'contact-cleaner', spirit],
    [...byHand, bath, 'fibre-pen', 'paper-strip', 'grit-600', 'grit-1000', 'grit-2000'],
  ],
  commutator: [
    [...alcohol, spirit],
    [...dry, 'bud', 'swab', 'eraser', 'fibre-pen', 'grit-1000', 'grit-2000'],
  ],
  brushes: [
    [spirit, ...alcohol],
    [...byHand, 'grit-600', 'grit-1000', 'grit-2000', 'dry-pad'],
  ],
  'motor-bearings': [[...alcohol, spirit], byHand],
  'live-bearings': [
    [water, ...alcohol, 'contact-cleaner-safe', 'contact-cleaner', spirit],
    [...byHand, bath],
  ],
  'axle-boxes': [
    [...alcohol, 'soapy-water'],
    [...byHand, bath],
  ],
  'gears-plastic': [
    ['soapy-water', ...alcohol, spirit],
    [...byHand, bath],
  ],
  'gears-metal': [
    ['soapy-water', ...alcohol, spirit],
    [...byHand, 'ultrasonic', 'soak'],
  ],
  body: [
    ['soapy-water', ...alcohol],
    [...byHand, 'soak'],
  ],
  'switch-contacts': [
    [spirit, ...alcohol, 'contact-cleaner-safe', 'contact-cleaner'],
    [...byHand, 'paper-strip'],
  ],
}

describe('the cards of each construction', () => {
  it('are all written down here', () => {
    expect(Object.keys(oiled).toSorted()).toEqual(constructionPlans.map((plan) => plan.id).toSorted())
  })

  it.each(Object.entries(oiled))(
    '%s: every point gets what practice puts there, and none what practice leaves dry',
    (id, expected) => {
      const { points, none } = lubricationCard(describeConstruction(id))
      const found = new Set([...points, ...none].map((point) => `${point.kind}: ${point.product ?? 'none'}`))
      expect([...found].toSorted()).toEqual([...new Set(expected)].toSorted())
    },
  )

  it.each(Object.keys(oiled))(
    '%s: whatever it is dirty with is taken off by what practice calls good or goes with care',
    (id) => {
      const description = describeConstruction(id)
      const strange: string[] = []
      let seen = 0
      for (const group of cleaningGroups(description)) {
        const usual = practice[group.subject]
        if (!usual) continue
        const soils = careKnowledge.soils.filter((soil) =>
          careKnowledge.ways.some((row) => row.soil === soil.id && row.subjects.includes(group.subject)),
        )
        for (const soil of soils.filter((entry) => !['battery', 'putty', 'paint'].includes(entry.id))) {
          const way = cleaningCard(description, [{ group: group.id, soil: soil.id }]).steps[0]?.way
          if (!way) continue
          seen++
          const [agents, tools] = usual
          if ((way.agent !== null && !agents.includes(way.agent)) || !tools.includes(way.method))
            strange.push(`${group.id}, ${soil.id}: ${way.words}`)
        }
      }
      expect(seen).toBeGreaterThan(12)
      expect(strange).toEqual([])
    },
  )
})
