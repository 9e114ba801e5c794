import { format } from 'date-fns'
import type { TDocumentDefinitions } from 'pdfmake/interfaces'
import { lubricationCard } from '../../core/care/lubrication-card'
import { hourly } from '../../core/care/forecast-due'
import { atStart, inSentence } from '../../core/engine/name-in-sentence'
import type { EngineDescription } from '../../core/engine/description-schema'
import type { JobBook } from '../../messages/book'
import type { WorkshopFields } from '../../messages/bench-entries'
import { ownAmountsOf } from '../../work/care-practice'
import { engineName } from '../../work/engine-name'

const GREEN = '#1F4D3A'
const STEEL = '#5C6B77'
const RED = '#A3231F'

/** What the owner can do at home, for this very engine: when, what, how much, what never, and about the track. */
export function careLeaflet(
  { job, engine, type, practice }: JobBook,
  description: EngineDescription,
  workshop: WorkshopFields,
  now: Date,
): TDocumentDefinitions {
  const card = lubricationCard(description, {
    chosen: practice.schools,
    advice: type.makersAdvice ?? [],
    amounts: ownAmountsOf({ practice, type }),
  })
  const name = engineName(engine, type)
  const kinds = new Map<string, { product: string; amount: string; names: string[] }>()
  for (const point of card.points) {
    const found = kinds.get(point.kind) ?? { product: point.product ?? '', amount: point.amount, names: [] }
    found.names.push(point.name)
    kinds.set(point.kind, found)
  }
  const never = [...new Set(card.none.map((point) => `${point.name.split(':')[0]}: ${inSentence(point.because)}`))]
  return {
    pageSize: 'A4',
    pageMargins: [48, 48, 48, 48],
    defaultStyle: { font: 'Atkinson', fontSize: 11, lineHeight: 1.25, color: '#23282D' },
    info: { title: `Care of ${name}`, author: workshop.name },
    styles: {
      heading: { fontSize: 13, bold: true, color: GREEN, margin: [0, 14, 0, 4] },
      quiet: { color: STEEL, fontSize: 9 },
    },
    content: [
      { text: `Care of ${name}`, fontSize: 20, bold: true },
      {
        text: `${type.maker} ${type.name}. Job ${job.number}, ${workshop.name}, ${format(now, 'd MMMM yyyy')}`,
        style: 'quiet',
      },
      { text: 'When', style: 'heading' },
      {
        ul: [
          ...hourly.map((interval) => `${interval.name}: after every ${interval.every} hours of running.`),
          'Gardens, carpets and dust halve these hours. One usual schedule among several.',
          'After a year or more in its box: a look before it runs. After ten, the grease has dried.',
        ],
      },
      { text: `What, and how much: ${card.drops} drops in all`, style: 'heading' },
      {
        table: {
          widths: ['*', 'auto', '*'],
          body: [...kinds.values()].map(({ product, amount, names }) => [
            names.length > 1 ? `${names[0]?.split(':')[0]} (${names.length})` : (names[0] ?? ''),
            atStart(product),
            amount,
          ]),
        },
        layout: 'lightHorizontalLines',
      },
      { text: 'Never', style: 'heading', color: RED },
      {
        ul: [...never, 'Steel wool near a motor: its fibres short it.', 'Any liquid near power: let it dry first.'],
      },
      { text: 'The track', style: 'heading' },
      {
        ul: [
          'Fastened down; rail sides too are clean; new joiners are cheap.',
          'No slope steeper than it can haul.',
          'Wiped after eight hours of running, with a rubber, a pad or a cloth.',
        ],
      },
      {
        text: 'The workshop advises; for anything on the mains ask a qualified person.',
        style: 'quiet',
        margin: [0, 18, 0, 0],
      },
    ],
  }
}
