import {
  DESCRIPTION_VERSION,
  type Access,
  type CircuitComponent,
  type CircuitNode,
  type EngineDescription,
  type Part,
  type Removal,
} from '../description-schema'

export type Mutable<T> = { -readonly [K in keyof T]: T[K] }

interface ComponentSketch extends Partial<CircuitComponent> {
  id: string
  name: string
  kind: CircuitComponent['kind']
  from: string
  to: string
  ohms: number | null
  unit: string
}

/** A description while it is put together. */
export class Draft {
  readonly parts: Part[] = []
  readonly accesses: EngineDescription['accesses'] = []
  readonly nodes: CircuitNode[] = []
  readonly components: CircuitComponent[] = []
  readonly switches: EngineDescription['switches'] = []
  readonly motors: EngineDescription['motors'] = []
  readonly rotors: EngineDescription['rotors'] = []
  readonly links: EngineDescription['links'] = []
  readonly trucks: EngineDescription['trucks'] = []
  readonly wheelSets: EngineDescription['wheelSets'] = []
  readonly centrePickups: EngineDescription['centrePickups'] = []
  readonly turnables: EngineDescription['turnables'] = []
  readonly carePoints: EngineDescription['carePoints'] = []

  part(part: Omit<Part, 'place' | 'heldBy' | 'massGrams' | 'removal'> & Partial<Part>): void {
    this.parts.push({ place: '', heldBy: '', massGrams: null, removal: null, ...part })
  }

  node(id: string, name: string, stage: CircuitNode['stage'], access: string | null = null): void {
    this.nodes.push({ id, name, stage, access })
  }

  component(sketch: ComponentSketch): void {
    this.components.push({ highOhms: null, part: null, faults: [], closedIn: null, lamp: null, ...sketch })
  }

  access(id: string, name: string, off: string[][], on: string[] = []): string {
    this.accesses.push({ id, name, off, on })
    return id
  }

  /** An access that tests and remedies ask for by what it leads to. */
  accessTo(
    to: NonNullable<Access['leadsTo']>['to'],
    motor: string | null,
    access: Pick<Access, 'id' | 'name' | 'off'> & Partial<Access>,
  ): string {
    this.accesses.push({ on: [], leadsTo: { to, motor }, ...access })
    return access.id
  }

  /** A description with the head given; ids and order as they were added. */
  finish(
    head: Pick<EngineDescription, 'id' | 'name' | 'summary' | 'source' | 'power' | 'units' | 'rails'>,
  ): EngineDescription {
    const {
      parts,
      accesses,
      nodes,
      components,
      switches,
      motors,
      rotors,
      links,
      trucks,
      wheelSets,
      centrePickups,
      turnables,
      carePoints,
    } = this
    return {
      version: DESCRIPTION_VERSION,
      ...head,
      parts,
      accesses,
      nodes,
      components,
      switches,
      motors,
      rotors,
      links,
      trucks,
      wheelSets,
      centrePickups,
      turnables,
      carePoints,
    }
  }
}

/** A removal with what is usual filled in. */
export function removal(given: Partial<Removal>): Removal {
  const minutes = given.minutes ?? 1
  return {
    minutes,
    refitMinutes: minutes * 1.5,
    needs: [],
    tools: ['fingers'],
    risk: 0.005,
    replacement: 'order',
    hazards: [],
    leaveAlone: '',
    wayBack: '',
    ...given,
  }
}
