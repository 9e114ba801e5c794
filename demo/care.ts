import type { EngineDescription } from '../core/engine/description-schema'
import { cleaningCard } from '../core/care/cleaning-card'
import { cleaningGroups } from '../core/care/cleaning-groups'
import { lubricationCard } from '../core/care/lubrication-card'
import type { CareEntry, ShelfFields } from '../messages/care-entries'

/** What stands on the shelf of the demo's bench. */
export const shelf: readonly ShelfFields[] = [
  bottle('Alcohol, the brown bottle', 'isopropyl', 'not-said', 'half'),
  bottle('Lamp spirit', 'mineral-spirit', 'off-plastic', 'full'),
  bottle('Spray for contacts', 'contact-cleaner', 'plastic-safe', 'low'),
  bottle('Fine oil, needle bottle', 'light oil', 'plastic-safe', 'half'),
  bottle('White grease', 'gear grease', 'plastic-safe', 'full'),
  bottle('Contact oil', 'contact-safe oil', 'plastic-safe', 'low'),
  bottle('Bath on the windowsill', 'ultrasonic', 'not-said', 'full'),
]
function bottle(
  name: string,
  product: string,
  labelled: ShelfFields['labelled'],
  left: ShelfFields['left'],
): ShelfFields {
  return { name, product, labelled, left, openedOn: null, notes: '' }
}

/** What an engine of the demo is dirty with, subject by subject; so many steps of its card are done. */
const dirty: Readonly<
  Record<string, { readonly soils: Readonly<Record<string, readonly string[]>>; readonly done: number }>
> = {
  'glen-15': {
    soils: {
      everything: ['dust'],
      contacts: ['oil-film', 'oxide'],
      'live-bearings': ['oil-film'],
      'gears-plastic': ['soft-grease'],
      'gears-metal': ['soft-grease'],
      body: ['oil-film'],
      treads: ['oil-film'],
      'wheel-backs': ['oil-film'],
      frame: ['oil-film'],
    },
    done: 2,
  },
  'bus-1': { soils: { everything: ['dust', 'fibres'], treads: ['black-paste'] }, done: 0 },
}
/** So many points are oiled. */
const oiled: Readonly<Record<string, number>> = { 'moor-5': 3 }

/** Entries of cleaning and oiling of an engine's job in hand. */
export function careEntriesOf(key: string, description: EngineDescription): CareEntry[] {
  const groups = cleaningGroups(description)
  const entries: CareEntry[] = []
  const said = dirty[key]
  const soils = groups.flatMap((group) => (said?.soils[group.subject] ?? []).map((soil) => ({ group: group.id, soil })))
  for (const group of groups) {
    const list = said?.soils[group.subject]
    if (list)
      entries.push({ kind: 'soil', group: group.id, soils: [...list], words: `${group.words}: ${list.join(', ')}` })
  }
  const card = cleaningCard(description, soils, { shelf: ['isopropyl', 'mineral-spirit', 'contact-cleaner-safe'] })
  for (const step of card.steps.slice(0, said?.done ?? 0))
    if (step.way)
      entries.push({
        kind: 'cleaned',
        step: step.id,
        subject: step.group.subject,
        soil: step.soil.id,
        agent: step.way.agent,
        method: step.way.method,
        pieces: Math.max(1, step.group.pieces),
        minutes: Math.round(step.way.minutes * 11) / 10,
        driesMinutes: Math.round(step.driesMinutes),
        words: `${step.group.words}: ${step.soil.words}. ${step.way.words}`,
      })
  for (const point of lubricationCard(description).points.slice(0, oiled[key] ?? 0))
    entries.push({
      kind: 'oiled',
      point: point.id,
      product: point.product ?? '',
      quarters: point.quarters,
      words: `${point.name}, ${point.product}, ${point.amount}`,
    })
  return entries
}

/** What cleaning took in an earlier job: treads and backs, by what the owner's floor is like. */
export function earlierCleaning(description: EngineDescription, soil: string, perSet: number): CareEntry[] {
  const groups = cleaningGroups(description).filter((group) => ['treads', 'wheel-backs'].includes(group.subject))
  return groups.map((group): CareEntry => ({
    kind: 'cleaned',
    step: `${group.id} ${soil}`,
    subject: group.subject,
    soil,
    agent: 'isopropyl',
    method: 'bud',
    pieces: Math.max(1, group.pieces),
    minutes: Math.round(perSet * Math.max(1, group.pieces) * 10) / 10,
    driesMinutes: 10,
    words: `${group.words}: ${soil.replaceAll('-', ' ')}`,
  }))
}

/** Days ago, at which show, and which engines ran for how long. */
export const demoRunningHours: ReadonlyArray<
  readonly [daysAgo: number, show: string, rows: ReadonlyArray<readonly [key: string, hours: number]>]
> = [
  [
    150,
    '',
    [
      ['moor-5', 4],
      ['orrin-7', 1.5],
    ],
  ],
  [
    122,
    'Autumn meeting',
    [
      ['moor-5', 7],
      ['ridge-61', 6],
      ['glen-18', 6],
      ['shunter-9', 3],
    ],
  ],
  [
    96,
    '',
    [
      ['moor-5', 3.5],
      ['fjell-92', 1],
    ],
  ],
  [
    71,
    '',
    [
      ['moor-5', 4.5],
      ['orrin-7', 2],
    ],
  ],
  [
    44,
    'Quayside running day',
    [
      ['moor-5', 6.5],
      ['ridge-61', 7],
      ['glen-18', 5.5],
      ['shunter-9', 4],
    ],
  ],
  [
    30,
    '',
    [
      ['fjell-92', 1.5],
      ['orrin-7', 1],
    ],
  ],
  [
    16,
    '',
    [
      ['moor-5', 3],
      ['ridge-61', 4.5],
    ],
  ],
  [
    9,
    'Club evening',
    [
      ['moor-5', 2.5],
      ['ridge-61', 3],
      ['glen-18', 3],
      ['shunter-9', 2],
    ],
  ],
]
