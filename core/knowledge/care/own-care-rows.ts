import { Type, type Static } from 'typebox'
import { materials } from '../../engine/description-schema'
import { closed, OneOf, OrNull } from '../../schema/pieces'
import { lubricationPoints } from '../lubrication-points'
import { cleaningSubjectIds, cleaningSubjects, type CareKnowledge, type Level, type Ways } from './care-schema'

const Id = Type.String({ pattern: '^[a-z0-9][a-z0-9-]*$', maxLength: 60 })

/** What an agent or a tool does to one material or to one subject: one of the two is named. */
export const OwnRule = Type.Object(
  {
    what: Id,
    material: OrNull(OneOf(materials)),
    subject: OrNull(OneOf(cleaningSubjectIds)),
    level: OneOf(['good', 'care', 'never'] as const),
    why: Type.String({ minLength: 1, maxLength: 200, pattern: '\\S' }),
  },
  closed,
)
export type OwnRule = Static<typeof OwnRule>

/** What is taken here against a soil on a subject, wherever it may be and is at hand. */
export const OwnWay = Type.Object(
  { soil: Id, subject: OneOf(cleaningSubjectIds), agent: OrNull(Id), method: Id },
  closed,
)
export type OwnWay = Static<typeof OwnWay>

/** What goes to one kind of point: a class of lubricant, or none. */
export const PointAmount = Type.Object(
  {
    point: OneOf(lubricationPoints),
    product: OrNull(Type.String({ minLength: 1, maxLength: 60, pattern: '\\S' })),
    amount: Type.String({ maxLength: 60 }),
  },
  closed,
)
export type PointAmount = Static<typeof PointAmount>

/** How a shop, or one type of engine in it, departs from the care that ships. */
export const OwnCareRows = Type.Object(
  {
    rules: Type.Array(OwnRule, { maxItems: 100 }),
    ways: Type.Array(OwnWay, { maxItems: 100 }),
    amounts: Type.Array(PointAmount, { maxItems: 30 }),
  },
  closed,
)
export type OwnCareRows = Static<typeof OwnCareRows>

export const noCareRows: OwnCareRows = { rules: [], ways: [], amounts: [] }
const OWN = 'own experience'

/**
 * What ships with own rows laid over it, the later before the earlier: the type's after the shop's. What ships as never
 * is at most softened to “with care”, and goes on saying what it does.
 *
 * @param own by schema and sound, see `checkOwnCareRows`
 */
export function ownCareKnowledge(shipped: CareKnowledge, own: readonly OwnCareRows[]): CareKnowledge {
  return own.reduce<CareKnowledge>(
    (knowledge, rows) =>
      rows.ways.reduce(
        withWay,
        rows.rules.reduce((laid, rule) => withRule(laid, rule, shipped), knowledge),
      ),
    shipped,
  )
}

function withRule(knowledge: CareKnowledge, rule: OwnRule, shipped: CareKnowledge): CareKnowledge {
  const { what, material, subject } = rule
  const harm = [...shipped.materialRules, ...shipped.subjectRules].find(
    (row) =>
      row.what === what &&
      row.level === 'never' &&
      ('material' in row ? row.material === material : row.subject === subject),
  )
  const softened = harm !== undefined && rule.level !== 'never'
  const level: Level = softened ? 'care' : rule.level
  const why = softened ? `${rule.why} Elsewhere it is never taken: ${harm.why}` : rule.why
  const head = { what, level, why, source: OWN }
  if (material !== null)
    return {
      ...knowledge,
      materialRules: [
        ...knowledge.materialRules.filter((row) => row.what !== what || row.material !== material),
        { material, ...head, ...(softened ? { firm: true } : {}) },
      ],
    }
  if (subject === null) return knowledge
  return {
    ...knowledge,
    subjectRules: [
      ...knowledge.subjectRules.filter((row) => row.what !== what || row.subject !== subject),
      { subject, ...head },
    ],
  }
}

function withWay(knowledge: CareKnowledge, { soil, subject, agent, method }: OwnWay): CareKnowledge {
  const about = (row: Ways): boolean => row.soil === soil && row.subjects.includes(subject)
  const others = knowledge.ways
    .filter(about)
    .flatMap((row) => row.ways)
    .filter((way) => way.agent !== agent || way.method !== method)
  const rest = knowledge.ways.flatMap((row): Ways[] => {
    if (!about(row)) return [row]
    const subjects = row.subjects.filter((other) => other !== subject)
    return subjects.length > 0 ? [{ ...row, subjects }] : []
  })
  const own: Ways = {
    soil,
    subjects: [subject],
    ways: [{ agent, method }, ...others],
    firstPreferred: true,
    source: OWN,
  }
  return { ...knowledge, ways: [own, ...rest] }
}

/**
 * What no schema can see in own rows: ids that point nowhere, a rule about both or neither of material and subject, two
 * words on one thing, and a way that takes what a rule forbids there.
 *
 * @returns sentences with the place they speak of; none where it is sound
 */
export function checkOwnCareRows(
  shipped: CareKnowledge,
  own: OwnCareRows,
  products: readonly string[],
): Array<{ readonly place: string; readonly message: string }> {
  const flaws: Array<{ place: string; message: string }> = []
  const say = (place: string, message: string): void => void flaws.push({ place, message })
  const agents = new Set(shipped.agents.map((row) => row.id))
  const methods = new Set(shipped.methods.map((row) => row.id))
  const soils = new Set(shipped.soils.map((row) => row.id))
  const seen = new Set<string>()
  const twice = (place: string, ...key: ReadonlyArray<string | null>): void => {
    const id = key.join(' ')
    if (seen.has(id)) say(place, 'This stands twice: take one of them off.')
    seen.add(id)
  }
  own.rules.forEach(({ what, material, subject }, index) => {
    const place = `rules.${index}`
    if (!agents.has(what) && !methods.has(what)) say(place, `“${what}” is neither an agent nor a tool that is known.`)
    if ((material === null) === (subject === null)) say(place, 'A rule is about one material or one surface.')
    twice(place, 'rule', what, material, subject)
  })
  const laid = ownCareKnowledge(shipped, [{ ...own, ways: [] }])
  own.ways.forEach(({ soil, subject, agent, method }, index) => {
    const place = `ways.${index}`
    if (!soils.has(soil)) say(place, `“${soil}” is no soil that is known.`)
    if (agent !== null && !agents.has(agent)) say(place, `“${agent}” is no agent that is known.`)
    if (!methods.has(method)) say(place, `“${method}” is no tool that is known.`)
    const harm = laid.subjectRules.find(
      (row) =>
        row.subject === subject &&
        row.level === 'never' &&
        row.school === undefined &&
        (row.what === agent || row.what === method),
    )
    if (harm)
      say(
        place,
        `“${[...shipped.agents, ...shipped.methods].find((row) => row.id === harm.what)?.words ?? harm.what}” harms it (${cleaningSubjects[subject]}): ${harm.why}`,
      )
    twice(place, 'way', soil, subject)
  })
  own.amounts.forEach(({ point, product }, index) => {
    const place = `amounts.${index}`
    if (product !== null && !products.includes(product))
      say(place, `“${product}” is no class of lubricant that is known: choose the one it belongs to.`)
    twice(place, 'amount', point)
  })
  return flaws
}
