import { v7 as newId } from 'uuid'
import type { Cell } from '~~/core/strip/tray'
import type { JobBook } from '~~/messages/book'
import { deviations, type Deviation, type Fate, type StripEntry } from '~~/messages/strip-entries'
import type { FindingOrigin } from '~~/messages/vocabulary'

/** Where a deviation was born: what happened at this bench is never billed, what was found inside is told. */
const born: Partial<Record<Deviation, FindingOrigin>> = {
  absent: 'arrived',
  misassembled: 'inside',
  'owners-change': 'inside',
  loose: 'inside',
  'came-off': 'inside',
  broke: 'here',
}

/** Writes the steps of taking apart and putting together into the book. */
export function useStripSteps(book: ComputedRef<JobBook>) {
  const outbox = useOutbox()
  const once = useOnce()

  function add(entry: StripEntry): Promise<void> {
    return outbox.send('strip.add', { id: newId(), jobId: book.value.job.id, entry })
  }
  const takeOff = (
    part: { id: string; name: string },
    cell: Cell | null,
    way: string,
    minutes: number | null,
  ): Promise<void> =>
    once(part.id, () => add({ kind: 'off', part: part.id, words: part.name, cell, way, count: 1, minutes }))
  const putBack = (part: { id: string; name: string }, fate: Fate, remark = ''): Promise<void> =>
    once(part.id, () => add({ kind: 'back', part: part.id, words: part.name, fate, remark }))
  const strike = useStriking(add)

  /** Not as planned: written down, with a finding where the owner should hear of it. */
  function deviate(part: { id: string; name: string }, what: Deviation, remark: string): Promise<void> {
    const origin = born[what]
    const findingId = origin ? newId() : null
    const entry = { kind: 'not-as-planned' as const, part: part.id, words: part.name, what, remark, findingId }
    if (!origin || !findingId) return add(entry)
    const fields = {
      what: `${part.name}: ${deviations[what].toLowerCase()}`,
      place: '',
      state: 'confirmed' as const,
      origin,
      remedy: remark,
    }
    const strip = { id: newId(), entry }
    return outbox.send('finding.save', { id: findingId, jobId: book.value.job.id, fields, strip })
  }
  const teach = useTeachDifference(book)
  return { add, takeOff, putBack, strike, deviate, teach }
}
