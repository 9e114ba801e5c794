import { appendFileSync, existsSync, readFileSync } from 'node:fs'
import { gunzipSync } from 'node:zlib'
import type { Policy, SearchOutcome } from './search-casualty'

/** What came of a search, without what was seen and done on the way. */
export interface SearchFigures extends Omit<SearchOutcome, 'history' | 'truth' | 'beliefs'> {
  readonly truth: ReadonlyArray<{ readonly name: string; readonly place: string; readonly intermittent: boolean }>
  /** Of the beliefs in each tenth: their sum, how many were so, how many there were. */
  readonly tenths: ReadonlyArray<readonly [believed: number, so: number, count: number]>
  /** What was believed over nine tenths and not so, each time. */
  readonly wronglySure: readonly string[]
}

/** One search as it stands in a file, a line of JSON each: a run that is killed goes on where it stopped, and several runs are summed up as one. */
export interface SearchLine {
  readonly seed: number
  readonly policy: Policy
  readonly perturbed: boolean
  readonly outcome: SearchFigures
}

export function writeLine(
  file: string,
  seed: number,
  policy: Policy,
  perturbed: boolean,
  outcome: SearchOutcome,
): void {
  const line: SearchLine = { seed, policy, perturbed, outcome: figuresOf(outcome) }
  appendFileSync(file, `${JSON.stringify(line)}\n`)
}

function figuresOf({
  history: _history,
  truth,
  beliefs,
  updateMilliseconds,
  ...figures
}: SearchOutcome): SearchFigures {
  return {
    ...figures,
    truth: truth.map(({ name, place, intermittent }) => ({ name, place: place.id, intermittent })),
    tenths: Array.from({ length: 10 }, (_, tenth) => {
      const here = beliefs.filter(([chance]) => Math.min(9, Math.floor(chance * 10)) === tenth)
      return [
        Number(here.reduce((sum, [chance]) => sum + chance, 0).toFixed(3)),
        here.filter(([, so]) => so).length,
        here.length,
      ] as const
    }),
    wronglySure: beliefs.flatMap(([chance, so, group]) => (chance > 0.9 && !so ? [group] : [])),
    updateMilliseconds: updateMilliseconds.map(Math.round),
  }
}

/** All whole lines of a file, packed or not, none where there is no such file; the line a killed run was writing is left out. */
export function linesOf(file: string): SearchLine[] {
  if (!existsSync(file)) return []
  const text = file.endsWith('.gz') ? gunzipSync(readFileSync(file)).toString() : readFileSync(file, 'utf8')
  return text
    .slice(0, text.lastIndexOf('\n') + 1)
    .split('\n')
    .filter((line) => line !== '')
    .map((line) => JSON.parse(line) as SearchLine)
}
