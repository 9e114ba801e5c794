import { format } from 'date-fns'
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces'
import type { JobBook } from '../../messages/book'
import { finishedInWords } from '../../work/finished-in-words'
import { engineName } from '../../work/engine-name'
import { compareJob } from '../../work/job-comparison'
import type { WorkshopFields } from '../../messages/bench-entries'
import { showMoney } from '../../work/money'
import { showFigure } from '../../work/shown-figure'
import { arrivalFates, findingOrigins, findingStates, powers } from '../../messages/vocabulary'
import { beforeAfterChart } from './before-after-chart'

const GREEN = '#1F4D3A'
const STEEL = '#5C6B77'
const RULE = '#B9AF9B'

const verdictWords = {
  better: 'better',
  worse: 'worse',
  changed: 'changed',
  'no-measurable-change': 'no measurable change',
  'cannot-compare': 'cannot be compared',
} as const

/** The sheet the owner gets: what was found, done and left undone, and the readings that prove it. */
export function handBackDocument(book: JobBook, workshop: WorkshopFields, now: Date): TDocumentDefinitions {
  const { job, engine, type, owner } = book
  return {
    pageSize: 'A4',
    pageMargins: [48, 48, 48, 56],
    defaultStyle: { font: 'Atkinson', fontSize: 10, lineHeight: 1.2, color: '#23282D' },
    info: { title: `Job ${job.number}: ${engineName(engine, type)}`, author: workshop.name },
    styles: {
      heading: { fontSize: 12, bold: true, color: GREEN, margin: [0, 14, 0, 4] },
      quiet: { color: STEEL, fontSize: 9 },
    },
    content: [
      letterhead(book, workshop, now),
      rule(),
      { text: 'What was wrong', style: 'heading' },
      { text: job.complaint },
      ...(job.trial ? [{ text: `Repeated as a trial: ${job.trial}`, style: 'quiet' }] : []),
      ...findingsSection(book),
      ...comparisonSection(book),
      ...finishSection(book),
      ...partsSection(book, workshop),
      ...closingSection(book, workshop),
      ...(workshop.handBackFooter
        ? [{ text: workshop.handBackFooter, style: 'quiet', margin: [0, 18, 0, 0] } satisfies Content]
        : []),
    ],
    footer: (page, pages) => ({
      text: `${workshop.name} · job ${job.number} · ${owner.name} · page ${page} of ${pages}`,
      alignment: 'center',
      fontSize: 8,
      color: STEEL,
      margin: [48, 16, 48, 0],
    }),
  }
}

function letterhead({ job, engine, type, owner, components }: JobBook, workshop: WorkshopFields, now: Date): Content {
  const decoder = components.find((component) => component.kind === 'decoder' && !component.removedOn)
  return {
    columns: [
      {
        width: '*',
        stack: [
          { text: workshop.name, fontSize: 15, bold: true, color: GREEN },
          { text: workshop.address, style: 'quiet' },
          { text: owner.name, margin: [0, 14, 0, 0], bold: true },
          { text: owner.address },
        ],
      },
      {
        width: 230,
        stack: [
          { text: `Job ${job.number}`, fontSize: 22, bold: true, alignment: 'right' },
          { text: engineName(engine, type), alignment: 'right', bold: true },
          {
            text: [type.maker, type.name, engine.runningNumber && `no. ${engine.runningNumber}`]
              .filter(Boolean)
              .join(' · '),
            alignment: 'right',
          },
          {
            text: [powers[type.power], decoder && `decoder: ${decoder.description}`].filter(Boolean).join(' · '),
            alignment: 'right',
            style: 'quiet',
          },
          {
            text: `Taken in ${day(job.takenInAt)}, handed back ${day(job.handedBackAt ?? now.toISOString())}`,
            alignment: 'right',
            style: 'quiet',
          },
        ],
      },
    ],
  }
}

function findingsSection({ findings, job, notes }: JobBook): Content[] {
  const line = (finding: JobBook['findings'][number]): Content => ({
    text: [
      { text: finding.what, bold: true },
      finding.place ? ` (${finding.place})` : '',
      `: ${findingStates[finding.state].toLowerCase()}`,
      finding.remedy ? `. ${finding.remedy}` : '',
      finding.origin === 'here' ? `  ${findingOrigins.here}; not charged.` : '',
    ],
  })
  const sections: Content[] = []
  const list = (title: string, chosen: JobBook['findings']): void => {
    if (chosen.length > 0) sections.push({ text: title, style: 'heading' }, { ul: chosen.map(line) })
  }
  list(
    'Found and done',
    findings.filter((finding) => finding.state === 'mended'),
  )
  list(
    'Found, still to do',
    findings.filter((finding) => finding.state === 'confirmed' || finding.state === 'suspected'),
  )
  list(
    'Found and left',
    findings.filter((finding) => finding.state === 'left' || finding.state === 'declined'),
  )
  const superseded = new Set(notes.map((note) => note.supersedesId))
  const work = notes.filter(
    (note) => !superseded.has(note.id) && note.text && ['clean', 'lubricate', 'rebuild', 'mend'].includes(note.station),
  )
  if (work.length > 0) sections.push({ text: 'Work', style: 'heading' }, { ul: work.map((note) => note.text) })
  const undone = job.handBack?.leftUndone
  if (undone) sections.push({ text: 'Left undone', style: 'heading' }, { text: undone })
  return sections
}

function comparisonSection(book: JobBook): Content[] {
  const { before, after, lines } = compareJob(book)
  if (!before && !after) return []
  if (lines.length === 0) {
    return [
      { text: 'Readings', style: 'heading' },
      {
        text:
          before && after
            ? 'Nothing was measured in the same way before and after, so nothing is compared.'
            : `Readings were taken ${before ? 'before the work only' : 'after the work only'}; there is nothing to compare them with.`,
      },
    ]
  }
  const chart =
    before && after
      ? beforeAfterChart(
          { readings: before.readings, fit: before.judgement.fit },
          { readings: after.readings, fit: after.judgement.fit },
        )
      : null
  const head: TableCell[] = ['', 'Before', 'After', ''].map((text) => ({ text, bold: true, color: STEEL, fontSize: 9 }))
  const rows = lines.map((line): TableCell[] =>
    line.before && line.after
      ? [line.label, showFigure(line.before), showFigure(line.after), verdictWords[line.verdict]]
      : [line.label, { text: line.sentence, colSpan: 2 }, '', verdictWords[line.verdict]],
  )
  return [
    { text: 'Before and after', style: 'heading' },
    {
      table: { headerRows: 1, widths: ['*', 'auto', 'auto', 'auto'], body: [head, ...rows] },
      layout: {
        hLineWidth: (row) => (row === 0 ? 0 : 0.5),
        vLineWidth: () => 0,
        hLineColor: () => RULE,
        paddingLeft: () => 0,
        paddingRight: () => 12,
        paddingTop: () => 3,
        paddingBottom: () => 3,
      },
    },
    {
      text: `± is the expanded uncertainty at 95 %: the meter and the repeatability together.${lines.some((line) => line.repeatabilityAssumed) ? ' Where fewer than three readings were repeated, 5 % is taken for the repeatability.' : ''} A difference within it is called no measurable change.`,
      style: 'quiet',
      margin: [0, 4, 0, 0],
    },
    ...(chart ? [{ svg: chart, width: 500, margin: [0, 8, 0, 0] } satisfies Content] : []),
  ]
}

function finishSection({ care }: JobBook): Content[] {
  const done = finishedInWords(care)
  return done.length === 0 ? [] : [{ text: 'Finish and detail', style: 'heading' }, { ul: done }]
}

function partsSection({ parts, job }: JobBook, workshop: WorkshopFields): Content[] {
  const fitted = parts.filter((part) => part.state === 'fitted')
  const arrivals = job.arrivals.filter((item) => item.fate)
  return [
    ...(fitted.length > 0
      ? ([
          { text: 'Parts fitted', style: 'heading' },
          {
            ul: fitted.map(
              (part) =>
                `${part.quantity} × ${part.what}${part.price === null ? '' : `, ${showMoney(part.price * part.quantity, workshop.currency)}`}`,
            ),
          },
        ] satisfies Content[])
      : []),
    ...(arrivals.length > 0 || job.handBack?.partsReturned
      ? ([
          { text: 'Parts that came with it', style: 'heading' },
          {
            ul: [
              ...arrivals.map((item) => `${item.what}: ${item.fate ? arrivalFates[item.fate].toLowerCase() : ''}`),
              ...(job.handBack?.partsReturned ? [`Returned: ${job.handBack.partsReturned}`] : []),
            ],
          },
        ] satisfies Content[])
      : []),
  ]
}

function closingSection({ job }: JobBook, workshop: WorkshopFields): Content[] {
  const { handBack } = job
  if (!handBack) return []
  const lines = [
    handBack.lubricants && `Lubricants used: ${handBack.lubricants}`,
    handBack.dueAgain && `Due again: ${handBack.dueAgain}`,
  ].filter((line): line is string => Boolean(line))
  return [
    ...(lines.length > 0 ? ([{ text: 'Care', style: 'heading' }, { ul: lines }] satisfies Content[]) : []),
    ...(handBack.price === null
      ? []
      : [
          {
            text: `Price: ${showMoney(handBack.price, workshop.currency)}`,
            fontSize: 13,
            bold: true,
            margin: [0, 14, 0, 0],
          } satisfies Content,
        ]),
  ]
}

function rule(): Content {
  return { canvas: [{ type: 'line', x1: 0, y1: 10, x2: 499, y2: 10, lineWidth: 0.8, lineColor: RULE }] }
}

function day(instant: string): string {
  return format(new Date(instant), 'd MMMM yyyy')
}
