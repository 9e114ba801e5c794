import { differenceInCalendarDays, parseISO } from 'date-fns'
import { and, asc, desc, eq, inArray, isNotNull, ne, sql } from 'drizzle-orm'
import { surroundingsShare } from '../../core/care/due-list'
import { forecastDue, hourly, type RanOn } from '../../core/care/forecast-due'
import type { CareBook, CareLine } from '../../messages/book'
import { stationIds, type StationId } from '../../messages/vocabulary'
import { circumstancesIn } from '../../work/search-history'
import { engineName } from '../../work/engine-name'
import type { Database } from '../db/book'
import { calendarFeed, careEntry, engine, engineType, job, owner, person, runningEntry } from '../db/schema'

/** Days since this one: only differences count. */
const DAY_ZERO = parseISO('2000-01-01')
const numbers = new Map<string, number>()
/** Thousands of entries share a few hundred days. */
function dayNumber(day: string): number {
  const known = numbers.get(day)
  if (known !== undefined) return known
  const number = differenceInCalendarDays(parseISO(day), DAY_ZERO)
  numbers.set(day, number)
  return number
}
/** What is told of surroundings stands at the beginning of a history, if anywhere. */
const MOST_HISTORY = 2000
const isoDay = (instant: Date): string => instant.toISOString().slice(0, 10)

/** What is due next on every engine that has ever run by the book, the most pressing first; and who may read it from afar. */
export async function readCareBook(database: Database, now: Date): Promise<CareBook> {
  const [engines, ran, oiled, wiped, handed, pasts, feeds] = await Promise.all([
    database
      .select({
        engine: {
          id: engine.id,
          ownerId: engine.ownerId,
          nickname: engine.nickname,
          runningNumber: engine.runningNumber,
          history: sql<string>`left(${engine.history}, ${MOST_HISTORY})`,
        },
        type: { maker: engineType.maker, name: engineType.name },
        owner: owner.name,
      })
      .from(engine)
      .innerJoin(engineType, eq(engine.typeId, engineType.id))
      .innerJoin(owner, eq(engine.ownerId, owner.id))
      .where(sql`${engine.id} in (select ${runningEntry.engineId} from ${runningEntry})`),
    database
      .select({
        engineId: runningEntry.engineId,
        day: runningEntry.day,
        hours: runningEntry.hours,
        show: runningEntry.show,
      })
      .from(runningEntry)
      .orderBy(asc(runningEntry.day), asc(runningEntry.id)),
    lastCare(database, sql`json_value(${careEntry.entry}, '$.kind') = 'oiled'`, 'lubricate'),
    lastCare(
      database,
      sql`json_value(${careEntry.entry}, '$.kind') = 'cleaned' and json_value(${careEntry.entry}, '$.subject') = 'treads'`,
      'clean',
    ),
    database
      .select({ engineId: job.engineId, at: sql<Date>`max(${job.handedBackAt})`.mapWith(job.handedBackAt) })
      .from(job)
      .where(and(isNotNull(job.handedBackAt), sql`json_value(${job.handBack}, '$.lubricants') <> ''`))
      .groupBy(job.engineId),
    database
      .select({ engineId: job.engineId, past: job.past })
      .from(job)
      .where(isNotNull(job.past))
      .orderBy(asc(job.takenInAt)),
    database
      .select({ id: calendarFeed.id, person: person.name, madeAt: calendarFeed.madeAt })
      .from(calendarFeed)
      .innerJoin(person, eq(calendarFeed.personId, person.id))
      .where(ne(calendarFeed.revoked, true))
      .orderBy(desc(calendarFeed.madeAt)),
  ])
  const today = dayNumber(isoDay(now))
  const byEngine = new Map<string, Array<RanOn & { show: string; date: string }>>()
  for (const row of ran) {
    const list = byEngine.get(row.engineId) ?? []
    list.push({ day: dayNumber(row.day), hours: row.hours, show: row.show, date: row.day })
    byEngine.set(row.engineId, list)
  }
  const pastOf = new Map(pasts.map((row) => [row.engineId, row.past]))
  const handedAt = new Map(handed.map((row) => [row.engineId, row.at]))
  const lines = engines.map(({ engine: row, type, owner: ownerName }): CareLine => {
    const hours = byEngine.get(row.id) ?? []
    const serviced = handedAt.get(row.id) ?? null
    const done = {
      oil: latest(oiled.get(row.id), serviced),
      wipe: latest(wiped.get(row.id), latest(oiled.get(row.id), serviced)),
    }
    const shortened = surroundingsShare(pastOf.get(row.id) ?? circumstancesIn(row.history))
    const due = hourly.map((interval) => {
      const at = interval.id === 'oil' ? done.oil : done.wipe
      const { interval: _row, ...found } = forecastDue(
        hours,
        at ? dayNumber(isoDay(at)) : null,
        today,
        interval,
        shortened,
      )
      return { id: interval.id, name: interval.name, ...found }
    })
    const last = hours.at(-1)
    return {
      engineId: row.id,
      ownerId: row.ownerId,
      name: engineName(row, type),
      type: `${type.maker} ${type.name}`,
      owner: ownerName,
      lastRan: last ? { day: last.date, hours: last.hours, show: last.show } : null,
      oiledOn: done.oil ? isoDay(done.oil) : null,
      shortened: shortened < 1,
      due,
    }
  })
  const pressing = (line: CareLine): number =>
    Math.min(...line.due.map((entry) => entry.inDays ?? Number.MAX_SAFE_INTEGER))
  return {
    today: isoDay(now),
    lines: lines.sort((one, other) => pressing(one) - pressing(other) || one.name.localeCompare(other.name)),
    feeds: feeds.map((feed) => ({ ...feed, madeAt: feed.madeAt.toISOString() })),
  }
}

/** By engine when it was last done, by the steps of jobs that have gone on past that station: half oiled is not oiled. */
async function lastCare(
  database: Database,
  which: ReturnType<typeof sql>,
  station: StationId,
): Promise<Map<string, Date>> {
  const past = stationIds.slice(stationIds.indexOf(station) + 1)
  const rows = await database
    .select({ engineId: job.engineId, at: sql<Date>`max(${careEntry.capturedAt})`.mapWith(careEntry.capturedAt) })
    .from(careEntry)
    .innerJoin(job, eq(careEntry.jobId, job.id))
    .where(and(which, inArray(job.station, past)))
    .groupBy(job.engineId)
  return new Map(rows.map((row) => [row.engineId, row.at]))
}

function latest(one: Date | null | undefined, other: Date | null | undefined): Date | null {
  if (!one || !other) return one ?? other ?? null
  return one > other ? one : other
}
