import type { ActReport, ObservationReport } from '../core/diagnosis/report/search-report'

const FEW = 6

/** What a card shows of an act: rows that can be noted, those not yet, and how many more there are. */
export interface RowsOfAct {
  readonly rows: readonly ObservationReport[]
  readonly left: readonly ObservationReport[]
  readonly more: number
}

/**
 * @param act what is done
 * @param noted by observation: the outcome noted in this state
 * @param all every row, not the first few
 */
export function rowsOfAct(act: ActReport, noted: ReadonlyMap<string, string>, all = false): RowsOfAct {
  const said = act.observations.filter(runs).flatMap(({ id }) => noted.get(id) ?? [])
  // Somebody notes that it stands: what can only be judged while it turns is not asked.
  const stands = said.length > 0 && said.every((outcome) => outcome === 'stands' || outcome === 'trips')
  const askable = act.observations.filter(({ needsRunning }) => !needsRunning || !stands)
  const rows = all ? askable : askable.filter((row, at) => at < FEW || noted.has(row.id))
  return { rows, left: rows.filter(({ id }) => !noted.has(id)), more: askable.length - rows.length }
}

const runs = ({ outcomes }: ObservationReport): boolean => outcomes.some(({ id }) => id === 'stands')
