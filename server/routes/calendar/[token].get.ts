import { openAnswer } from '../../answer'
import { careCalendar, mustBeFed } from '../../services/calendar-feed'
import { readCareBook } from '../../services/care-book'
import { readWorkshop } from '../../services/read-workshop'

/** What is due, for a calendar that knows the secret address. */
export default openAnswer(async (event, database) => {
  await mustBeFed(database, (getRouterParam(event, 'token') ?? '').replace(/\.ics$/, ''))
  const [book, { workshop }] = await Promise.all([readCareBook(database, new Date()), readWorkshop(database)])
  setResponseHeaders(event, { 'content-type': 'text/calendar; charset=utf-8', 'cache-control': 'private, no-store' })
  return careCalendar(book, workshop.name)
})
