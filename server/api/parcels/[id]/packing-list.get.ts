import { answer, pathId } from '../../../answer'
import { packingList } from '../../../pdf/packing-list-document'
import { renderPdf } from '../../../pdf/render-pdf'
import { readParcel } from '../../../services/read-parcel'
import { readWorkshop } from '../../../services/read-workshop'

/** What goes back in the box. */
export default answer(async (event, database) => {
  const [book, { workshop }] = await Promise.all([readParcel(database, pathId(event)), readWorkshop(database)])
  const pdf = await renderPdf(packingList(book, workshop, new Date()))
  setResponseHeaders(event, {
    'content-type': 'application/pdf',
    'content-disposition': `inline; filename="packing-list-${book.parcel.arrivedOn}.pdf"`,
  })
  return pdf
})
