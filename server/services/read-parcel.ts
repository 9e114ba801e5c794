import { and, asc, count, desc, eq, isNull, type SQL } from 'drizzle-orm'
import type { ParcelBook, ParcelTag } from '../../messages/book'
import type { Database } from '../db/book'
import { job, owner, parcel } from '../db/schema'
import { notInTheBook } from '../problems'
import { jobRow } from './book-rows'
import { jobTags } from './job-tags'

/** So many are listed; more are not unpacked at a time. */
const MOST_PARCELS = 100

/** Parcels that are still here, or all of one owner, the latest first. */
export async function listParcels(database: Database, ownerId: string | null): Promise<ParcelTag[]> {
  const which: SQL | undefined = ownerId ? eq(parcel.ownerId, ownerId) : isNull(parcel.sentBackOn)
  return database
    .select({
      id: parcel.id,
      arrivedOn: parcel.arrivedOn,
      came: parcel.came,
      sentBackOn: parcel.sentBackOn,
      ownerName: owner.name,
      engines: count(job.id),
    })
    .from(parcel)
    .innerJoin(owner, eq(parcel.ownerId, owner.id))
    .leftJoin(job, eq(job.parcelId, parcel.id))
    .where(and(which))
    .groupBy(parcel.id)
    .orderBy(desc(parcel.arrivedOn), desc(parcel.id))
    .limit(MOST_PARCELS)
}

/** A parcel with its owner and the jobs that came in it. */
export async function readParcel(database: Database, id: string): Promise<ParcelBook> {
  const [head] = await database
    .select({ parcel, owner })
    .from(parcel)
    .innerJoin(owner, eq(parcel.ownerId, owner.id))
    .where(eq(parcel.id, id))
  if (!head) throw notInTheBook('parcel')
  const rows = await database.select().from(job).where(eq(job.parcelId, id)).orderBy(asc(job.number))
  const tags = await jobTags(
    database,
    rows.map((row) => row.id),
  )
  return { ...head, jobs: rows.map(jobRow), tags }
}
