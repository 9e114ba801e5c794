import { placesOf } from '../core/diagnosis/places/places-of'
import { suspectsOf, type Suspect } from '../core/diagnosis/places/suspects'
import type { EngineDescription } from '../core/engine/description-schema'
import { products } from '../core/care/lubrication-card'
import mending from '../core/knowledge/care/mending.json'
import { careKnowledge } from '../core/knowledge/care/care-knowledge'
import type { Remedy } from '../core/knowledge/knowledge-schema'
import { schools } from '../core/knowledge/schools'
import { optionOf } from '../core/knowledge/schools-of-practice'
import type { FindingRow, JobBook, ShelfRow } from '../messages/book'
import { knowledgeOf } from './practised-knowledge'
import { shelfClasses } from './shelf-classes'
import { standingRows } from './standing-rows'
import { suspectsInWords } from './suspects-in-words'

const MOST_ALIKE = 3

/** One way to mend it: the shop's own first, then what others hold with. */
export interface MendWay {
  /** Option of the school; empty where there is but one way. */
  readonly option: string
  readonly name: string
  readonly because: string
  readonly minutes: number
  readonly parts: readonly string[]
  /** With whether it stands on the shelf; null for what no shelf is asked about. */
  readonly products: ReadonlyArray<{ readonly words: string; readonly here: boolean | null }>
  readonly caution: string
  /** Until it may be loaded or powered, min; 0 for at once. */
  readonly waitMinutes: number
  readonly waitFor: string
  readonly provisional: boolean
  /** Set on the running machine, the current watched. */
  readonly running: boolean
}

/** A confirmed finding as work. */
export interface MendTask {
  readonly finding: FindingRow
  /** What the search called it; null where it was noted by hand. */
  readonly suspect: Suspect | null
  /** The question practitioners answer differently; empty where they do not. */
  readonly question: string
  readonly ways: readonly MendWay[]
  /** Of a finding noted by hand, what it may be: first what its words are like, then everything else this engine can have. */
  readonly mayBe: readonly Suspect[]
  /** So many of them its words are like. */
  readonly alike: number
}

type MendBook = Pick<JobBook, 'findings' | 'search' | 'practice'>

/**
 * What is confirmed, as work: the remedy the way this shop does it first, the others with their price, what it needs
 * and whether that is here, the wait and the caution.
 */
export function mendOfJob(book: MendBook, description: EngineDescription, shelf: readonly ShelfRow[]): MendTask[] {
  const suspectOf = new Map(
    standingRows(book.search).flatMap(({ entry }) =>
      entry.kind === 'confirmed' && entry.findingId ? [[entry.findingId, entry.suspect] as const] : [],
    ),
  )
  const classes = shelfClasses(shelf)
  const suspectsUnder = (chosen: JobBook['practice']['schools']): Suspect[] =>
    suspectsOf(
      description,
      placesOf(description),
      knowledgeOf({ ...book.practice, schools: chosen }, description),
      new Set(),
    )
  const usual = new Map(suspectsUnder(book.practice.schools).map((suspect) => [suspect.id, suspect]))
  return book.findings
    .filter((finding) => finding.state === 'confirmed')
    .map((finding): MendTask => {
      const suspect = usual.get(suspectOf.get(finding.id) ?? '') ?? null
      if (!suspect) {
        const everything = [...usual.values()]
        const alike = suspectsInWords(`${finding.what} ${finding.place}`, everything).slice(0, MOST_ALIKE)
        const others = everything.filter((entry) => !alike.includes(entry))
        return { finding, suspect, question: '', ways: [], mayBe: [...alike, ...others], alike: alike.length }
      }
      const known = { finding, suspect, mayBe: [], alike: 0 }
      const school = schools.find((entry) => entry.id === suspect.remedy.school)
      if (!school) return { ...known, question: '', ways: [wayOf(suspect.remedy, '', '', classes)] }
      const held = optionOf(school, book.practice.schools)
      const ways = [held, ...school.options.filter((option) => option !== held)].flatMap((option) => {
        const chosen = { ...book.practice.schools, [school.id]: option.id }
        const found = option === held ? suspect : suspectsUnder(chosen).find((entry) => entry.id === suspect.id)
        return found ? [wayOf(found.remedy, option.id, option.because, classes)] : []
      })
      // A school that leaves this remedy as it is offers no other way.
      const differing = ways.filter(
        (way, index) => index === 0 || !ways.slice(0, index).some((other) => sameWork(other, way)),
      )
      return { ...known, question: differing.length > 1 ? school.question : '', ways: differing }
    })
}

const sameWork = (one: MendWay, other: MendWay): boolean =>
  one.name === other.name && one.minutes === other.minutes && one.parts.join() === other.parts.join()

function wayOf(remedy: Remedy, option: string, because: string, classes: readonly string[] | undefined): MendWay {
  const row =
    mending.find((entry) => entry.remedy === remedy.id && entry.option === option) ??
    mending.find((entry) => entry.remedy === remedy.id && entry.option === '')
  return {
    option,
    name: remedy.name,
    because,
    minutes: remedy.minutes,
    parts: remedy.parts,
    products: remedy.products.map((words) => ({ words, here: isHere(words, classes) })),
    caution: remedy.caution,
    waitMinutes: row?.waitMinutes ?? 0,
    waitFor: row?.waitFor ?? '',
    provisional: row?.provisional ?? false,
    running: row?.running ?? false,
  }
}

/** Buds and wood no shelf is asked about. */
function isHere(words: string, classes: readonly string[] | undefined): boolean | null {
  if (!classes) return null
  const agent = careKnowledge.agents.find((row) => row.words === words)
  const product = products.find((row) => row.id === words)
  if (!agent && !product) return null
  return classes.includes(agent?.id ?? product?.id ?? '')
}
