import { Type, type Static } from '@sinclair/typebox'
import { Diagnosis } from '../core/diagnosis/diagnosis'
import { circumstances, equipment } from '../core/knowledge/knowledge-schema'
import { constructionPlans, describeConstruction } from '../core/knowledge/constructions'
import { diagnosisKnowledge } from '../core/knowledge/diagnosis-knowledge'
import { closed, OneOf } from '../core/schema/pieces'
import { describedIn, readReckonFile } from './reckon-file'
import { SentenceError } from './sentence-error'

const State = Type.Integer({ minimum: 0, maximum: 500 })

const SearchFile = Type.Object(
  {
    /** A name, or a whole description. */
    construction: Type.Unknown(),
    power: Type.Optional(OneOf(['dc', 'ac', 'dcc'] as const)),
    circumstances: Type.Optional(Type.Array(OneOf(circumstances))),
    equipment: Type.Optional(Type.Array(OneOf(equipment))),
    findings: Type.Array(
      Type.Object({ test: Type.String(), outcome: Type.String(), state: Type.Optional(State) }, closed),
      { maxItems: 200 },
    ),
    events: Type.Optional(
      Type.Array(
        Type.Union([
          Type.Object(
            { kind: OneOf(['confirmed', 'repaired', 'ruled-out'] as const), suspect: Type.String(), state: State },
            closed,
          ),
          Type.Object({ kind: Type.Literal('refitted'), state: State }, closed),
        ]),
        { maxItems: 200 },
      ),
    ),
    off: Type.Optional(Type.Array(Type.String())),
    refused: Type.Optional(Type.Array(Type.String())),
  },
  closed,
)
type SearchFile = Static<typeof SearchFile>

/**
 * What is wrong and which test is next, for a search given as JSON.
 *
 * @param text of the file; see docs/formats.md
 * @throws SentenceError saying what is wrong with the file, the place named
 */
export function reckonFind(text: string): object {
  const file = readReckonFile<SearchFile>(SearchFile, text)
  const description = describedIn(file)
  const diagnosis = new Diagnosis(description, diagnosisKnowledge, {
    ...(file.circumstances ? { circumstances: file.circumstances } : {}),
    ...(file.equipment ? { equipment: file.equipment } : {}),
  })
  const parts = new Set(description.parts.map((part) => part.id))
  const strange = (file.off ?? []).find((id) => !parts.has(id))
  if (strange !== undefined) throw new SentenceError(`off: there is no part “${strange}” in ${description.name}.`)
  const findings = file.findings.map((finding, index) => ({
    id: String(index),
    test: finding.test,
    outcome: finding.outcome,
    state: finding.state ?? 0,
  }))
  let report
  try {
    report = diagnosis.report(
      { findings, events: (file.events ?? []) as never },
      { off: file.off ?? [], refused: file.refused ?? [] },
    )
  } catch (error) {
    if (error instanceof RangeError)
      throw new SentenceError(`${error.message} “bin/reckon find --list” names them all.`)
    throw error
  }
  const finding = (id: string): object => ({
    test: findings[Number(id)]?.test,
    outcome: findings[Number(id)]?.outcome,
    state: findings[Number(id)]?.state,
  })
  return {
    construction: description.id,
    ...(typeof file.construction === 'string' && file.construction !== description.id
      ? { note: 'This construction is not known: a generic machine stands in for it.' }
      : {}),
    state: report.state,
    advice: report.advice,
    suspects: report.suspects.map((suspect) => ({
      id: suspect.id,
      fault: suspect.fault,
      place: suspect.place,
      area: suspect.area,
      words: suspect.words,
      probability: rounded(suspect.chance),
      confirmed: suspect.confirmed,
      remedy: suspect.remedy.words,
      minutes: rounded(suspect.totalMinutes),
      speaksFor: suspect.speaksFor.map((entry) => ({ ...finding(entry.finding), times: rounded(entry.times) })),
      speaksAgainst: suspect.speaksAgainst.map((entry) => ({ ...finding(entry.finding), times: rounded(entry.times) })),
    })),
    nothingElse: rounded(report.nothingElse),
    next: report.next.map((test) => ({
      id: test.id,
      words: test.words,
      how: test.how,
      minutes: rounded(test.totalMinutes),
      takesOff: test.takesOff,
      value: rounded(test.value),
      why: test.why,
      outcomes: test.outcomes.map((outcome) => ({ ...outcome, chance: rounded(outcome.chance) })),
    })),
    contradictions: report.contradictions.map((entry) => ({
      repeat: finding(entry.repeat),
      against: finding(entry.against),
      chance: rounded(entry.chance),
      words: entry.words,
    })),
  }
}

/** Ids of all faults, tests with their outcomes, circumstances and constructions. */
export function listKnowledge(): object {
  return {
    constructions: constructionPlans.map((plan) => plan.id),
    circumstances: [...circumstances],
    faults: diagnosisKnowledge.faults.map(({ id, name, area, role }) => ({ id, words: name, area, role })),
    tests: diagnosisKnowledge.tests.map(({ id, name, role, outcomes }) => ({
      id,
      words: name,
      role,
      outcomes: outcomes.map((outcome) => ({ id: outcome.id, words: outcome.name })),
    })),
  }
}

/** Ids as they stand for one construction, places named. */
export function listFor(construction: string, power: 'dc' | 'ac' | 'dcc'): object {
  if (!constructionPlans.some((plan) => plan.id === construction))
    throw new SentenceError(
      `There is no construction “${construction}”: it is one of ${constructionPlans.map((plan) => plan.id).join(', ')}.`,
    )
  const { engine } = new Diagnosis(describeConstruction(construction, power), diagnosisKnowledge)
  return {
    suspects: engine.suspects.map(({ id, name }) => ({ id, words: name })),
    tests: engine.tests.map(({ id, name, test }) => ({
      id,
      words: name,
      outcomes: test.outcomes.map((outcome) => outcome.id),
    })),
    parts: engine.description.parts.map(({ id, name }) => ({ id, words: name })),
  }
}

function rounded(value: number): number {
  return Number(value.toPrecision(4))
}
