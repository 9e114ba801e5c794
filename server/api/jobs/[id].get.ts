import { jobSlices } from '../../../messages/book'
import { answer, pathId } from '../../answer'
import { bookNews } from '../../book-news'
import { readJobSlices } from '../../services/read-job'

/** The head of a job's book and the slices asked for, all of them where none is named, with their place in the news. */
export default answer(async (event, database) => {
  const asked = getQuery(event).slices
  const names = typeof asked === 'string' ? asked.split(',') : null
  const asOf = bookNews.now
  const book = await readJobSlices(
    database,
    pathId(event),
    jobSlices.filter((slice) => !names || names.includes(slice)),
  )
  return { ...book, asOf }
})
