import { answer, pathId } from '../../../answer'
import { careLeaflet } from '../../../pdf/care-leaflet-document'
import { renderPdf } from '../../../pdf/render-pdf'
import { describeJobEngine } from '../../../services/describe-job-engine'
import { readJob } from '../../../services/read-job'
import { readWorkshop } from '../../../services/read-workshop'

/** What the owner can do at home: what, when, how much, what never. */
export default answer(async (event, database) => {
  const [book, { workshop }] = await Promise.all([readJob(database, pathId(event)), readWorkshop(database)])
  const pdf = await renderPdf(careLeaflet(book, await describeJobEngine(database, book), workshop, new Date()))
  setResponseHeaders(event, {
    'content-type': 'application/pdf',
    'content-disposition': `inline; filename="care-${book.job.number}.pdf"`,
  })
  return pdf
})
