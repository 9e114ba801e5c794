import { eq } from 'drizzle-orm'
import type { EngineDescription } from '../../core/engine/description-schema'
import type { SheetFields, SheetStation } from '../../messages/bench-entries'
import { describeEngine } from '../../work/describe-engine'
import type { Database } from '../db/book'
import { job, sheet } from '../db/schema'
import { notInTheBook } from '../problems'
import { readEngine } from '../services/engines-and-owners'

export interface SheetMachine {
  readonly jobId: string
  readonly engineId: string
  readonly withMeter: boolean
  readonly station: SheetStation
  readonly supply: SheetFields['supply']
  readonly nominalVolts: number
  readonly description: EngineDescription
}

/** The machine a sheet is about. */
export async function sheetMachine(database: Database, sheetId: string): Promise<SheetMachine> {
  const [found] = await database
    .select({
      jobId: job.id,
      engineId: job.engineId,
      withMeter: sheet.withMeter,
      station: sheet.station,
      supply: sheet.supply,
    })
    .from(sheet)
    .innerJoin(job, eq(sheet.jobId, job.id))
    .where(eq(sheet.id, sheetId))
  if (!found) throw notInTheBook('sheet')
  const { type, engine, components, template } = await readEngine(database, found.engineId)
  const { description } = describeEngine({ type, adaptations: engine.adaptations, components, template })
  return { ...found, nominalVolts: type.nominalVolts, description }
}
