import { v7 as newId } from 'uuid'
import { describeConstruction } from '../core/knowledge/constructions'
import { isRefusedStrip, planStrip } from '../core/strip/plan-strip'
import { nextCell, type Cell } from '../core/strip/tray'
import { wayBack } from '../core/strip/way-back'
import type { StripEntry, TrayFields } from '../messages/strip-entries'

/** The trays of the demo's bench. */
export const trays: readonly TrayFields[] = [
  { id: '018f0000-0000-7000-8000-0000000000a1', name: 'Steel tray', rows: 3, columns: 6, magnetic: true, lid: false },
  { id: '018f0000-0000-7000-8000-0000000000a2', name: 'Lidded box', rows: 3, columns: 6, magnetic: false, lid: true },
  { id: '018f0000-0000-7000-8000-0000000000a3', name: 'Blue tray', rows: 4, columns: 5, magnetic: false, lid: true },
  { id: '018f0000-0000-7000-8000-0000000000a4', name: 'Window tray', rows: 4, columns: 6, magnetic: false, lid: true },
]
const [steel, lidded, blue, window] = trays.map((tray) => tray.id)

interface DemoStrip {
  readonly goals: readonly string[]
  readonly trays: readonly (string | undefined)[]
  /** So many of the plan's steps are done; all of them where left out. */
  readonly taken?: number
  /** So many steps of the way back are done. */
  readonly back?: number
  /** What was noted of a thing as it came off. */
  readonly ways: Readonly<Record<string, string>>
  readonly notAsPlanned: ReadonlyArray<Omit<Extract<StripEntry, { kind: 'not-as-planned' }>, 'kind' | 'findingId'>>
  readonly provisional?: string
}

/** Three engines that stand in pieces. */
export const demoStrips: Readonly<Record<string, DemoStrip>> = {
  'bus-1': {
    goals: ['usual.wheel-sets', 'usual.motor', 'usual.tyres'],
    trays: [steel, lidded],
    taken: 4,
    ways: { body: 'buffer with the chipped corner to the rear' },
    notAsPlanned: [],
  },
  'ridge-48': {
    goals: ['usual.motor', 'usual.wheel-sets'],
    trays: [blue],
    back: 11,
    ways: { body: 'long bonnet towards the number 2 end' },
    notAsPlanned: [
      { part: 'lamp-front', words: 'Front lamp', what: 'misassembled', remark: 'its shell lay against the frame' },
    ],
  },
  'glen-15': {
    goals: ['usual.wheel-sets'],
    trays: [window],
    ways: {},
    notAsPlanned: [],
    provisional: 'Clip lead from the rear bogie to the board',
  },
}

/** The entries of one such engine, in order. */
export function stripEntriesOf(key: string, construction: string, power: 'dc' | 'ac' | 'dcc'): StripEntry[] {
  const demo = demoStrips[key]
  if (!demo) return []
  const description = describeConstruction(construction, power)
  const plan = planStrip(description, demo.goals)
  if (isRefusedStrip(plan)) throw new Error(`${key}: ${plan.refused.message}`)
  const own = trays.filter((tray) => demo.trays.includes(tray.id))
  const cells: Cell[] = []
  const parts = new Map(description.parts.map((part) => [part.id, part]))
  const taken = plan.steps.slice(0, demo.taken ?? plan.steps.length)
  const off = taken.map(({ part, name }): StripEntry => {
    const cell = nextCell(own, cells, parts.get(part) as NonNullable<ReturnType<typeof parts.get>>)
    if (cell) cells.push(cell)
    return { kind: 'off', part, words: name, cell, way: demo.ways[part] ?? '', count: 1, minutes: null }
  })
  const back = wayBack(
    description,
    taken.map((step) => step.part),
  ).slice(0, demo.back ?? 0)
  return [
    { kind: 'goals', goals: [...demo.goals], leaveOn: [], overruled: [] },
    { kind: 'trays', trays: own.map((tray) => tray.id) },
    ...off,
    ...demo.notAsPlanned.map((entry): StripEntry => ({ ...entry, kind: 'not-as-planned', findingId: null })),
    ...back.map((step): StripEntry => {
      if (step.kind === 'fit') return { kind: 'back', part: step.part, words: step.name, fate: 'placed', remark: '' }
      const words = step.kind === 'direction' ? 'Direction tried' : step.name
      return step.kind === 'lubricate'
        ? { kind: 'done', step: `oil ${step.point}`, part: null, words }
        : step.kind === 'direction'
          ? { kind: 'done', step: `direction ${step.before}`, part: null, words }
          : { kind: 'done', step: `${step.kind} ${step.after}`, part: step.after, words }
    }),
    ...(demo.provisional
      ? [{ kind: 'provisional' as const, thing: newId(), words: demo.provisional, gone: false }]
      : []),
  ]
}

/** The part that comes off next on such an engine; null where everything asked for lies open. */
export function nextPartOf(key: string, construction: string, power: 'dc' | 'ac' | 'dcc'): string | null {
  const demo = demoStrips[key]
  if (!demo) return null
  const off = stripEntriesOf(key, construction, power).flatMap((entry) => (entry.kind === 'off' ? [entry.part] : []))
  const plan = planStrip(describeConstruction(construction, power), demo.goals, { off: new Set(off) })
  return isRefusedStrip(plan) || demo.taken === undefined ? null : (plan.steps[0]?.part ?? null)
}
