import type { EngineDescription } from '../engine/description-schema'
import { asksFor } from '../knowledge/asks-for'
import { careKnowledge } from '../knowledge/care/care-knowledge'
import rows from '../knowledge/care/finish-tasks.json'
import { schools as allSchools } from '../knowledge/schools'
import type { ChosenSchools } from '../knowledge/schools-of-practice'
import { cleaningGroups } from './cleaning-groups'
import { judgeWay } from './judge-way'

/** One thing to do on the outside of an engine. */
export interface FinishStep {
  readonly words: string
  readonly minutes: number
  readonly agent: string | null
  readonly method: string
  readonly waitMinutes: number
  readonly waitFor: string
  readonly caution: string
}

interface FinishRow {
  readonly id: string
  readonly name: string
  /** How an owner asks for it. */
  readonly words: readonly string[]
  readonly needs: readonly string[]
  /** Done to what is near mint as well. */
  readonly nearMint: boolean
  readonly steps: readonly FinishStep[]
  readonly source: string
}
export const finishRows = rows as readonly FinishRow[]

/** Finish or detail as work on one engine. */
export interface FinishTask {
  readonly id: string
  readonly name: string
  readonly steps: readonly FinishStep[]
  /** What the owner wrote asks for it. */
  readonly wished: boolean
  /** Why it is not to be done here; empty where it may. Overruled by a word, which is kept. */
  readonly refused: string
}

export interface FinishAsked {
  /** What the owner wants, in words. */
  readonly wanted: string
  /** As new, or nearly: left as it is. */
  readonly nearMint: boolean
  readonly sentimental: boolean
  /** What the owner agreed to; empty where nothing is noted. */
  readonly consent: string
  readonly chosen?: ChosenSchools
}

/**
 * What can be done to the finish and the details of this engine, with what stands against it: what is near mint is
 * left as it is, what is treasured waits for consent, and no agent touches paint or print that it harms.
 *
 * @example finishTasks(describeConstruction('tank-can'), { wanted: 'washed', nearMint: false, sentimental: false, consent: '' }).length > 0 // true
 */
export function finishTasks(description: EngineDescription, asked: FinishAsked): FinishTask[] {
  const kinds = new Set<string>(description.parts.map((part) => part.kind))
  return finishRows
    .filter(({ needs }) => needs.every((kind) => kinds.has(kind)))
    .map((row): FinishTask => ({
      id: row.id,
      name: row.name,
      steps: row.steps,
      wished: asksFor(asked.wanted, row.words),
      refused: whyNot(description, row, asked),
    }))
}

function whyNot(description: EngineDescription, row: FinishRow, asked: FinishAsked): string {
  if (asked.nearMint && !row.nearMint) return 'It is near mint: left as it is, it is worth more.'
  if (asked.sentimental && asked.consent.trim() === '')
    return 'It has sentimental or collector’s value, and no consent is noted: ask first.'
  const practice = { knowledge: careKnowledge, schools: allSchools, chosen: asked.chosen ?? {} }
  for (const group of cleaningGroups(description).filter(({ subject }) => subject === 'body'))
    for (const { agent, method } of row.steps) {
      if (agent === null) continue
      const judged = judgeWay(group, { agent, method }, practice)
      if (judged.level === 'never') return judged.because[0]?.why ?? 'It harms what it touches.'
    }
  return ''
}
