import { answer } from '../../answer'
import { careCalendar } from '../../services/calendar-feed'
import { readCareBook } from '../../services/care-book'
import { readWorkshop } from '../../services/read-workshop'

/** The same as a file for a calendar. */
export default answer(async (event, database) => {
  const [book, { workshop }] = await Promise.all([readCareBook(database, new Date()), readWorkshop(database)])
  setResponseHeaders(event, {
    'content-type': 'text/calendar; charset=utf-8',
    'content-disposition': 'attachment; filename="care-due.ics"',
  })
  return careCalendar(book, workshop.name)
})
