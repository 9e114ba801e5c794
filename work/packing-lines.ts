import { inSentence } from '../core/engine/name-in-sentence'
import type { ParcelBook } from '../messages/book'
import { arrivalFates, jobStates } from '../messages/vocabulary'

/** One line of what goes back: an engine, or what lay loose beside it. */
export interface PackingLine {
  /** What is ticked when it lies in the box. */
  readonly id: string
  readonly kind: 'engine' | 'loose'
  readonly what: string
  /** Its state, what it held, what came off it and goes along. */
  readonly more: readonly string[]
  readonly borrowed: boolean
  readonly packed: boolean
}

/** Everything that came in a parcel, engines first, each with what belongs to it, and whether it is packed. */
export function packingLines({ parcel, jobs, tags }: ParcelBook): PackingLine[] {
  const packed = new Set(parcel.packed)
  const engines = tags.map((tag): PackingLine => {
    const arrivals = jobs.find((job) => job.id === tag.id)?.arrivals ?? []
    return {
      id: tag.id,
      kind: 'engine',
      what: `${tag.engineName}, job ${tag.number}`,
      more: [
        jobStates[tag.state],
        ...arrivals
          .filter((item) => item.kind !== 'missing')
          .map((item) => `${item.what}: ${item.fate ? arrivalFates[item.fate].toLowerCase() : 'open'}`),
      ],
      borrowed: false,
      packed: packed.has(tag.id),
    }
  })
  const loose = parcel.items.map((item): PackingLine => {
    const of = tags.find((tag) => tag.id === item.jobId)
    return {
      id: item.id,
      kind: 'loose',
      what: item.what,
      more: [...(item.held ? [`held ${inSentence(item.held)}`] : []), ...(of ? [`belongs to job ${of.number}`] : [])],
      borrowed: item.borrowed,
      packed: packed.has(item.id),
    }
  })
  return [...engines, ...loose]
}
