import { answer, pathId } from '../../../answer'
import { renderPdf } from '../../../pdf/render-pdf'
import { handBackDocument } from '../../../pdf/hand-back-document'
import { readJob } from '../../../services/read-job'
import { readWorkshop } from '../../../services/read-workshop'

/** The printed sheet: found, done, left undone, before and after. */
export default answer(async (event, database) => {
  const [book, { workshop }] = await Promise.all([readJob(database, pathId(event)), readWorkshop(database)])
  const pdf = await renderPdf(handBackDocument(book, workshop, new Date()))
  setResponseHeaders(event, {
    'content-type': 'application/pdf',
    'content-disposition': `inline; filename="job-${book.job.number}.pdf"`,
  })
  return pdf
})
