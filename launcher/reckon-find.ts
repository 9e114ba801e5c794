import { Type, type Static } from 'typebox'
import { Diagnosis } from '../core/diagnosis/diagnosis'
import type { TestFinding } from '../core/diagnosis/history'
import type { ObservationReport, SearchReport } from '../core/diagnosis/report/search-report'
import type { EngineDescription } from '../core/engine/description-schema'
import { circumstances, equipment } from '../core/knowledge/knowledge-schema'
import { constructionPlans, describeConstruction } from '../core/knowledge/constructions'
import { diagnosisKnowledge } from '../core/knowledge/diagnosis-knowledge'
import { closed, OneOf } from '../core/schema/pieces'
import { describedIn, readReckonFile } from './reckon-file'
import { SentenceError } from './sentence-error'

const State = Type.Integer({ minimum: 0, maximum: 500 })

/** What was noted, each with the state of the engine it was noted in. */
const Seen = Type.Array(
  Type.Object(
    { test: Type.String(), outcome: Type.String(), state: Type.Optional(State), told: Type.Optional(Type.Boolean()) },
    closed,
  ),
  { maxItems: 400 },
)
/** No id is longer in a sentence. */
const QUOTED = 80

const SearchFile = Type.Object(
  {
    /** A name, or a whole description. */
    construction: Type.Unknown(),
    power: Type.Optional(OneOf(['dc', 'ac', 'dcc'] as const)),
    circumstances: Type.Optional(Type.Array(OneOf(circumstances))),
    equipment: Type.Optional(Type.Array(OneOf(equipment))),
    findings: Type.Optional(Seen),
    /** The same by their other name; both may be given. */
    observations: Type.Optional(Seen),
    events: Type.Optional(
      Type.Array(
        Type.Union([
          Type.Object(
            { kind: OneOf(['confirmed', 'repaired', 'ruled-out'] as const), suspect: Type.String(), state: State },
            closed,
          ),
          Type.Object(
            { kind: Type.Literal('refitted'), state: State, touched: Type.Optional(Type.Array(Type.String())) },
            closed,
          ),
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
  refuseMisfits(file, description)
  const events = file.events ?? []
  refuseUntold(events)
  const diagnosis = new Diagnosis(description, diagnosisKnowledge, {
    ...(file.circumstances ? { circumstances: file.circumstances } : {}),
    ...(file.equipment ? { equipment: file.equipment } : {}),
  })
  const findings = [...(file.findings ?? []), ...(file.observations ?? [])].map((finding, index) => ({
    id: String(index),
    test: finding.test,
    outcome: finding.outcome,
    state: finding.state ?? 0,
    ...(finding.told === true ? { told: true } : {}),
  }))
  let report
  try {
    report = diagnosis.report(
      { findings, events: events as never },
      { off: file.off ?? [], refused: file.refused ?? [] },
    )
  } catch (error) {
    if (error instanceof RangeError)
      throw new SentenceError(
        `${error.message.replace(/“([^”]{80})[^”]+”/g, `“$1…”`)} “bin/reckon find --list” names them all.`,
      )
    throw error
  }
  return {
    construction: description.id,
    ...(typeof file.construction === 'string' && file.construction !== description.id
      ? { note: 'This construction is not known: a generic machine stands in for it.' }
      : {}),
    ...written(report, findings),
  }
}

/** What does not go with the machine is refused before anything is reckoned. */
function refuseMisfits(file: SearchFile, description: EngineDescription): void {
  const runsOn = description.power.toUpperCase()
  if (file.power !== undefined && file.power !== description.power)
    throw new SentenceError(`power: ${description.name} does not run on ${file.power.toUpperCase()}, but on ${runsOn}.`)
  const strangePower = (file.circumstances ?? []).find(
    (entry) => entry.startsWith('power-') && entry !== `power-${description.power}`,
  )
  if (strangePower !== undefined)
    throw new SentenceError(
      `circumstances: “${strangePower}” does not fit ${description.name}, which runs on ${runsOn}.`,
    )
  const parts = new Set(description.parts.map((part) => part.id))
  const strange = (file.off ?? []).find((id) => !parts.has(id))
  if (strange !== undefined)
    throw new SentenceError(`off: there is no part “${strange.slice(0, QUOTED)}” in ${description.name}.`)
  if (!file.findings && !file.observations)
    throw new SentenceError(
      'There is neither “findings” nor “observations”: an empty list says that nothing was noted.',
    )
}

/** A report as it is written to the file, findings named as they were given. */
function written(report: SearchReport, findings: readonly TestFinding[]): object {
  const finding = (id: string): object => ({
    test: findings[Number(id)]?.test,
    outcome: findings[Number(id)]?.outcome,
    state: findings[Number(id)]?.state,
  })
  return {
    state: report.state,
    advice: adviceOf(report),
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
    leftToNotice: rounded(report.leftToNotice),
    next: report.next.map((act) => ({
      id: act.id,
      words: act.words,
      how: act.how,
      minutes: rounded(act.totalMinutes),
      takesOff: act.takesOff,
      value: rounded(act.value),
      why: act.why,
      observations: act.observations.map(observationOf),
    })),
    contradictions: report.contradictions.map((entry) => ({
      repeat: finding(entry.repeat),
      against: finding(entry.against),
      chance: rounded(entry.chance),
      words: entry.words,
    })),
  }
}

/** The act with its observations, the telling ones first; what is to be mended; or how it ended. */
function adviceOf({ advice, next }: SearchReport): object {
  if (advice.kind !== 'act') return advice
  const act = next.find(({ id }) => id === advice.act)
  return { ...advice, words: act?.words, observations: act?.observations.map(observationOf) ?? [] }
}

function observationOf({ id, words, says, outcomes }: ObservationReport): object {
  return {
    id,
    words,
    says: rounded(says),
    outcomes: outcomes.map((outcome) => ({
      ...outcome,
      chance: rounded(outcome.chance),
      finds: outcome.finds?.id ?? null,
    })),
  }
}

/** What cannot be so is not taken without a word. */
function refuseUntold(events: NonNullable<SearchFile['events']>): void {
  for (const [index, event] of events.entries()) {
    if (event.kind === 'repaired' && event.state === 0)
      throw new SentenceError(
        `events/${index}: a repair begins a new state of the engine, so its state is at least 1, and this one says 0.`,
      )
    const other = events.find(
      (entry) =>
        entry.kind === 'ruled-out' &&
        event.kind === 'confirmed' &&
        entry.suspect === event.suspect &&
        entry.state === event.state,
    )
    if (other && event.kind === 'confirmed')
      throw new SentenceError(
        `events/${index}: “${event.suspect.slice(0, QUOTED)}” is confirmed and ruled out in state ${event.state}: it is one or the other.`,
      )
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
  const { engine, costs } = new Diagnosis(describeConstruction(construction, power), diagnosisKnowledge)
  return {
    suspects: engine.suspects.map(({ id, name }) => ({ id, words: name })),
    acts: costs.acts.map(({ id, name, observations }) => ({
      id,
      words: name,
      observations: observations.map((test) => engine.tests[test]?.id ?? ''),
    })),
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
