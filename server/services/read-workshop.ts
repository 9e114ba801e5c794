import { asc, eq } from 'drizzle-orm'
import type { Workshop, WorkshopBook } from '../../shared/book'
import type { WorkshopFields } from '../../shared/messages/bench-entries'
import type { Database } from '../db/book'
import { instrument, meter, person, setting } from '../db/schema'

/** What a workshop is until its settings are written. */
export const newWorkshop: Workshop = { name: 'The bench', address: '', currency: 'GBP', hourlyRate: 0, taxPercent: 0, taxName: 'VAT', handBackFooter: '', idleHours: 10, nightlyBackups: 7 }

export async function readWorkshop(database: Database): Promise<WorkshopBook> {
  const [[settings], meters, instruments, people] = await Promise.all([
    database.select().from(setting).where(eq(setting.key, 'workshop')),
    database.select().from(meter).orderBy(asc(meter.retired), asc(meter.measures), asc(meter.name)),
    database.select().from(instrument).orderBy(asc(instrument.retired), asc(instrument.name)),
    database.select({ id: person.id, signInName: person.signInName, name: person.name, role: person.role, active: person.active, version: person.version }).from(person).orderBy(asc(person.name)),
  ])
  return { workshop: { ...newWorkshop, ...(settings?.value as WorkshopFields | undefined) }, version: settings?.version ?? 0, meters, instruments, people }
}
