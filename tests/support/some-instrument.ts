import { v7 as newId } from 'uuid'
import { usualCommands } from '../../bench/supply/supply-commands'
import type { InstrumentFields, SheetFields } from '../../messages/bench-entries'
import type { Actor } from '../../server/commands/write'
import type { Book } from '../../server/db/book'
import { readEngine } from '../../server/services/engines-and-owners'
import { someSheet } from './some-entries'
import { send, takeInSomething } from './test-book'

/** A simulated bench supply, as it is entered. */
export const someSupply = (more: Partial<InstrumentFields> = {}): InstrumentFields => ({
  name: 'Bench supply',
  kind: 'simulated',
  host: '',
  port: 5025,
  leadOhms: 0.1,
  commands: { ...usualCommands },
  voltage: { percentOfReading: 0.05, digits: 2, resolution: 0.001 },
  current: { percentOfReading: 0.1, digits: 3, resolution: 0.0001 },
  retired: false,
  ...more,
})

/** Enters one, and gives its id. */
export async function someInstrument(book: Book, actor: Actor, more: Partial<InstrumentFields> = {}): Promise<string> {
  const id = newId()
  await send(book, actor, 'instrument.save', { id, fields: someSupply(more) })
  return id
}

/** What the machine and the sheet of a test are, where it matters. */
interface SheetAbout {
  readonly construction?: 'three-rail-single' | 'three-rail-twin'
  readonly station?: 'first-run' | 'rebuild'
  readonly supply?: SheetFields['supply']
}

/** Takes an engine in and begins a sheet of it. */
export async function sheetOf(
  book: Book,
  actor: Actor,
  { construction, station = 'first-run', supply = 'smooth-dc' }: SheetAbout = {},
): Promise<{ sheetId: string; jobId: string }> {
  const { jobId, engineId, typeId } = await takeInSomething(book, actor)
  if (construction) {
    const { type } = await readEngine(book.database, engineId)
    const { id: _id, version, templateId: _template, adaptations: _adaptations, ...fields } = type
    await send(
      book,
      actor,
      'engine-type.save',
      { id: typeId, fields: { ...fields, construction, power: 'ac', motorKind: 'ac-series' } },
      { expectedVersion: version },
    )
  }
  const sheetId = newId()
  await send(book, actor, 'sheet.save', { id: sheetId, jobId, fields: { ...someSheet, station, supply } })
  return { sheetId, jobId }
}
