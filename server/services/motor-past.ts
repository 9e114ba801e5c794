import { and, desc, eq, inArray, ne } from 'drizzle-orm'
import { motorFigures } from '../../core/motor/motor-figures'
import { judgeSheet } from '../../core/motor/sheet-judgement'
import type { EngineTypeRow, SheetRow } from '../../messages/book'
import { describeEngine } from '../../work/describe-engine'
import { classPriors, type FollowedSheet, type MotorPast } from '../../work/motor-history'
import { readingOfColumns } from '../db/reading-columns'
import { countingReadings, machineFacts, windingCelsius } from '../../work/sheet-readings'
import type { Database } from '../db/book'
import { engine, job, reading, sheet } from '../db/schema'
import { readEngine } from './engines-and-owners'

/** So many sheets of the engine itself, newest first, are followed. */
const MOST_OWN = 40
/** So many other engines of the type are looked at, one sheet each. */
const MOST_OTHERS = 40

interface DatedSheet {
  readonly sheet: Omit<SheetRow, 'openedAt' | 'readings'> & { readonly openedAt: Date }
  readonly jobNumber: number
  readonly engineId: string
}

/** This engine's own metered sheets with its motor of today, and one sheet after the work of each other engine of the type. */
export async function readMotorPast(database: Database, engineId: string): Promise<MotorPast> {
  const { type, engine: example, components, template } = await readEngine(database, engineId)
  const motorSince =
    components.find((component) => component.kind === 'motor' && component.removedOn === null)?.fittedOn ?? null
  const columns = { sheet, jobNumber: job.number, engineId: job.engineId }
  const joined = () =>
    database
      .select(columns)
      .from(sheet)
      .innerJoin(job, eq(sheet.jobId, job.id))
      .innerJoin(engine, eq(job.engineId, engine.id))
  const [own, others, adapted] = await Promise.all([
    joined()
      .where(and(eq(job.engineId, engineId), eq(sheet.withMeter, true), ne(sheet.station, 'rebuild')))
      .orderBy(desc(sheet.openedAt))
      .limit(MOST_OWN),
    // Enough rows that each of the others is among them even where some came often.
    joined()
      .where(
        and(
          eq(engine.typeId, type.id),
          ne(job.engineId, engineId),
          eq(sheet.withMeter, true),
          eq(sheet.station, 'prove'),
        ),
      )
      .orderBy(desc(sheet.openedAt))
      .limit(4 * MOST_OTHERS),
    database.select({ id: engine.id, adaptations: engine.adaptations }).from(engine).where(eq(engine.typeId, type.id)),
  ])
  const otherMotor = new Set(
    adapted.filter((row) => row.adaptations.some((difference) => difference.kind === 'motor')).map((row) => row.id),
  )
  // An example with another motor is no example of the type, and has none.
  const comparable = otherMotor.has(example.id) ? [] : others.filter((row) => !otherMotor.has(row.engineId))
  const latest = [...new Map([...comparable].reverse().map((row) => [row.engineId, row])).values()].slice(-MOST_OTHERS)
  const ofThisMotor = own.filter(
    (row) => motorSince === null || row.sheet.openedAt.toISOString().slice(0, 10) >= motorSince,
  )
  const figures = await figuresOf(database, [...ofThisMotor, ...latest], type)
  return {
    motorSince,
    prior: classPriors(
      describeEngine({ type, adaptations: example.adaptations, components, template }).description,
      type.nominalVolts,
    ),
    own: ofThisMotor
      .flatMap((row): FollowedSheet[] => {
        const found = figures.get(row.sheet.id)
        return found
          ? [
              {
                id: row.sheet.id,
                at: row.sheet.openedAt.getTime(),
                figures: found,
                jobId: row.sheet.jobId,
                jobNumber: row.jobNumber,
                station: row.sheet.station,
              },
            ]
          : []
      })
      .reverse(),
    shop: latest.flatMap((row) => figures.get(row.sheet.id) ?? []),
  }
}

async function figuresOf(
  database: Database,
  rows: readonly DatedSheet[],
  type: EngineTypeRow,
): Promise<Map<string, ReturnType<typeof motorFigures>>> {
  if (rows.length === 0) return new Map()
  const machine = machineFacts(type)
  const lines = await database
    .select()
    .from(reading)
    .where(
      inArray(
        reading.sheetId,
        rows.map((row) => row.sheet.id),
      ),
    )
  return new Map(
    rows.flatMap(({ sheet: row }) => {
      const readings = lines
        .filter((line) => line.sheetId === row.id)
        .map((line) => ({
          ...readingOfColumns(line),
          id: line.id,
          struck: line.struck,
          supersedesId: line.supersedesId,
        }))
      const { fit } = judgeSheet(countingReadings({ readings }, machine), machine, {
        windingCelsius: windingCelsius(row),
      })
      return fit ? [[row.id, motorFigures(fit)] as const] : []
    }),
  )
}
