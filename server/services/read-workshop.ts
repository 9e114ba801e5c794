import { asc } from 'drizzle-orm'
import type { WorkshopBook } from '../../messages/book'
import type { Database } from '../db/book'
import { instrument, meter, shelfProduct } from '../db/schema'
import { personRows, workshopSettings } from './book-rows'

export async function readWorkshop(database: Database): Promise<WorkshopBook> {
  const [settings, meters, instruments, people, shelf] = await Promise.all([
    workshopSettings(database),
    database.select().from(meter).orderBy(asc(meter.retired), asc(meter.measures), asc(meter.name)),
    database.select().from(instrument).orderBy(asc(instrument.retired), asc(instrument.name)),
    personRows(database),
    database.select().from(shelfProduct).orderBy(asc(shelfProduct.product), asc(shelfProduct.name)),
  ])
  return { ...settings, meters, instruments, people, shelf }
}
