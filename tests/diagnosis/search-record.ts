import { appendFileSync, existsSync, readFileSync } from 'node:fs'
import type { Policy, SearchFigures, SearchOutcome } from './search-casualty'

/** One search as it stands in a file, a line of JSON each: a run that is killed goes on where it stopped, and several runs are summed up as one. */
export interface SearchLine {
  readonly seed: number
  readonly policy: Policy
  readonly perturbed: boolean
  readonly outcome: SearchFigures
}

export function writeLine(file: string, seed: number, policy: Policy, perturbed: boolean, { history: _, ...outcome }: SearchOutcome): void {
  const line: SearchLine = { seed, policy, perturbed, outcome }
  appendFileSync(file, `${JSON.stringify(line)}\n`)
}

/** All whole lines of a file, none where there is no such file; the line a killed run was writing is left out. */
export function linesOf(file: string): SearchLine[] {
  if (!existsSync(file)) return []
  const text = readFileSync(file, 'utf8')
  return text.slice(0, text.lastIndexOf('\n') + 1).split('\n').filter((line) => line !== '').map((line) => JSON.parse(line) as SearchLine)
}
