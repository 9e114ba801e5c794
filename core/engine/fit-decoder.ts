import type { CircuitComponent, CircuitNode, EngineDescription, Part } from './description-schema'
import { inSentence } from './name-in-sentence'

/** The name of the switch that says what a decoder lets through, and its positions. */
export const DECODER_SWITCH = 'decoder'
export const decoderPositions = [
  { id: 'silent', name: 'Lets nothing through' },
  { id: 'straight', name: 'Right rail to plus' },
  { id: 'crossed', name: 'Right rail to minus' },
] as const

/** Forward drop of rectifier and bridge as a resistance at about half an ampere, each leg, Ω. From memory. */
const LEG_OHMS = 1.2
/** What a waiting decoder draws, as a resistance, Ω. From memory: some 10 mA at 14 V. */
const WAITING_OHMS = 1500

/**
 * The engine with a decoder between its pickups and its motors: every motor's last two feeds are cut, the decoder's
 * rail leads go to the pickup side, its motor leads to the terminals. Nothing but the decoder then reaches a motor.
 *
 * @param description an engine without a decoder
 * @returns the same description where it has one already, or a wound-field motor no decoder drives
 * @example fitDecoder(describeConstruction('tank-can')).power // 'dcc'
 */
export function fitDecoder(description: EngineDescription): EngineDescription {
  const motors = description.motors.filter((motor) => motor.field === null)
  if (hasDecoder(description) || motors.length === 0) return description
  const components = new Map(description.components.map((component) => [component.id, component]))
  const [first] = motors
  const feeds = first && { plus: components.get(first.feeds.plus), minus: components.get(first.feeds.minus) }
  if (!feeds?.plus || !feeds.minus) return description
  const unit = feeds.plus.unit
  const inside = description.nodes.find((node) => node.id === feeds.plus?.to)?.access ?? null
  const behind = description.accesses.find((access) => access.id === inside)?.off ?? []

  const pieces = piecesOf(unit, inside)
  const { node, wire } = pieces
  const cut = new Set(motors.flatMap((motor) => [motor.feeds.plus, motor.feeds.minus]))
  const motorWires = motors.flatMap((motor, index) => {
    const of = motors.length > 1 ? ` of the ${inSentence(motor.name)}` : ''
    return (['plus', 'minus'] as const).map((pole) =>
      wire(
        'decoder-motor-lead',
        `motor-${pole}${index || ''}`,
        `Decoder lead to the motor${of}, ${pole}`,
        `decoder.out-${pole}`,
        (components.get(motor.feeds[pole]) as CircuitComponent).to,
      ),
    )
  })
  return {
    ...description,
    power: 'dcc',
    decoder: { plus: 'decoder.in-plus', minus: 'decoder.in-minus', pads: 'decoder.pads' },
    name: `${description.name}, decoder fitted`,
    parts: [...description.parts, decoderPart(unit, behind)],
    accesses: [...description.accesses, { id: 'decoder.pads', name: 'Pads of the decoder', off: behind, on: [] }],
    nodes: [
      ...description.nodes,
      node('in-plus', 'Decoder, right rail lead'),
      node('in-minus', 'Decoder, left rail lead'),
      node('out-plus', 'Decoder, motor plus'),
      node('out-minus', 'Decoder, motor minus'),
    ],
    components: [
      ...description.components.map((component) => (cut.has(component.id) ? takenOff(component, motors) : component)),
      ...decoderPieces(feeds.plus.from, feeds.minus.from, pieces),
      ...motorWires,
    ],
    switches: [
      ...description.switches,
      {
        id: DECODER_SWITCH,
        kind: 'decoder',
        name: 'Decoder',
        positions: [...decoderPositions],
        rest: 'silent',
        part: 'decoder',
      },
    ],
    motors: description.motors.map((motor) => behindDecoder(motor, motors.indexOf(motor))),
    // A decoder drives as it is told: what lies before it no longer turns the direction round.
    turnables: turnablesWith(description.turnables, cut),
  }
}

/** A feed of the motor where the decoder cut it: what must keep apart now, and fails by joining again. */
function takenOff(component: CircuitComponent, motors: EngineDescription['motors']): CircuitComponent {
  return {
    ...component,
    // Joined again past the decoder, current still takes the lead from its motor pad.
    to: padOf(motors, component.id),
    ohms: null,
    kind: 'insulation',
    role: 'decoder-separation',
    name: `Separation: ${inSentence(component.name)}, taken off`,
    faults: ['shorted'],
  }
}

/** The decoder's leads to the rails, what it draws while it waits, and its bridge. */
function decoderPieces(plus: string, minus: string, { wire, piece, leg }: ReturnType<typeof piecesOf>) {
  return [
    wire('decoder-rail-lead', 'rail-plus', 'Decoder lead to the right rail', plus, 'decoder.in-plus'),
    wire('decoder-rail-lead', 'rail-minus', 'Decoder lead to the left rail', minus, 'decoder.in-minus'),
    piece('waiting', 'Decoder, what it draws itself', {
      kind: 'decoder',
      from: 'decoder.in-plus',
      to: 'decoder.in-minus',
      ohms: WAITING_OHMS,
      faults: ['open', 'shorted'],
    }),
    leg('straight-plus', 'Decoder bridge, plus', 'in-plus', 'out-plus', 'straight'),
    leg('straight-minus', 'Decoder bridge, minus', 'in-minus', 'out-minus', 'straight'),
    leg('crossed-plus', 'Decoder bridge, plus to minus', 'in-plus', 'out-minus', 'crossed'),
    leg('crossed-minus', 'Decoder bridge, minus to plus', 'in-minus', 'out-plus', 'crossed'),
  ]
}

/** How the nodes and components of a decoder are written down. */
function piecesOf(unit: string, inside: string | null) {
  const node = (id: string, name: string): CircuitNode => ({
    id: `decoder.${id}`,
    name,
    stage: 'board',
    access: inside,
  })
  const piece = (
    id: string,
    name: string,
    rest: Pick<CircuitComponent, 'kind' | 'from' | 'to' | 'ohms' | 'faults'> & Partial<CircuitComponent>,
  ): CircuitComponent => ({
    id: `decoder.${id}`,
    name,
    highOhms: null,
    part: 'decoder',
    unit,
    of: DECODER_SWITCH,
    closedIn: null,
    lamp: null,
    ...rest,
  })
  const leg = (id: string, name: string, from: string, to: string, position: string): CircuitComponent =>
    piece(id, name, {
      kind: 'decoder',
      from: `decoder.${from}`,
      to: `decoder.${to}`,
      ohms: LEG_OHMS,
      faults: ['open'],
      closedIn: { switch: DECODER_SWITCH, positions: [position] },
    })
  const wire = (
    role: 'decoder-rail-lead' | 'decoder-motor-lead',
    id: string,
    name: string,
    from: string,
    to: string,
  ): CircuitComponent =>
    piece(id, name, { role, kind: 'conductor', from, to, ohms: 0.05, faults: ['open', 'intermittent'] })
  return { node, piece, leg, wire }
}

function decoderPart(unit: string, behind: string[][]): Part {
  return {
    id: 'decoder',
    name: 'Decoder',
    kind: 'board',
    unit,
    materials: ['unknown-plastic', 'copper'],
    place: 'where there is room',
    heldBy: 'tape or its socket',
    massGrams: null,
    removal: {
      minutes: 2,
      refitMinutes: 4,
      needs: behind,
      tools: ['tweezers'],
      risk: 0.02,
      replacement: 'order',
      hazards: [],
      leaveAlone: '',
      wayBack: 'Leads to their own pads; nothing of it touches metal.',
    },
  }
}

function behindDecoder(motor: EngineDescription['motors'][number], index: number): EngineDescription['motors'][number] {
  return index < 0
    ? motor
    : { ...motor, feeds: { plus: `decoder.motor-plus${index || ''}`, minus: `decoder.motor-minus${index || ''}` } }
}

function turnablesWith(
  turnables: EngineDescription['turnables'],
  cut: ReadonlySet<string>,
): EngineDescription['turnables'] {
  return [
    ...turnables.filter(
      ({ effects }) =>
        !effects.some((effect) => effect.kind === 'swap-ends' && (cut.has(effect.first) || cut.has(effect.second))),
    ),
    {
      id: 'decoder.motor-swapped',
      name: 'The two motor leads of the decoder swapped',
      minutes: 5,
      access: 'decoder.pads',
      effects: [{ kind: 'swap-ends', end: 'to', first: 'decoder.motor-plus', second: 'decoder.motor-minus' }],
    },
    {
      id: 'decoder.rails-swapped',
      name: 'The two rail leads of the decoder swapped',
      minutes: 5,
      access: 'decoder.pads',
      effects: [{ kind: 'swap-ends', end: 'from', first: 'decoder.rail-plus', second: 'decoder.rail-minus' }],
    },
  ]
}

/** The motor pad of the decoder that takes the place of a feed. */
function padOf(motors: EngineDescription['motors'], feed: string): string {
  return motors.some((motor) => motor.feeds.plus === feed) ? 'decoder.out-plus' : 'decoder.out-minus'
}

/**
 * @example hasDecoder(describeConstruction('tank-can')) // false
 */
export function hasDecoder(description: EngineDescription): boolean {
  return description.decoder !== undefined
}

/**
 * Where the decoder's switch stands: on DC it follows the rails if it is set to run on DC at all; on DCC it does as
 * it is told, whichever way its rail leads are.
 *
 * @example decoderPosition({ supply: 'dc', dcOperation: false }) // 'silent'
 */
export function decoderPosition(
  running:
    | { readonly supply: 'dc'; readonly dcOperation: boolean }
    | { readonly supply: 'dcc'; readonly command: 'forward' | 'reverse'; readonly railLeadsSwapped?: boolean },
): string {
  if (running.supply === 'dc') return running.dcOperation ? 'straight' : 'silent'
  const straight = (running.command === 'forward') !== (running.railLeadsSwapped ?? false)
  return straight ? 'straight' : 'crossed'
}
