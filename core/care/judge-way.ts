import type { Material } from '../engine/description-schema'
import type { CareKnowledge, Level, MaterialRule, SubjectRule } from '../knowledge/care/care-schema'
import { optionOf, type ChosenSchools, type School } from '../knowledge/schools-of-practice'
import type { CleaningGroup } from './cleaning-groups'

/** An agent, or none, and a tool. */
export interface Way {
  readonly agent: string | null
  readonly method: string
}

/** Whether a way may touch a group, with the reasons of whatever speaks against it. */
export interface JudgedWay extends Way {
  readonly level: Level
  readonly because: ReadonlyArray<{
    readonly level: Level
    readonly what: string
    readonly why: string
    readonly material: Material | null
  }>
}

export interface Practice {
  readonly knowledge: CareKnowledge
  readonly schools: readonly School[]
  readonly chosen: ChosenSchools
}

const weight: Record<Level, number> = { good: 0, care: 1, never: 2 }

/**
 * What a way does to a group: the most sensitive material that is touched or gets wet decides, and what is known of
 * the surface itself. A material nobody knows counts as the most sensitive one; an agent nobody knows is never taken.
 */
export function judgeWay(group: CleaningGroup, way: Way, { knowledge, schools, chosen }: Practice): JudgedWay {
  const method = knowledge.methods.find((row) => row.id === way.method)
  const agent = way.agent === null ? null : knowledge.agents.find((row) => row.id === way.agent)
  const unknown = (what: string, words: string) => ({
    ...way,
    level: 'never' as const,
    because: [
      { level: 'never' as const, what, why: `Nobody here knows what ${words} “${what}” does.`, material: null },
    ],
  })
  if (!method) return unknown(way.method, 'the tool')
  if (agent === undefined) return unknown(way.agent ?? '', 'the agent')
  const because: Array<JudgedWay['because'][number]> = []
  const bath = method.manner === 'bath'
  const note = (what: string, materials: readonly Material[]): void => {
    const rules = rulesOf(knowledge, what)
    const own = rules.subject.filter(
      (rule) =>
        rule.subject === group.subject && (!rule.school || holdsWith(schools, chosen, rule.school, rule.option)),
    )
    // Where practice calls it good for this very surface, a material's “with care” is not held against it, unless it is firm.
    const usual = own.some((rule) => rule.level === 'good')
    for (const rule of rules.material)
      if (
        materials.includes(rule.material) &&
        (rule.level === 'never' || (rule.level === 'care' && (rule.firm || !usual)))
      )
        because.push({ level: rule.level, what, why: rule.why, material: rule.material })
    for (const rule of own)
      if (rule.level !== 'good') because.push({ level: rule.level, what, why: rule.why, material: null })
  }
  note(way.method, bath ? group.soaked : group.touched)
  if (agent) note(agent.id, bath ? group.soaked : group.wet)
  if (agent?.flammable && way.method === 'ultrasonic')
    because.push({
      level: 'never',
      what: agent.id,
      why: 'Never a flammable liquid in an ultrasonic bath.',
      material: null,
    })
  const level = because.reduce<Level>(
    (worst, entry) => (weight[entry.level] > weight[worst] ? entry.level : worst),
    'good',
  )
  return { ...way, level, because: because.sort((one, other) => weight[other.level] - weight[one.level]) }
}

interface RulesOfOne {
  readonly material: readonly MaterialRule[]
  readonly subject: readonly SubjectRule[]
}
const indexed = new WeakMap<CareKnowledge, Map<string, RulesOfOne>>()

/** What is known of one agent or tool; looked up a thousand times a card. */
function rulesOf(knowledge: CareKnowledge, what: string): RulesOfOne {
  let byWhat = indexed.get(knowledge)
  if (!byWhat) {
    byWhat = new Map()
    for (const { id } of [...knowledge.agents, ...knowledge.methods])
      byWhat.set(id, {
        material: knowledge.materialRules.filter((rule) => rule.what === id),
        subject: knowledge.subjectRules.filter((rule) => rule.what === id),
      })
    indexed.set(knowledge, byWhat)
  }
  return byWhat.get(what) ?? { material: [], subject: [] }
}

function holdsWith(
  schools: readonly School[],
  chosen: ChosenSchools,
  school: string,
  option: string | undefined,
): boolean {
  const found = schools.find((entry) => entry.id === school)
  return found ? optionOf(found, chosen).id === option : true
}
