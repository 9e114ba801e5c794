import { areas, type Area } from '../../knowledge/knowledge-schema'
import type { BenchTest } from '../places/bench-tests'
import { afterOutcome, type ActChoice } from './value-of-acts'
import type { Worlds } from './worlds'

/** The parts of the chain as they stand in a sentence. */
const sides: Readonly<Record<Area, string>> = {
  outside: 'in the track or the controller',
  pickup: 'between the rails and the wiring',
  wiring: 'in the leads and joints',
  board: 'in the decoder or its leads',
  motor: 'in the motor',
  drive: 'in gears, shafts and joints',
  'running-gear': 'in the wheels and axles',
  body: 'in the lamps or the body',
  switch: 'in the reversing switch',
  assembly: 'in how it was put together',
}
/** An outcome that hardly ever comes explains nothing. */
const COMES = 0.04

/**
 * @example percent(0.534) // '53 %'
 */
export function percent(chance: number): string {
  return chance > 0 && chance < 0.01
    ? 'under 1 %'
    : chance > 0.99 && chance < 1
      ? 'over 99 %'
      : `${Math.round(100 * chance)} %`
}

export function inMinutes(minutes: number): string {
  return minutes < 10 ? `${minutes.toFixed(1)} min` : `${Math.round(minutes)} min`
}

/** Which side of the chain each likely answer of the best question leaves. */
export function sidesInWords(worlds: Worlds, { questions, way }: ActChoice): string {
  const [question] = questions
  if (!question) return 'It is the cheapest way to be surer that nothing is left.'
  const { test, name } = worlds.belief.engine.tests[question.test] as BenchTest
  const seen = [...question.outcomes.keys()].filter((outcome) => (question.outcomes[outcome] as number) > COMES)
  const told = seen.map((outcome) => ({ outcome, side: sideAfter(worlds, question.test, outcome) }))
  const spared = way.parts.length === 0 ? ' Nothing has to come off for it.' : ''
  const [first, second] = [told[0], told.find(({ side }) => side !== told[0]?.side)]
  if (!first || told.length < 2) return `${name} tells most now.${spared}`
  const says = (outcome: number): string => `“${test.outcomes[outcome]?.name ?? ''}”`
  const leaves = ({ outcome, side }: { readonly outcome: number; readonly side: string | null }): string =>
    side === null ? `${says(outcome)} clears it` : `${says(outcome)} leaves it most likely ${side}`
  if (!second)
    return first.side === null
      ? `${name} tells most now.${spared}`
      : `${name}: ${told.map(({ outcome }) => says(outcome)).join(' or ')} leave different places ${first.side}.${spared}`
  return `${name}: ${leaves(first)}; ${leaves(second)}.${spared}`
}

/** Null where nothing of what is looked for is left. */
function sideAfter(worlds: Worlds, test: number, outcome: number): string | null {
  const weights = afterOutcome(worlds, test, outcome)
  const byArea = new Float64Array(areas.length)
  let nothing = 0
  for (const [at, groups] of worlds.groups.entries()) {
    if (groups.length === 0) nothing += weights[at] as number
    const here = new Set(groups.map((group) => areas.indexOf(worlds.group(group).suspect.fault.area)))
    for (const area of here) byArea[area] = (byArea[area] as number) + (weights[at] as number)
  }
  const most = byArea.reduce((best, chance, area) => (chance > (byArea[best] as number) ? area : best), 0)
  return nothing > (byArea[most] as number) ? null : sides[areas[most] as Area]
}
