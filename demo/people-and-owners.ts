import type { MeterFields, PersonFields, WorkshopFields } from '../messages/bench-entries'
import type { OwnerFields } from '../messages/book-entries'
import { trays } from './strips'

/** The invented shop: a two-person bench over a chandler's in a small harbour town, before the festival's model show. */
export const shop: WorkshopFields = {
  name: 'Loft Bench',
  address: 'over the chandler’s, 3 Net Quay\nPort Vessery',
  currency: 'GBP',
  hourlyRate: 3600,
  taxPercent: 20,
  taxName: 'VAT',
  handBackFooter:
    'Twelve months on work done. Wipe rails and treads after every eight hours of running, oil lightly after every twenty-four. Keep this sheet in the box.',
  trays: [...trays],
  missingTools: ['press', 'wheel-puller'],
  careRows: {
    rules: [
      {
        what: 'fibre-pen',
        material: 'nickel-silver',
        subject: null,
        level: 'care',
        why: 'It took the shine off the rims of two tank engines.',
      },
    ],
    ways: [{ soil: 'oxide', subject: 'contacts', agent: 'isopropyl', method: 'paper-strip' }],
    amounts: [{ point: 'universal-joint', product: 'gear oil', amount: 'a trace on a pin' }],
  },
  schools: { 'teeth-and-shafts': 'oil-on-teeth', originality: 'keep', 'commutator-bearing': 'trace-if-squeals' },
}

export const benchHand: PersonFields = { signInName: 'jonas', name: 'Jonas Abara', role: 'hand', active: true }
export const reader: PersonFields = { signInName: 'desk', name: 'Festival desk', role: 'reader', active: true }

export const meters: readonly MeterFields[] = [
  {
    name: 'Bench meter, 20 V',
    measures: 'voltage',
    rangeTop: 20,
    resolution: 0.01,
    percentOfReading: 0.5,
    digits: 2,
    retired: false,
  },
  {
    name: 'Bench meter, 400 mA',
    measures: 'current',
    rangeTop: 0.4,
    resolution: 0.0001,
    percentOfReading: 1,
    digits: 3,
    retired: false,
  },
  {
    name: 'Track meter, 2 A',
    measures: 'current',
    rangeTop: 2,
    resolution: 0.001,
    percentOfReading: 1,
    digits: 3,
    retired: false,
  },
  {
    name: 'Bench meter, 400 Ω',
    measures: 'resistance',
    rangeTop: 400,
    resolution: 0.1,
    percentOfReading: 0.8,
    digits: 2,
    retired: false,
  },
  {
    name: 'Old needle meter, 500 mA',
    measures: 'current',
    rangeTop: 0.5,
    resolution: 0.01,
    percentOfReading: 2.5,
    digits: 1,
    retired: true,
  },
]

const owner = (name: string, address: string, phone: string, notes = ''): OwnerFields => ({
  name,
  address,
  phone,
  email: `${name
    .toLowerCase()
    .normalize('NFD')
    .replace(/[^a-z ]/g, '')
    .trim()
    .replace(/ +/g, '.')}@post.example`,
  notes,
  isShop: false,
})

export const owners: readonly OwnerFields[] = [
  {
    name: 'Loft Bench (own stock)',
    address: 'Port Vessery',
    phone: '',
    email: '',
    notes: 'Bought in, restored, kept or sold with an honest note.',
    isShop: true,
  },
  owner(
    'Ines Carvalhal',
    '14 Rope Walk\nPort Vessery',
    '01632 960114',
    'Runs the festival’s harbour layout. Wants everything ready a week before.',
  ),
  owner('Tomasz Wierzbin', 'Lighthouse Cottage\nGull Point', '01632 960127'),
  owner(
    'Aoife Brannagh',
    '2 Chapel Steps\nUpper Vessery',
    '01632 960139',
    'Her grandfather’s collection. Ask before replacing anything.',
  ),
  owner('Kwame Asantegra', '81 Tallow Street\nMarlhaven', '01632 960150'),
  owner(
    'Yuki Hoshigaki',
    '5 Canal Row\nMarlhaven',
    '01632 960166',
    'Narrow gauge only. Knows her engines; writes good complaints.',
  ),
  owner('Lars Ekedahl-Roth', 'The Old Signal House\nBrackenfold', '01632 960172'),
  owner('Priya Ramanesh', '33 Orchard Bank\nUpper Vessery', '01632 960185'),
  owner('Dov Lindenbrook', '7 Pilot’s Yard\nPort Vessery', '01632 960198', 'Three-rail. Comes by on market days.'),
  owner('Marguerite Solpetit', 'Quai Neuf 12\nSaint-Aubrac', '01632 960203'),
  owner('Hamza Yildirak', '19 Fuller’s Green\nMarlhaven', '01632 960217'),
  owner(
    'Grete Oberhollin',
    'Schulgasse 4\nHinterau',
    '01632 960221',
    'Sends parcels: count the contents in, pack them back the same way.',
  ),
  owner('Samuel Tarrowby', '6 Smithy Lane\nBrackenfold', '01632 960238'),
  owner(
    'Vessery Model Engineers',
    'Club Room, Station Yard\nPort Vessery',
    '01632 960244',
    'Six members may bring in the club’s engines. Invoice to the treasurer.',
  ),
]
