import type { Policy, SearchFigures } from './search-casualty'
import type { SearchLine } from './search-record'
import { bootstrapped, foundShare, foundShareOf, meanMinutes, minutesRatio, reliability, type Interval } from './search-summary'

const say = ({ value, low, high }: Interval, digits: number): string => `${value.toFixed(digits)} (${low.toFixed(digits)} to ${high.toFixed(digits)})`

/**
 * What searches come to, in words: means with 95 % bootstrap intervals over those casualties that were searched in
 * every way.
 */
export function report(lines: readonly SearchLine[]): string {
  const of = (policy: Policy): Map<string, SearchLine> => new Map(lines.filter((line) => line.policy === policy).map((line) => [`${line.seed}/${line.perturbed}`, line]))
  const [advice, checklist, probable] = [of('advice'), of('checklist'), of('most-probable-first')]
  const seeds = [...advice.keys()].filter((seed) => checklist.has(seed) && probable.has(seed))
  const count = seeds.length
  if (count === 0) return 'No casualty was searched in all three ways.'
  const outcomes = (searches: Map<string, SearchLine>): SearchFigures[] => seeds.flatMap((seed) => searches.get(seed)?.outcome ?? [])
  const advised = outcomes(advice)
  const text = [`${count} casualties${lines.some((line) => line.perturbed) ? ', knowledge perturbed' : ''}; means with 95 % bootstrap intervals`]
  for (const [policy, list] of [['advice', advised], ['checklist', outcomes(checklist)], ['most probable first', outcomes(probable)]] as const) {
    const updates = list.flatMap((outcome) => outcome.updateMilliseconds).sort((one, other) => one - other)
    const top = (pick: readonly number[]): number => pick.filter((index) => list[index]?.lastOnTop).length / pick.length
    const needless = list.reduce((sum, outcome) => sum + outcome.needlessRepairs, 0) / count
    text.push(`${policy}: found ${say(bootstrapped(count, foundShare(list)), 3)}, minutes ${say(bootstrapped(count, meanMinutes(list)), 1)}, last fault on top ${say(bootstrapped(count, top), 3)}, needless repairs ${needless.toFixed(2)}, update median ${updates[updates.length >> 1]?.toFixed(0)} ms`)
  }
  text.push(`advice, found of what is always there: ${say(bootstrapped(count, foundShareOf(advised, false)), 3)}; of what comes and goes: ${say(bootstrapped(count, foundShareOf(advised, true)), 3)}`)
  text.push(`minutes against the checklist: ${say(bootstrapped(count, minutesRatio(advised, outcomes(checklist))), 2)}`)
  text.push(`minutes against most probable first: ${say(bootstrapped(count, minutesRatio(advised, outcomes(probable))), 2)}`)
  text.push(`believed → so: ${reliability(advised).map(({ believed, so, count: beliefs }) => `${believed.toFixed(2)} → ${so.toFixed(2)} (${beliefs})`).join(', ')}`)
  text.push(`missed by the advice: ${tally(advised.flatMap(({ missed }) => missed.map((fault) => fault.split(' @ ')[0] as string)), advised.flatMap(({ truth }) => truth.map(({ name }) => name)))}`)
  return text.join('\n')
}

/** Names counted among all of their kind, most first. */
function tally(names: readonly string[], all: readonly string[]): string {
  const count = (list: readonly string[], name: string): number => list.filter((other) => other === name).length
  return [...new Set(names)].sort((one, other) => count(names, other) - count(names, one)).map((name) => `${name} ${count(names, name)} of ${count(all, name)}`).join(', ')
}
