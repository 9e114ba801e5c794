import { cleaningSubjectIds, type CareKnowledge } from './care-schema'

/**
 * What no schema can see: ids that point nowhere, two words for one thing, a soil that nothing takes off, and the usual
 * way of a subject that a rule of that same subject forbids.
 *
 * @returns sentences; none where it is sound
 */
export function checkCareKnowledge(knowledge: CareKnowledge): string[] {
  const problems: string[] = []
  const { soils, agents, methods, subjectRules, materialRules, ways } = knowledge
  const [soilIds, agentIds, methodIds] = [soils, agents, methods].map((rows) => new Set(rows.map((row) => row.id)))
  for (const [what, rows] of [
    ['soil', soils],
    ['agent', agents],
    ['tool', methods],
  ] as const) {
    const seen = new Set<string>()
    for (const { id } of rows) {
      if (seen.has(id)) problems.push(`The ${what} “${id}” stands twice.`)
      seen.add(id)
    }
  }
  for (const rule of [...materialRules, ...subjectRules])
    if (!agentIds?.has(rule.what) && !methodIds?.has(rule.what))
      problems.push(`A rule speaks of “${rule.what}”, which is neither an agent nor a tool.`)
  for (const row of ways) {
    if (!soilIds?.has(row.soil)) problems.push(`Ways are told for “${row.soil}”, which is no soil.`)
    for (const { agent, method } of row.ways) {
      if (agent !== null && !agentIds?.has(agent)) problems.push(`A way takes “${agent}”, which is no agent.`)
      if (!methodIds?.has(method)) problems.push(`A way takes “${method}”, which is no tool.`)
    }
    const [usual] = row.ways
    for (const subject of row.subjects) {
      const against = subjectRules.find(
        (rule) =>
          rule.subject === subject &&
          rule.level === 'never' &&
          rule.school === undefined &&
          (rule.what === usual?.agent || rule.what === usual?.method),
      )
      if (against)
        problems.push(
          `The usual way against ${row.soil} on ${subject} takes “${against.what}”, which harms it: ${against.why}`,
        )
    }
  }
  for (const { id } of soils) if (!ways.some((row) => row.soil === id)) problems.push(`Nothing takes off “${id}”.`)
  for (const subject of cleaningSubjectIds)
    if (!ways.some((row) => row.subjects.includes(subject))) problems.push(`Nothing cleans “${subject}”.`)
  return problems
}
