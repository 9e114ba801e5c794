import { v7 as newId } from 'uuid'
import { usualCommands } from '../../bench/supply/supply-commands'
import { noChanges } from '../../core/knowledge/knowledge-changes'
import { describeConstruction } from '../../core/knowledge/constructions'
import type { CommandName, CommandPayload } from '../../messages/commands'
import { emptyEngineType, runningReading, someJob, someSheet } from './some-entries'

/** Rows a sample may hang on. */
export interface SampleIds {
  readonly jobId: string
  readonly engineId: string
  readonly ownerId: string
  readonly typeId: string
  readonly sheetId: string
  readonly findingId: string
  readonly photographId: string
  readonly personId: string
}

const owner = { name: 'Ines Carvalhal', email: '', phone: '', address: '', notes: '', isShop: false }
const unit = () => ({ id: newId(), name: 'Locomotive', powered: true, marks: '' })
const engine = () => ({
  nickname: 'Orrin Eight',
  runningNumber: '8',
  marks: '',
  condition: '',
  history: '',
  differences: '',
  units: [unit()],
})
const accuracy = { percentOfReading: 0.1, digits: 2, resolution: 0.001 }

/** One sound message of every command; the compiler names what is missing here. */
export function sampleMessages(ids: SampleIds): { [N in CommandName]: CommandPayload<N> } {
  const { jobId, engineId, ownerId, typeId, sheetId, findingId, photographId } = ids
  const timerId = newId()
  return {
    'owner.save': { id: newId(), fields: owner },
    'engine-type.save': { id: newId(), fields: emptyEngineType },
    'engine.save': { id: newId(), fields: { ...engine(), ownerId, typeId } },
    'engine.adapt': {
      id: engineId,
      fields: { adaptations: [{ kind: 'weight', unit: 'locomotive', grams: 25, place: 'over the rear axle' }] },
    },
    'engine-type.adapt': {
      id: typeId,
      fields: { templateId: null, adaptations: [{ kind: 'pickup', wheelSet: 'driver-1', side: 'left', to: 'frame' }] },
    },
    'construction.save': {
      id: newId(),
      fields: { name: 'Own construction', description: describeConstruction('tank-can') },
    },
    'component.save': {
      id: newId(),
      engineId,
      fields: { kind: 'motor', description: 'Five-pole', fittedOn: '2024-02-29', removedOn: null, notes: '' },
    },
    'job.take-in': {
      jobId: newId(),
      owner: { made: { id: newId(), fields: owner } },
      type: { made: { id: newId(), fields: emptyEngineType } },
      engine: { made: { id: newId(), fields: engine() } },
      job: { ...someJob, dueOn: '2026-12-12', arrivals: [{ id: newId(), kind: 'missing', what: 'Bell', fate: null }] },
    },
    'job.edit': { id: jobId, fields: someJob },
    'job.move': { id: jobId, fields: { station: 'find', state: 'open', waitingFor: '' } },
    'job.hand-back': {
      id: jobId,
      fields: { leftUndone: '', lubricants: '', dueAgain: '', partsReturned: '', price: 4200 },
    },
    'finding.save': {
      id: newId(),
      jobId,
      fields: { what: 'Dry bearing', place: 'motor', state: 'suspected', origin: 'arrived', remedy: '' },
    },
    'note.add': { id: newId(), jobId, fields: { station: 'find', text: 'Looked', minutes: 5, supersedesId: null } },
    'search.add': {
      id: newId(),
      jobId,
      entry: {
        kind: 'confirmed',
        suspect: 'tyre-perished@tyres',
        words: 'perished tyres',
        findingId,
        believed: [{ suspect: 'tyre-perished@tyres', words: 'perished tyres', chance: 0.7 }],
      },
    },
    'strip.add': {
      id: newId(),
      jobId,
      entry: { kind: 'off', part: 'body', words: 'Body', cell: null, way: 'cab forward', count: 1, minutes: 1 },
    },
    'care.add': {
      id: newId(),
      jobId,
      entry: {
        kind: 'soil',
        group: 'treads@driven@locomotive',
        soils: ['oxide'],
        words: 'Treads: oxide and tarnish',
      },
    },
    'shelf.save': {
      id: newId(),
      fields: {
        name: 'Alcohol, brown bottle',
        product: 'isopropyl',
        labelled: 'not-said',
        left: 'half',
        openedOn: '2026-10-01',
        notes: '',
      },
    },
    'parcel.save': {
      id: newId(),
      fields: {
        ownerId,
        arrivedOn: '2026-11-02',
        came: 'By post, a wine carton',
        condition: 'One corner crushed',
        items: [
          { id: newId(), what: 'Bag of screws', held: 'Seven screws, two washers', jobId: null, borrowed: false },
        ],
        packed: [],
        sentBackOn: null,
        remarks: '',
      },
    },
    'running.book': {
      id: newId(),
      fields: { day: '2026-11-01', show: '', engines: [{ engineId, hours: 3, meter: null, meterReplaced: false }] },
    },
    'photograph.save': {
      id: photographId,
      jobId,
      fields: {
        caption: 'Rust round the screw',
        about: { kind: 'part', part: 'body', moment: 'off' },
        marks: [{ shape: 'ring', x: 0.4, y: 0.5, toX: 0.5, toY: 0.5, words: 'this one' }],
      },
    },
    'timer.begin': {
      id: timerId,
      fields: { jobId, station: 'mend', label: 'Glue', endsAt: '2026-12-01T10:00:00.000Z' },
    },
    'timer.stop': { id: timerId },
    'continuity.add': {
      id: newId(),
      jobId,
      fields: {
        point: 'driver-1.left',
        column: 'own',
        reading: { kind: 'ohms', quantity: { typed: '0.4', value: 0.4, resolution: 0.1, meter: null } },
        words: 'driver 1 left',
      },
    },
    'knowledge.learn': {
      id: newId(),
      jobId,
      fields: { suspects: ['tyre-perished@tyres'], typeNote: 'Slide the motor in coupled.', withdrawn: false },
    },
    'knowledge.forget': { id: newId(), fields: { construction: 'tank-can' } },
    'type-knowledge.save': { id: typeId, fields: { changes: noChanges } },
    'part.save': { id: newId(), jobId, fields: { what: 'Tyre', quantity: 2, state: 'wanted', price: 180 } },
    'sheet.save': { id: newId(), jobId, fields: someSheet },
    'reading.add': { id: newId(), jobId, sheetId, supersedesId: null, fields: runningReading(6, 120) },
    'reading.strike': { id: newId(), jobId, sheetId, readingId: newId(), reason: '' },
    'meter.save': {
      id: newId(),
      fields: {
        name: 'Meter',
        measures: 'current',
        rangeTop: 0.4,
        resolution: 0.0001,
        percentOfReading: 1,
        digits: 3,
        retired: false,
      },
    },
    'instrument.save': {
      id: newId(),
      fields: {
        name: 'Supply',
        kind: 'simulated',
        host: '',
        port: 5025,
        leadOhms: 0.05,
        commands: { ...usualCommands },
        voltage: accuracy,
        current: accuracy,
        retired: false,
      },
    },
    'workshop.save': {
      fields: {
        name: 'Test bench',
        address: '',
        currency: 'GBP',
        hourlyRate: 3800,
        taxPercent: 20,
        taxName: 'VAT',
        handBackFooter: '',
        idleHours: 10,
        nightlyBackups: 7,
      },
    },
    'person.save': {
      id: newId(),
      fields: { signInName: `hand-${newId().slice(-8)}`, name: 'Joost', role: 'hand', active: true },
      password: 'a brass worm and gear',
    },
  }
}
