import type { Policy } from './search-casualty'
import type { SearchFigures, SearchLine } from './search-record'
import {
  bootstrapped,
  foundShare,
  foundShareOf,
  meanMinutes,
  meanOf,
  minutesRatio,
  reliability,
  type Interval,
  type Sample,
} from './search-summary'

const say = ({ value, low, high }: Interval, digits: number): string =>
  `${value.toFixed(digits)} (${low.toFixed(digits)} to ${high.toFixed(digits)})`

/**
 * What searches come to, in words: means over the machines, with 95 % bootstrap intervals, of those casualties that were
 * searched in every way; where none was, of those searched as advised.
 */
export function report(lines: readonly SearchLine[]): string {
  const of = (policy: Policy): Map<string, SearchLine> =>
    new Map(lines.filter((line) => line.policy === policy).map((line) => [`${line.seed}/${line.perturbed}`, line]))
  const [advice, checklist, probable] = [of('advice'), of('checklist'), of('most-probable-first')]
  const every = [...advice.keys()].filter((seed) => checklist.has(seed) && probable.has(seed))
  const alone = every.length === 0
  const seeds = alone ? [...advice.keys()] : every
  const count = seeds.length
  if (count === 0) return 'No casualty was searched as advised.'
  const outcomes = (searches: Map<string, SearchLine>): SearchFigures[] =>
    seeds.flatMap((seed) => searches.get(seed)?.outcome ?? [])
  const advised = outcomes(advice)
  const machines = advised.map(({ construction }) => construction)
  const interval = (statistic: (sample: Sample) => number, digits: number): string =>
    say(bootstrapped(machines, statistic), digits)
  const text = [
    `${count} casualties of ${new Set(machines).size} machines${lines.some((line) => line.perturbed) ? ', knowledge perturbed' : ''}; means over the machines, with 95 % bootstrap intervals`,
  ]
  for (const [policy, list] of [
    ['advice', advised],
    ['checklist', outcomes(checklist)],
    ['most probable first', outcomes(probable)],
  ] as const) {
    if (list.length === 0) continue
    const updates = list.flatMap((outcome) => outcome.updateMilliseconds).sort((one, other) => one - other)
    const actsOf = (some: readonly SearchFigures[]): string => {
      const sorted = some.map(({ acts }) => acts).sort((one, other) => one - other)
      return `${sorted[sorted.length >> 1] ?? 0}, ${sorted[Math.floor(0.9 * sorted.length)] ?? 0}, ${sorted.at(-1) ?? 0} (${sorted.length})`
    }
    text.push(
      `${policy}: acts, median, nine tenths and most (casualties): up to three faults ${actsOf(list.filter(({ wrong }) => wrong <= 3))}, more ${actsOf(list.filter(({ wrong }) => wrong > 3))}`,
    )
    text.push(
      `${policy}: found ${interval(foundShare(list), 3)}, minutes ${interval(meanMinutes(list), 1)}, last fault on top ${interval(
        meanOf(list, ({ lastOnTop }) => Number(lastOnTop)),
        3,
      )}, needless repairs ${interval(
        meanOf(list, ({ needlessRepairs }) => needlessRepairs),
        2,
      )}, update median ${updates[updates.length >> 1]?.toFixed(0)} ms`,
    )
  }
  text.push(
    `advice, found of what is always there: ${interval(foundShareOf(advised, false), 3)}; of what comes and goes: ${interval(foundShareOf(advised, true), 3)}`,
  )
  if (!alone) {
    text.push(`minutes against the checklist: ${interval(minutesRatio(advised, outcomes(checklist)), 2)}`)
    text.push(`minutes against most probable first: ${interval(minutesRatio(advised, outcomes(probable)), 2)}`)
  }
  text.push(
    `believed → so: ${reliability(advised)
      .map(({ believed, so, count: beliefs }) => `${believed.toFixed(2)} → ${so.toFixed(2)} (${beliefs})`)
      .join(', ')}`,
  )
  text.push(
    `missed by the advice: ${tally(
      advised.flatMap(({ missed }) => missed.map((fault) => fault.split(' @ ')[0] as string)),
      advised.flatMap(({ truth }) => truth.map(({ name }) => name)),
    )}`,
  )
  text.push(
    `wrongly sure: ${tally(
      advised.flatMap(({ wronglySure }) => wronglySure),
      [],
    )}`,
  )
  return text.join('\n')
}

/** Names counted, most first, and among how many of their kind where these are given. */
function tally(names: readonly string[], all: readonly string[]): string {
  const count = (list: readonly string[], name: string): number => list.filter((other) => other === name).length
  return [...new Set(names)]
    .sort((one, other) => count(names, other) - count(names, one))
    .map((name) => `${name} ${count(names, name)}${all.length > 0 ? ` of ${count(all, name)}` : ''}`)
    .join(', ')
}
