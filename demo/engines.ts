import type { Difference } from '../core/engine/difference-schema'

/** The 25 engines of the scenario: by type and owner (their places in the lists), with what sets each apart. */
export interface DemoEngine {
  readonly key: string
  readonly type: string
  readonly owner: string
  readonly nickname?: string
  readonly number?: string
  readonly marks?: string
  readonly history?: string
  readonly differences?: string
  readonly units?: ReadonlyArray<{ name: string; powered: boolean }>
  readonly decoder?: string
  readonly livery: string
  /** How it is known to depart from its type. */
  readonly adaptations?: readonly Difference[]
}

const LOCO_AND_TENDER = [{ name: 'Locomotive', powered: true }, { name: 'Tender', powered: false }]

export const engines: readonly DemoEngine[] = [
  { key: 'orrin-7', type: 'orrin', owner: 'Ines Carvalhal', nickname: 'Orrin Seven', number: '7', livery: '#2f5d43', marks: 'Repainted green, left step bent', history: 'Works the harbour layout every festival. Oiled by the owner, generously.', adaptations: [{ kind: 'weight', unit: 'locomotive', grams: 25, place: 'over the rear axle' }] },
  { key: 'orrin-12', type: 'orrin', owner: 'Samuel Tarrowby', number: '12', livery: '#33383d', history: 'Bought at a house clearance; nothing known.' },
  { key: 'orrin-3', type: 'orrin', owner: 'Loft Bench (own stock)', nickname: 'The donor', number: '3', livery: '#6b3a2a', marks: 'No body screws, cab corner missing', history: 'Bought for its motor.', adaptations: [{ kind: 'omitted', part: 'body.screw-front', bridged: false }, { kind: 'omitted', part: 'body.screw-rear', bridged: false }] },
  { key: 'vale-411', type: 'vale', owner: 'Aoife Brannagh', nickname: 'Lady of the Vale', number: '411', livery: '#5c1f2b', marks: 'Lined by hand, signed inside the tender', history: 'Her grandfather’s; in its box since 1994, dry attic.', units: LOCO_AND_TENDER },
  { key: 'vale-418', type: 'vale', owner: 'Lars Ekedahl-Roth', number: '418', livery: '#33383d', history: 'Runs weekly on a club layout.', units: LOCO_AND_TENDER, differences: 'Tender wheels replaced by all-metal ones', adaptations: [{ kind: 'wheels', wheelSets: ['tender-1', 'tender-2', 'tender-3'], diameterMm: 13.6 }] },
  { key: 'salt-204', type: 'saltmark', owner: 'Tomasz Wierzbin', nickname: 'Cellar find', number: '204', livery: '#b3552e', history: 'Ten years in a damp cellar, on its track.' },
  { key: 'salt-211', type: 'saltmark', owner: 'Hamza Yildirak', number: '211', livery: '#38597c', history: 'Ran on a carpet as a child’s train.' },
  { key: 'salt-230', type: 'saltmark', owner: 'Vessery Model Engineers', number: '230', livery: '#b3552e', history: 'Club engine, hauls the long goods at shows.', adaptations: [{ kind: 'weight', unit: 'locomotive', grams: 60, place: 'over the motor bogie' }, { kind: 'pickup', wheelSet: 'trailing-1', side: 'left', to: 'motor-block' }, { kind: 'pickup', wheelSet: 'trailing-2', side: 'left', to: 'motor-block' }] },
  { key: 'shunter-2', type: 'harbour', owner: 'Ines Carvalhal', nickname: 'Net Quay', number: '2', livery: '#c08a1e', history: 'Shunts the quay for eight hours on festival days.' },
  { key: 'shunter-9', type: 'harbour', owner: 'Priya Ramanesh', number: '9', livery: '#2f5d43', history: 'Kept under glass; last run about 2009.' },
  { key: 'ridge-55', type: 'ridge', owner: 'Kwame Asantegra', number: '55', livery: '#38597c', history: 'Serviced elsewhere last year; runs against the controller since.' },
  { key: 'ridge-61', type: 'ridge', owner: 'Vessery Model Engineers', number: '61', livery: '#7c2330', history: 'Club engine with a decoder since 2019.', decoder: 'Generic eight-function decoder, 1 A' },
  { key: 'ridge-48', type: 'ridge', owner: 'Grete Oberhollin', number: '48', livery: '#33383d', history: 'Came by parcel with two bags of loose parts.', adaptations: [{ kind: 'omitted', part: 'lamp-rear', bridged: false }] },
  { key: 'bus-1', type: 'railbus', owner: 'Priya Ramanesh', nickname: 'Little bus', livery: '#a33a30', history: 'Grandchildren’s favourite; hair in everything.', adaptations: [{ kind: 'tyre', wheelSet: 'motor-1', side: 'left', fitted: false }] },
  { key: 'bus-4', type: 'railbus', owner: 'Marguerite Solpetit', number: '4', livery: '#d8c9a0', history: 'Stored in a bank box, unused.' },
  { key: 'fjell-90', type: 'fjell', owner: 'Lars Ekedahl-Roth', nickname: 'Old Fjell', number: '90', livery: '#33383d', history: 'Lamp burns, motor stops and starts. Kept in a boathouse.' },
  { key: 'fjell-92', type: 'fjell', owner: 'Hamza Yildirak', number: '92', livery: '#2f5d43', history: 'Bought second-hand in spring.', adaptations: [{ kind: 'motor', motor: 'motor', name: 'Coreless motor, fitted by a former owner', motorKind: 'coreless', ohms: 21, backEmf: 0.0091, segments: 5 }] },
  { key: 'glen-15', type: 'glen', owner: 'Kwame Asantegra', nickname: 'Glen', number: '15', livery: '#2b5f6e', history: 'Sound begins anew on every turnout.', decoder: 'Sound decoder, 2 A, with speaker' },
  { key: 'glen-18', type: 'glen', owner: 'Vessery Model Engineers', number: '18', livery: '#7c2330', history: 'Club railcar.', decoder: 'Generic decoder, 2 A' },
  { key: 'moor-5', type: 'moor', owner: 'Yuki Hoshigaki', nickname: 'Peat', number: '5', livery: '#6b3a2a', history: 'Show engine; hours written in the lid: 31 since last oil.' },
  { key: 'moor-6', type: 'moor', owner: 'Yuki Hoshigaki', nickname: 'Heather', number: '6', livery: '#5a4a78', history: 'Sister of Peat, spare at shows.', adaptations: [{ kind: 'resistor', component: 'lead.right', ohms: 22, name: 'Resistor' }] },
  { key: 'pilgrim-2', type: 'pilgrim', owner: 'Marguerite Solpetit', number: '231', livery: '#2f5d43', history: 'Dismantled once by a previous owner; two washers over.', units: LOCO_AND_TENDER, adaptations: [{ kind: 'material', part: 'axle-gear', materials: ['brass'] }] },
  { key: 'tarn-8', type: 'tarn', owner: 'Grete Oberhollin', number: '8', livery: '#7c2330', history: 'Found on a flea market in Hinterau.' },
  { key: 'kontor-64', type: 'kontor', owner: 'Dov Lindenbrook', nickname: 'The Kontor', number: '64', livery: '#33383d', history: 'His father’s, run every winter.' },
  { key: 'atlas-1', type: 'atlas', owner: 'Dov Lindenbrook', nickname: 'The Long Halbrook', number: '1001', livery: '#c08a1e', history: 'Horn stopped last year; changes direction when it likes.', units: [{ name: 'Powered unit', powered: true }, { name: 'Dummy unit', powered: false }] },
]
