import type { JobBook } from '../messages/book'
import { stationIds } from '../messages/vocabulary'
import { stripState } from './strip-state'

/**
 * The parts that are off a job's engine: one truth for Find, Strip, Rebuild and Prove. A machine that has come as far as
 * Prove without anybody having entered what went back is together.
 */
export function partsOff(book: Pick<JobBook, 'strip' | 'search' | 'job'>): string[] {
  const stripped = book.strip.some(({ entry }) => ['off', 'back', 'not-as-planned'].includes(entry.kind))
  const proved = stationIds.indexOf(book.job.station) >= stationIds.indexOf('prove')
  return proved && !stripped ? [] : [...stripState(book.strip, book.search).off.keys()]
}
