import { placesOf } from '../core/diagnosis/places/places-of'
import { suspectsOf } from '../core/diagnosis/places/suspects'
import { tools as everyTool, type EngineDescription, type Tool } from '../core/engine/description-schema'
import { planStrip, type StripPlan, type StripRefusal } from '../core/strip/plan-strip'
import { stripGoals, type StripGoal } from '../core/strip/strip-goals'
import type { JobBook } from '../messages/book'
import { openSuspects } from './open-suspects'
import { knowledgeOf } from './practised-knowledge'
import { suggestedGoals, type SuggestedGoal } from './suggested-goals'
import { stripState, type StripState } from './strip-state'

/** Taking apart, for one job: what for, what next, where it stands. */
export interface JobStrip {
  readonly state: StripState
  /** Everything it can be opened for, what the job itself asks for first. */
  readonly goals: readonly StripGoal[]
  /** Of those, what a confirmed finding asks for. */
  readonly asked: readonly string[]
  /** What else the job speaks of, and is not chosen. */
  readonly suggested: readonly SuggestedGoal[]
  /** What it is opened for now. */
  readonly chosen: readonly string[]
  readonly plan: StripPlan | StripRefusal | null
}

/**
 * The strip plan of a job: goals come from what is confirmed and not mended, and by hand; what is off already is done.
 *
 * @param missingTools tools the shop has not
 */
export function stripOfJob(
  book: Pick<JobBook, 'strip' | 'search' | 'practice' | 'job' | 'parts'>,
  description: EngineDescription,
  missingTools: readonly Tool[] = [],
): JobStrip {
  const state = stripState(book.strip, book.search)
  const mending = goalsOfMending(book, description)
  const goals = [...mending, ...stripGoals(description)]
  const known = new Set(goals.map((goal) => goal.id))
  const byHand = state.standing.some((row) => row.entry.kind === 'goals')
  const chosen = (byHand ? state.goals : mending.map((goal) => goal.id)).filter((id) => known.has(id))
  const tools = new Set<Tool>(everyTool.filter((tool) => !missingTools.includes(tool)))
  const options = {
    off: new Set(state.off.keys()),
    on: new Set(state.leaveOn),
    overruled: new Set(state.overruled),
    tools,
    more: mending,
    order: state.order,
  }
  const asked = mending.map((goal) => goal.id)
  const suggested = suggestedGoals(book, goals).filter(({ goal }) => !chosen.includes(goal))
  return {
    state,
    goals,
    asked,
    suggested,
    chosen,
    plan: chosen.length === 0 ? null : planStrip(description, chosen, options),
  }
}

/** What confirmed faults that are not mended yet want off. */
function goalsOfMending(book: Pick<JobBook, 'search' | 'practice'>, description: EngineDescription): StripGoal[] {
  const open = openSuspects(book.search)
  if (open.size === 0) return []
  const knowledge = knowledgeOf(book.practice, description)
  return suspectsOf(description, placesOf(description), knowledge, new Set())
    .filter((suspect) => open.has(suspect.id) && suspect.goal.length > 0)
    .map((suspect): StripGoal => ({
      id: `mend.${suspect.id}`,
      kind: 'usual',
      words: `To mend: ${suspect.name}`,
      off: suspect.goal,
      on: [],
    }))
}
