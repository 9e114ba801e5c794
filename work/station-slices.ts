import type { JobSlice } from '../messages/book'
import type { StationId } from '../messages/vocabulary'

/** What a station draws beside findings, notes, parts, sheets and photographs, which every one does. */
const bySlices: Partial<Record<StationId, readonly JobSlice[]>> = {
  find: ['search', 'strip', 'learned', 'practice', 'earlier', 'continuity'],
  strip: ['search', 'strip', 'practice', 'stepMinutes'],
  clean: ['search', 'strip', 'practice', 'care', 'cleaningMinutes'],
  mend: ['search', 'practice', 'care'],
  lubricate: ['search', 'strip', 'practice', 'care', 'cleaningMinutes'],
  rebuild: ['search', 'strip', 'practice', 'care'],
  prove: ['search', 'strip'],
  'hand-back': ['search', 'learned', 'care'],
}

export function stationSlices(station: StationId): readonly JobSlice[] {
  return bySlices[station] ?? []
}
