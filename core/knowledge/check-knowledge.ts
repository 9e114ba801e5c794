import {
  EXCHANGE_MOTOR,
  furtherOutcomesOf,
  KNOWLEDGE_VERSION,
  outcomesOfReading,
  type Knowledge,
  type Test,
} from './knowledge-schema'

export interface KnowledgeFlaw {
  /** The row and the field, such as faults/lead-off/signs. */
  readonly place: string
  readonly message: string
}

/**
 * What JSON Schema cannot see: ids that point nowhere or twice, outcomes a reading does not have, remedies that wait
 * for each other, chances that add up to more than one.
 *
 * @param knowledge already right by its schema
 * @returns every flaw with the row named; empty when it can be used
 */
export function checkKnowledge(knowledge: Knowledge): KnowledgeFlaw[] {
  const flaws: KnowledgeFlaw[] = []
  const flaw = (place: string, message: string): void => void flaws.push({ place, message })
  if (knowledge.version > KNOWLEDGE_VERSION)
    flaw(
      'version',
      `This knowledge is written for a newer form (${knowledge.version}); this program reads up to ${KNOWLEDGE_VERSION}.`,
    )
  for (const list of ['acts', 'faults', 'tests', 'remedies'] as const) {
    const seen = new Set<string>()
    for (const { id } of knowledge[list]) {
      if (seen.has(id)) flaw(`${list}/${id}`, `“${id}” is there twice.`)
      seen.add(id)
    }
  }
  if (!knowledge.remedies.some((remedy) => remedy.id === EXCHANGE_MOTOR))
    flaw(
      'remedies',
      `The remedy “${EXCHANGE_MOTOR}” is missing: it mends whatever is wrong inside a motor that does not open.`,
    )
  const tests = new Map(knowledge.tests.map((test) => [test.id, test]))
  const remedies = new Map(knowledge.remedies.map((remedy) => [remedy.id, remedy]))
  for (const fault of knowledge.faults) {
    const here = `faults/${fault.id}`
    if (!remedies.has(fault.remedy)) flaw(`${here}/remedy`, `There is no remedy “${fault.remedy}”.`)
    if (fault.bornOf && !remedies.has(fault.bornOf.remedy))
      flaw(`${here}/bornOf`, `There is no remedy “${fault.bornOf.remedy}”.`)
    for (const sign of fault.signs) {
      const test = tests.get(sign.test)
      if (!test) flaw(`${here}/signs`, `There is no test “${sign.test}”.`)
      else if (test.reading.kind !== 'signs')
        flaw(`${here}/signs`, `“${sign.test}” is read from the circuit: a sign cannot set it.`)
      else if (test.outcomes[0]?.id === sign.outcome)
        flaw(
          `${here}/signs`,
          `“${sign.outcome}” is what a sound engine gives at “${sign.test}”; a fault cannot cause it.`,
        )
      else if (!test.outcomes.some((outcome) => outcome.id === sign.outcome))
        flaw(`${here}/signs`, `The test “${sign.test}” has no outcome “${sign.outcome}”.`)
    }
  }
  const acts = new Set(knowledge.acts.map(({ id }) => id))
  for (const test of knowledge.tests) {
    flaws.push(...flawsOfTest(test))
    if (test.act !== undefined && !acts.has(test.act)) flaw(`tests/${test.id}/act`, `There is no act “${test.act}”.`)
  }
  for (const remedy of knowledge.remedies) {
    for (const id of remedy.after)
      if (!remedies.has(id)) flaw(`remedies/${remedy.id}/after`, `There is no remedy “${id}”.`)
    if (waitsForItself(remedy.id, (id) => remedies.get(id)?.after ?? []))
      flaw(
        `remedies/${remedy.id}/after`,
        `“${remedy.id}” waits for itself: remedies that come before each other go round in a circle.`,
      )
  }
  return flaws
}

function flawsOfTest(test: Test): KnowledgeFlaw[] {
  const here = `tests/${test.id}/outcomes`
  const ids = test.outcomes.map((outcome) => outcome.id)
  if (new Set(ids).size < ids.length) return [{ place: here, message: `An outcome of “${test.id}” is there twice.` }]
  const wanted = outcomesOfReading(test.reading)
  if (wanted === null) {
    const leaks = test.outcomes.slice(1).reduce((sum, { leak, usual }) => sum + Math.max(leak, usual?.leak ?? 0), 0)
    return leaks < 1
      ? []
      : [{ place: here, message: `With nothing wrong the outcomes of “${test.id}” already add up to more than one.` }]
  }
  const missing = wanted.find((id) => !ids.includes(id))
  if (missing) return [{ place: here, message: `The outcome “${missing}” of “${test.id}” is missing.` }]
  const further = furtherOutcomesOf(test.reading)
  const unknown = ids.find((id) => !wanted.includes(id) && !further.includes(id))
  return unknown ? [{ place: here, message: `“${test.id}” cannot come out as “${unknown}”.` }] : []
}

function waitsForItself(start: string, before: (id: string) => readonly string[]): boolean {
  const seen = new Set<string>()
  const queue = [...before(start)]
  for (let id = queue.pop(); id !== undefined; id = queue.pop()) {
    if (id === start) return true
    if (seen.has(id)) continue
    seen.add(id)
    queue.push(...before(id))
  }
  return false
}
