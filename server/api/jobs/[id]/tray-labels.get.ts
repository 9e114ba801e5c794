import { answer, pathId } from '../../../answer'
import { renderPdf } from '../../../pdf/render-pdf'
import { trayLabels } from '../../../pdf/tray-labels-document'
import { readJob } from '../../../services/read-job'
import { readWorkshop } from '../../../services/read-workshop'

/** Labels for what lies in the trays. */
export default answer(async (event, database) => {
  const [book, { workshop }] = await Promise.all([readJob(database, pathId(event)), readWorkshop(database)])
  const pdf = await renderPdf(trayLabels(book, workshop, new Date()))
  setResponseHeaders(event, {
    'content-type': 'application/pdf',
    'content-disposition': `inline; filename="labels-${book.job.number}.pdf"`,
  })
  return pdf
})
