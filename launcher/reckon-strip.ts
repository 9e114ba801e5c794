import { Type, type Static } from 'typebox'
import { tools as everyTool, type EngineDescription } from '../core/engine/description-schema'
import { Differences } from '../core/engine/difference-schema'
import { describeConstruction } from '../core/knowledge/constructions'
import { closed, OneOf } from '../core/schema/pieces'
import { isRefusedStrip, planStrip } from '../core/strip/plan-strip'
import { stripGoals } from '../core/strip/strip-goals'
import { goesTo } from '../core/strip/tray'
import { wayBack, type BackStep } from '../core/strip/way-back'
import { adapted, describedIn, quoted, readReckonFile } from './reckon-file'
import { SentenceError } from './sentence-error'

const PartIds = Type.Array(Type.String({ maxLength: 400 }), { maxItems: 400 })
const StripFile = Type.Object(
  {
    /** A name, or a whole description. */
    construction: Type.Unknown(),
    power: Type.Optional(OneOf(['dc', 'ac', 'dcc'] as const)),
    differences: Type.Optional(Differences),
    goals: Type.Array(Type.String({ maxLength: 400 }), { minItems: 1, maxItems: 60 }),
    off: Type.Optional(PartIds),
    /** Parts that are to stay on, and parts marked to be left alone that may come off all the same. */
    leaveOn: Type.Optional(PartIds),
    overruled: Type.Optional(PartIds),
    /** What there is on the bench; everything when left out. */
    tools: Type.Optional(Type.Array(OneOf(everyTool), { maxItems: 40 })),
  },
  closed,
)
type StripFile = Static<typeof StripFile>

/**
 * The way in for one or more goals, and the way back, for a file given as JSON.
 *
 * @param text of the file; see docs/formats.md
 * @throws SentenceError saying what is wrong with the file, the place named
 */
export function reckonStrip(text: string): object {
  const file = readReckonFile<StripFile>(StripFile, text)
  const description = adapted(describedIn(file), file.differences)
  const known = new Set(description.parts.map((part) => part.id))
  for (const field of ['off', 'leaveOn', 'overruled'] as const)
    for (const id of file[field] ?? [])
      if (!known.has(id)) throw new SentenceError(`${field}: there is no part “${quoted(id)}” in ${description.name}.`)
  const strange = file.goals.find((id) => !stripGoals(description).some((goal) => goal.id === id))
  if (strange !== undefined)
    throw new SentenceError(
      `goals: there is nothing called “${quoted(strange)}” to open ${description.name} for. “bin/reckon strip --list ${description.id}” names them all.`,
    )
  const plan = planStrip(description, file.goals, {
    off: new Set(file.off ?? []),
    on: new Set(file.leaveOn ?? []),
    overruled: new Set(file.overruled ?? []),
    ...(file.tools ? { tools: new Set(file.tools) } : {}),
  })
  if (isRefusedStrip(plan)) return { construction: description.id, ...plan }
  const parts = new Map(description.parts.map((part) => [part.id, part]))
  const back = wayBack(description, [...(file.off ?? []), ...plan.steps.map((step) => step.part)])
  return {
    construction: description.id,
    steps: plan.steps.map(({ part, name, group, minutes, tools, risk, hazards, reaches }) => ({
      part,
      words: name,
      group,
      minutes,
      tools,
      risk,
      hazards,
      goesTo: goesTo(parts.get(part) as EngineDescription['parts'][number]),
      reaches,
    })),
    back: back.map(shown),
    minutes: rounded(plan.minutes),
    backMinutes: rounded(back.reduce((sum, step) => sum + (step.kind === 'fit' ? step.minutes : 0), 0)),
    risk: rounded(plan.risk),
    breaks: plan.breaks.map((entry) => ({ ...entry, chance: rounded(entry.chance) })),
    orderFirst: plan.orderFirst,
    tools: plan.tools,
    leads: plan.leads,
    free: plan.free,
  }
}

/** Ids of what a construction can be opened for, with their words. */
export function listGoals(construction: string, power: 'dc' | 'ac' | 'dcc' = 'dc'): object {
  const description = describeConstruction(construction, power)
  return {
    construction: description.id,
    goals: stripGoals(description).map(({ id, words }) => ({ id, words })),
    parts: description.parts.map(({ id, name }) => ({ id, words: name })),
    tools: everyTool,
  }
}

function shown(step: BackStep): object {
  if (step.kind === 'fit') {
    const { part, name, minutes, tools, hazards, wayBack: way, caution } = step
    return { kind: 'fit', part, words: name, minutes, tools, hazards, wayBack: way, caution }
  }
  return step
}

const rounded = (value: number): number => Number(value.toPrecision(4))
