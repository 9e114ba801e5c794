import { format, parseISO } from 'date-fns'
import type { TDocumentDefinitions } from 'pdfmake/interfaces'
import type { WorkshopFields } from '../../messages/bench-entries'
import type { ParcelBook } from '../../messages/book'
import { packingLines } from '../../work/packing-lines'

const STEEL = '#5C6B77'

/** What goes back in the box, to be ticked by who packs and by who unpacks. */
export function packingList(book: ParcelBook, workshop: WorkshopFields, now: Date): TDocumentDefinitions {
  const { parcel, owner } = book
  const lines = packingLines(book)
  return {
    pageSize: 'A4',
    pageMargins: [48, 48, 48, 48],
    defaultStyle: { font: 'Atkinson', fontSize: 11, color: '#23282D' },
    info: { title: `Packing list, ${owner.name}`, author: workshop.name },
    content: [
      { text: workshop.name, color: STEEL },
      { text: 'Packing list', fontSize: 20, bold: true, margin: [0, 6, 0, 2] },
      {
        text: `${owner.name}. Came ${format(parseISO(parcel.arrivedOn), 'd MMM yyyy')}${parcel.came ? `, ${parcel.came}` : ''}; ${
          parcel.sentBackOn
            ? `sent back ${format(parseISO(parcel.sentBackOn), 'd MMM yyyy')}`
            : `as it stands on ${format(now, 'd MMM yyyy')}`
        }.`,
      },
      ...(parcel.condition
        ? [{ text: `Condition of the parcel: ${parcel.condition}`, margin: [0, 4, 0, 0] as Margin }]
        : []),
      lines.length === 0
        ? { text: 'Nothing was noted of what came in it.', margin: [0, 14, 0, 0] as Margin }
        : {
            margin: [0, 14, 0, 0] as Margin,
            layout: 'lightHorizontalLines',
            table: {
              headerRows: 1,
              widths: [52, '*', 60],
              body: [
                ['Packed', 'What', 'Unpacked'].map((text) => ({ text, color: STEEL, fontSize: 9 })),
                ...lines.map((line) => [
                  { text: line.packed ? 'yes' : 'no', bold: !line.packed },
                  {
                    stack: [
                      { text: `${line.what}${line.borrowed ? ' (borrowed)' : ''}`, bold: true },
                      ...line.more.map((text) => ({ text, fontSize: 9 })),
                    ],
                  },
                  { text: '' },
                ]),
              ],
            },
          },
      ...(parcel.remarks ? [{ text: `Stays behind: ${parcel.remarks}`, margin: [0, 14, 0, 0] as Margin }] : []),
    ],
  }
}

type Margin = [number, number, number, number]
