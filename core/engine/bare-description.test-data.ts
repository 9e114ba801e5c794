import { removal } from './assemblies/draft'
import type { CircuitComponent, EngineDescription, Part } from './description-schema'

/** A description with nothing in it but what a test puts there. */
export function bareDescription(given: Partial<EngineDescription> = {}): EngineDescription {
  return {
    version: 1,
    id: 'bare',
    name: 'Bare',
    summary: '',
    source: 'made for a test',
    power: 'dc',
    units: [{ id: 'unit', name: 'Unit', role: 'powered', massGrams: null }],
    parts: [
      {
        id: 'thing',
        name: 'Thing',
        kind: 'chassis',
        unit: 'unit',
        materials: ['steel'],
        place: '',
        heldBy: '',
        massGrams: null,
        removal: null,
      },
    ],
    accesses: [],
    nodes: [],
    components: [],
    switches: [],
    rails: { plus: 'plus', minus: 'minus' },
    motors: [],
    rotors: [],
    links: [],
    trucks: [],
    wheelSets: [],
    centrePickups: [],
    turnables: [],
    carePoints: [],
    ...given,
  }
}

export function resistor(
  id: string,
  from: string,
  to: string,
  ohms: number | null,
  more: Partial<CircuitComponent> = {},
): CircuitComponent {
  return {
    id,
    name: id,
    kind: 'conductor',
    from,
    to,
    ohms,
    highOhms: null,
    part: null,
    unit: 'unit',
    faults: [],
    closedIn: null,
    lamp: null,
    ...more,
  }
}

/** A description that is only a circuit; its nodes are those its components name. */
export function onlyCircuit(components: CircuitComponent[], more: Partial<EngineDescription> = {}): EngineDescription {
  const ids = new Set(['plus', 'minus', ...components.flatMap(({ from, to }) => [from, to])])
  return bareDescription({
    nodes: [...ids].map((id) => ({ id, name: id, stage: 'lead', access: null })),
    components,
    ...more,
  })
}

export function part(id: string, needs: string[][], more: Partial<NonNullable<Part['removal']>> = {}): Part {
  return {
    id,
    name: `Part ${id}`,
    kind: 'detail',
    unit: 'unit',
    materials: ['steel'],
    place: '',
    heldBy: '',
    massGrams: null,
    removal: removal({ needs, minutes: 1, refitMinutes: 0, risk: 0, ...more }),
  }
}
