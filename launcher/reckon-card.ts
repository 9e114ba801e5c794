import { Type, type Static } from 'typebox'
import { cleaningCard, neverInWords } from '../core/care/cleaning-card'
import { cleaningGroups, type CleaningGroup } from '../core/care/cleaning-groups'
import { lubricationCard, products, type LubricationPoint } from '../core/care/lubrication-card'
import { materials, type EngineDescription } from '../core/engine/description-schema'
import { Differences } from '../core/engine/difference-schema'
import { careKnowledge } from '../core/knowledge/care/care-knowledge'
import { checkOwnCareRows, OwnCareRows, ownCareKnowledge } from '../core/knowledge/care/own-care-rows'
import { describeConstruction } from '../core/knowledge/constructions'
import { lubrication, type LubricationRow } from '../core/knowledge/lubrication'
import { schools } from '../core/knowledge/schools'
import { closed, OneOf, OrNull } from '../core/schema/pieces'
import { adapted, describedIn, quoted, readReckonFile } from './reckon-file'
import { SentenceError } from './sentence-error'

const Word = Type.String({ minLength: 1, maxLength: 120 })
const CardFile = Type.Object(
  {
    /** A name, or a whole description. */
    construction: Type.Unknown(),
    power: Type.Optional(OneOf(['dc', 'ac', 'dcc'] as const)),
    differences: Type.Optional(Differences),
    /** What is dirty, by group or by part, and with what. */
    soils: Type.Optional(Type.Array(Type.Object({ on: Word, with: Word }, closed), { maxItems: 400 })),
    /** Classes of agents and lubricants that are there, and “ultrasonic”; everything when left out. */
    shelf: Type.Optional(Type.Array(Word, { maxItems: 100 })),
    schools: Type.Optional(Type.Record(Word, Word)),
    advice: Type.Optional(
      Type.Array(Type.Object({ point: Word, product: OrNull(Word), amount: Type.String({ maxLength: 200 }) }, closed), {
        maxItems: 40,
      }),
    ),
    /** What is done otherwise than what ships. */
    own: Type.Optional(OwnCareRows),
    /** Parts that are off: only those are bathed. */
    off: Type.Optional(Type.Array(Word, { maxItems: 400 })),
  },
  closed,
)
type CardFile = Static<typeof CardFile>

/**
 * The cleaning and lubrication cards of an engine for a file given as JSON.
 *
 * @param text of the file; see docs/formats.md
 * @throws SentenceError saying what is wrong with the file, the place named
 */
export function reckonCard(text: string): object {
  const file = readReckonFile<CardFile>(CardFile, text)
  const description = adapted(describedIn(file), file.differences)
  refuseUnknown(file)
  const groups = cleaningGroups(description)
  const soils = (file.soils ?? []).map(({ on, with: soil }, index) => {
    if (!careKnowledge.soils.some((row) => row.id === soil))
      throw new SentenceError(`soils.${index}: “${quoted(soil)}” is no soil that is known.`)
    return { group: groupOf(groups, on, description, index), soil }
  })
  const known = new Set(description.parts.map((part) => part.id))
  const strange = file.off?.find((id) => !known.has(id))
  if (strange !== undefined)
    throw new SentenceError(`off: there is no part “${quoted(strange)}” in ${description.name}.`)
  const chosen = file.schools ?? {}
  const off = file.off ? new Set(file.off) : null
  const knowledge = file.own ? ownCareKnowledge(careKnowledge, [file.own]) : careKnowledge
  const options = { shelf: file.shelf, chosen, off, knowledge }
  const { steps, agents, minutes, driesMinutes } = cleaningCard(description, soils, options)
  const advice = (file.advice ?? []).map((entry) => ({ ...entry, point: entry.point as LubricationRow['point'] }))
  const oiling = lubricationCard(description, { shelf: file.shelf, chosen, advice, amounts: file.own?.amounts })
  return {
    construction: description.id,
    clean: steps.map((step) => ({
      group: step.group.id,
      words: step.group.words,
      parts: step.group.parts,
      soil: step.soil.id,
      agent: step.way?.agent ?? null,
      tool: step.way?.method ?? null,
      minutes: step.way && rounded(step.way.minutes),
      driesMinutes: step.driesMinutes,
      level: step.way?.level ?? null,
      why: step.way?.because.map((entry) => entry.why) ?? [],
      cautions: step.cautions,
      lookAfter: step.lookAfter,
      others: step.others.map(({ agent, method }) => ({ agent, tool: method })),
      missing: step.missing,
    })),
    never: steps.flatMap((step) =>
      step.never.map((way) => ({
        group: step.group.id,
        soil: step.soil.id,
        agent: way.agent,
        tool: way.method,
        why: neverInWords(way),
      })),
    ),
    agents: agents.map((agent) => agent.id),
    minutes: rounded(minutes),
    driesMinutes,
    lubricate: [...oiling.points, ...oiling.none].map(shown),
    drops: oiling.drops,
    usualDrops: oiling.usual,
  }
}

/** Everything a file may name; with a construction, its groups as well. */
export function listCare(construction?: string, power: 'dc' | 'ac' | 'dcc' = 'dc'): object {
  const words = (rows: ReadonlyArray<{ id: string; words: string }>) =>
    rows.map((row) => ({ id: row.id, words: row.words }))
  const all = {
    materials,
    soils: words(careKnowledge.soils),
    agents: words(careKnowledge.agents),
    tools: words(careKnowledge.methods),
    products: products.map((product) => product.id),
    points: [...lubrication.keys()],
    schools: schools.map(({ id, question, options }) => ({
      id,
      question,
      options: options.map((option) => option.id),
    })),
  }
  if (construction === undefined) return all
  const description = describeConstruction(construction, power)
  return {
    construction: description.id,
    groups: words(cleaningGroups(description)),
    parts: description.parts.map(({ id, name }) => ({ id, words: name })),
    ...all,
  }
}

function refuseUnknown(file: CardFile): void {
  for (const [id, option] of Object.entries(file.schools ?? {})) {
    const school = schools.find((entry) => entry.id === id)
    if (!school) throw new SentenceError(`schools: there is no question “${quoted(id)}”.`)
    if (!school.options.some((entry) => entry.id === option))
      throw new SentenceError(
        `schools.${id}: “${quoted(option)}” is none of ${school.options.map((entry) => entry.id).join(', ')}.`,
      )
  }
  const classes = new Set([
    'ultrasonic',
    ...careKnowledge.agents.map((agent) => agent.id),
    ...products.map((product) => product.id),
  ])
  const strange = file.shelf?.find((entry) => !classes.has(entry))
  if (strange !== undefined)
    throw new SentenceError(
      `shelf: “${quoted(strange)}” is no class of agent or lubricant. “bin/reckon card --list” names them all.`,
    )
  const [flaw] = file.own
    ? checkOwnCareRows(
        careKnowledge,
        file.own,
        products.map((product) => product.id),
      )
    : []
  if (flaw) throw new SentenceError(`own.${flaw.place}: ${flaw.message}`)
  for (const [index, entry] of (file.advice ?? []).entries()) {
    if (!lubrication.has(entry.point as LubricationRow['point']))
      throw new SentenceError(`advice.${index}: “${quoted(entry.point)}” is no kind of point.`)
    if (entry.product !== null && !products.some((product) => product.id === entry.product))
      throw new SentenceError(`advice.${index}: “${quoted(entry.product)}” is no class of lubricant.`)
  }
}

function groupOf(groups: readonly CleaningGroup[], on: string, description: EngineDescription, index: number): string {
  const found =
    groups.find((group) => group.id === on) ??
    groups.find((group) => group.subject !== 'everything' && group.parts.includes(on))
  if (found) return found.id
  throw new SentenceError(
    `soils.${index}: ${description.name} has no group and no part “${quoted(on)}”. “bin/reckon card --list ${description.id}” names them all.`,
  )
}

function shown(point: LubricationPoint): object {
  const { id, part, name, product, quarters, amount, because, refused, instead, lastAccessBefore } = point
  const drops = quarters / 4
  return { point: id, part, words: name, product, drops, amount, why: because, refused, instead, lastAccessBefore }
}

const rounded = (value: number): number => Number(value.toPrecision(4))
