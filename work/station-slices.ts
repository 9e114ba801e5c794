import type { JobSlice } from '../messages/book'
import type { StationId } from '../messages/vocabulary'

/** What a station draws beside findings, notes, parts, sheets and photographs, which every one does. */
const bySlices: Partial<Record<StationId, readonly JobSlice[]>> = {
  find: ['search', 'strip', 'learned', 'practice', 'earlier', 'continuity'],
  strip: ['search', 'strip', 'practice', 'stepMinutes'],
  rebuild: ['search', 'strip', 'practice'],
  prove: ['search', 'strip'],
  'hand-back': ['search', 'learned'],
}

export function stationSlices(station: StationId): readonly JobSlice[] {
  return bySlices[station] ?? []
}
