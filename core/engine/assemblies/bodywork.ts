import { removal, type Draft } from './draft'
import type { EntryOf } from './plan-schema'
import { inSentence } from '../name-in-sentence'

/** Any part with its own removal; without minutes it never comes off by itself. */
export function addPart(draft: Draft, entry: EntryOf<'part'>): void {
  const { as: id, name, kind, unit, materials, place = '', heldBy = '', grams = null } = entry
  draft.part({
    id,
    name,
    kind,
    unit,
    materials,
    place,
    heldBy,
    massGrams: grams,
    removal:
      entry.minutes === undefined
        ? null
        : removal({
            minutes: entry.minutes,
            refitMinutes: entry.refit ?? entry.minutes * 1.5,
            needs: entry.behind ?? [],
            tools: entry.tools ?? ['fingers'],
            risk: entry.risk ?? 0.005,
            replacement: entry.replacement ?? 'order',
            hazards: entry.hazards ?? [],
            leaveAlone: entry.leaveAlone ?? '',
            wayBack: entry.wayBack ?? '',
          }),
  })
}

const fastenerRemoval = {
  screw: {
    minutes: 0.7,
    refitMinutes: 1,
    tools: ['screwdriver'],
    risk: 0.003,
    replacement: 'scrap-box',
    wayBack: 'Its own length and head: back to its own place. Snug, not hard.',
  },
  clip: { minutes: 0.5, refitMinutes: 0.5, tools: ['fingers'], risk: 0.03, replacement: 'rare', hazards: ['brittle'] },
  pin: { minutes: 1, refitMinutes: 1.5, tools: ['pliers'], risk: 0.02, replacement: 'easy', hazards: ['small-parts'] },
} as const

/** A body or cover with what holds it. */
export function addShell(draft: Draft, entry: EntryOf<'shell'>): void {
  const { as: id, unit, fasteners } = entry
  for (const fastener of fasteners) {
    const usual = fastenerRemoval[fastener.kind]
    draft.part({
      id: fastener.as,
      name: fastener.name,
      kind: 'fastener',
      unit,
      materials: [fastener.kind === 'clip' ? 'styrene' : 'steel'],
      place: fastener.place,
      removal: removal({
        ...usual,
        tools: [...usual.tools],
        hazards: 'hazards' in usual ? [...usual.hazards] : [],
        needs: fastener.behind ?? [],
        ...(fastener.wayBack ? { wayBack: fastener.wayBack } : {}),
      }),
    })
  }
  draft.part({
    id,
    name: entry.name,
    kind: 'body',
    unit,
    materials: entry.materials,
    massGrams: entry.grams ?? null,
    heldBy: fasteners.map(({ name }) => inSentence(name)).join(', '),
    removal: removal({
      minutes: entry.minutes ?? 1,
      refitMinutes: (entry.minutes ?? 1) * 1.5,
      needs: [...(entry.behind ?? []), ...(entry.either ?? fasteners.map((fastener) => [fastener.as]))],
      risk: entry.risk ?? 0.01,
      replacement: entry.replacement ?? 'rare',
      wayBack: entry.wayBack ?? 'Wires clear of moving parts before it is pressed home.',
    }),
  })
}
