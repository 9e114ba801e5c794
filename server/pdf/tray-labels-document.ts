import { format } from 'date-fns'
import type { TDocumentDefinitions } from 'pdfmake/interfaces'
import { cellName } from '../../core/strip/tray'
import type { JobBook } from '../../messages/book'
import type { WorkshopFields } from '../../messages/bench-entries'
import { engineName } from '../../work/engine-name'
import { stripState, type LyingPart } from '../../work/strip-state'

const STEEL = '#5C6B77'
const ACROSS = 3

/** Labels to cut out, one a thing in the trays: which engine, which cell, which way round. */
export function trayLabels(book: JobBook, workshop: WorkshopFields, now: Date): TDocumentDefinitions {
  const { job, engine, type } = book
  const trays = new Map((workshop.trays ?? []).map((tray) => [tray.id, tray.name]))
  const { lying } = stripState(book.strip, book.search)
  const label = (thing: LyingPart) => ({
    stack: [
      { text: `${job.number}  ${engineName(engine, type)}`, fontSize: 8, color: STEEL },
      { text: thing.words, bold: true },
      {
        text: [
          thing.cell ? `${cellName(thing.cell)}, ${trays.get(thing.cell.tray) ?? ''}` : 'beside the tray',
          thing.count > 1 ? `${thing.count} of them` : '',
        ]
          .filter(Boolean)
          .join(', '),
        fontSize: 9,
      },
      ...(thing.way ? [{ text: thing.way, fontSize: 9 }] : []),
      { text: format(now, 'd MMM yyyy'), fontSize: 7, color: STEEL },
    ],
    margin: [4, 4, 4, 4] as [number, number, number, number],
  })
  const rows = Array.from({ length: Math.ceil(lying.length / ACROSS) }, (_, row) =>
    Array.from({ length: ACROSS }, (_unused, column) => {
      const thing = lying[row * ACROSS + column]
      return thing ? label(thing) : { text: '' }
    }),
  )
  return {
    pageSize: 'A4',
    pageMargins: [28, 28, 28, 28],
    defaultStyle: { font: 'Atkinson', fontSize: 11, color: '#23282D' },
    info: { title: `Tray labels, job ${job.number}`, author: workshop.name },
    content:
      rows.length > 0
        ? [{ table: { widths: Array.from({ length: ACROSS }, () => '*'), body: rows, dontBreakRows: true } }]
        : ['Nothing lies in the trays.'],
  }
}
