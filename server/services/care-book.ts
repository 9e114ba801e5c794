import { differenceInCalendarDays, parseISO } from 'date-fns'
import { and, asc, desc, eq, inArray, isNotNull, ne, sql } from 'drizzle-orm'
import { surroundingsShare } from '../../core/care/due-list'
import { forecastDue, hourly, paceOf, type RanOn } from '../../core/care/forecast-due'
import type { CareBook, CareLine } from '../../messages/book'
import { stationIds, type StationId } from '../../messages/vocabulary'
import { circumstancesIn } from '../../work/search-history'
import { engineName } from '../../work/engine-name'
import type { Database } from '../db/book'
import { calendarFeed, careEntry, engine, engineType, job, owner, person, runningEntry } from '../db/schema'

/** The database's own first day, by which it counts days: only differences matter. */
const DAY_ZERO = parseISO('2000-01-01')
const DAYS_BEFORE = 730_485
/** The number MariaDB's TO_DAYS gives a day. */
const dayNumber = (day: string): number => differenceInCalendarDays(parseISO(day), DAY_ZERO) + DAYS_BEFORE
const byName = new Intl.Collator('en-GB')
/** Stands between two names of shows: nobody types it. */
const APART = '\u0001'
/** Days and hours as they come from the database in one text, oldest first. */
const ranOn = (text: string): RanOn[] =>
  text.split(';').map((entry) => {
    const at = entry.indexOf(' ')
    return { day: Number(entry.slice(0, at)), hours: Number(entry.slice(at + 1)) }
  })
/** What is told of surroundings stands at the beginning of a history, if anywhere. */
const MOST_HISTORY = 2000
const isoDay = (instant: Date): string => instant.toISOString().slice(0, 10)

/** What is due next on every engine that has ever run by the book, the most pressing first; and who may read it from afar. */
export async function readCareBook(database: Database, now: Date): Promise<CareBook> {
  const [ran, engines, oiled, wiped, handed, pasts, feeds] = await careRows(database)
  const today = isoDay(now)
  const byEngine = new Map(ran.map((row) => [row.engineId, row]))
  const pastOf = new Map(pasts.map((row) => [row.engineId, row.past]))
  const handedAt = new Map(handed.map((row) => [row.engineId, row.at]))
  const lines = engines.map((row) => {
    const { id, history } = row.engine
    const serviced = handedAt.get(id) ?? null
    const oil = latest(oiled.get(id), serviced)
    return careLine(row, byEngine.get(id) ?? null, today, {
      oil,
      wipe: latest(wiped.get(id), oil),
      shortened: surroundingsShare(pastOf.get(id) ?? circumstancesIn(history)),
    })
  })
  const pressing = (line: CareLine): number =>
    Math.min(...line.due.map((entry) => entry.inDays ?? Number.MAX_SAFE_INTEGER))
  return {
    today,
    lines: lines.sort((one, other) => pressing(one) - pressing(other) || byName.compare(one.name, other.name)),
    feeds: feeds.map((feed) => ({ ...feed, madeAt: feed.madeAt.toISOString() })),
  }
}

type CareRows = Awaited<ReturnType<typeof careRows>>

/** Everything the care book is made of, read side by side. */
function careRows(database: Database) {
  return Promise.all([
    // One row an engine: twenty thousand entries are read in the time it takes to name them.
    database
      .select({
        engineId: runningEntry.engineId,
        days: sql<string>`group_concat(to_days(${runningEntry.day}), ' ', ${runningEntry.hours} order by ${runningEntry.day}, ${runningEntry.id} separator ';')`,
        lastDay: sql<string>`max(${runningEntry.day})`,
        lastShow: sql<string>`substring_index(group_concat(${runningEntry.show} order by ${runningEntry.day}, ${runningEntry.id} separator ${APART}), ${APART}, -1)`,
      })
      .from(runningEntry)
      .groupBy(runningEntry.engineId),
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
}

/** One engine: what is due by the hours it ran, and since when. */
function careLine(
  { engine: row, type, owner: ownerName }: CareRows[1][number],
  booked: CareRows[0][number] | null,
  today: string,
  { oil, wipe, shortened }: { readonly oil: Date | null; readonly wipe: Date | null; readonly shortened: number },
): CareLine {
  const hours = booked ? ranOn(booked.days) : []
  const pace = paceOf(hours, dayNumber(today))
  const due = hourly.map((interval) => {
    const at = interval.id === 'oil' ? oil : wipe
    const since = at ? dayNumber(isoDay(at)) : null
    const { spent, every, state, inDays, earliest, latest } = forecastDue(hours, since, dayNumber(today), interval, {
      shortened,
      pace,
    })
    return { id: interval.id, name: interval.name, spent, every, state, inDays, earliest, latest }
  })
  const last = hours.at(-1)
  return {
    engineId: row.id,
    ownerId: row.ownerId,
    name: engineName(row, type),
    type: `${type.maker} ${type.name}`,
    owner: ownerName,
    lastRan: last && booked ? { day: booked.lastDay, hours: last.hours, show: booked.lastShow } : null,
    oiledOn: oil ? isoDay(oil) : null,
    shortened: shortened < 1,
    due,
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
