import type { JobSlice } from '../messages/book'
import type { StationId } from '../messages/vocabulary'

/** What a station draws beside findings, notes, parts, sheets and photographs, which every one does. */
const bySlices: Partial<Record<StationId, readonly JobSlice[]>> = {
  find: ['search', 'learned', 'practice', 'earlier', 'continuity'],
  'hand-back': ['search', 'learned'],
}

export function stationSlices(station: StationId): readonly JobSlice[] {
  return bySlices[station] ?? []
}
