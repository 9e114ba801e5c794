import { DESCRIPTION_VERSION, type CircuitComponent, type EngineDescription } from './description-schema'

/**
 * A description in the present form. Until version 1 what a piece belongs to and what an access leads to was told by
 * its id alone, in the way our own constructions are named; nothing after this one reads an id.
 *
 * @param description of any version so far
 * @example inPresentForm({ ...describeConstruction('tank-can'), version: 1 }).version // 2
 */
export function inPresentForm(description: EngineDescription): EngineDescription {
  if (description.version >= DESCRIPTION_VERSION) return description
  const owners = [...description.wheelSets, ...description.motors, ...description.switches].map(({ id }) => id)
  const decoder = description.switches.find(({ id }) => id === 'decoder')
  return {
    ...description,
    version: DESCRIPTION_VERSION,
    accesses: description.accesses.map((access) => {
      if (access.id === 'inside') return { ...access, leadsTo: { to: 'inside', motor: null } }
      for (const { id } of description.motors)
        for (const [end, to] of ends) if (access.id === `${id}.${end}`) return { ...access, leadsTo: { to, motor: id } }
      return access
    }),
    parts: description.parts.map((part) =>
      part.kind === 'tyre' && part.id.endsWith('.tyre') ? { ...part, of: part.id.slice(0, -'.tyre'.length) } : part,
    ),
    components: description.components.map((component) => ({ ...component, ...belongings(component, owners) })),
    switches: description.switches.map((entry) => ({
      ...entry,
      ...(entry.id === 'sequence'
        ? { kind: 'sequence' as const }
        : entry === decoder
          ? { kind: 'decoder' as const }
          : entry.positions.some(({ id }) => id === 'pulled')
            ? { kind: 'relay' as const }
            : {}),
    })),
    ...(decoder ? { decoder: { plus: 'decoder.in-plus', minus: 'decoder.in-minus', pads: 'decoder.pads' } } : {}),
  }
}

const ends = [
  ['terminals', 'terminals'],
  ['brushes', 'brushes'],
  ['commutator', 'commutator'],
  ['out', 'motor-out'],
] as const

function belongings(
  { id, name, closedIn, kind }: CircuitComponent,
  owners: readonly string[],
): Pick<CircuitComponent, 'of' | 'role'> {
  const relay = owners.find((owner) => owner.endsWith('.relay') && id === `${owner.slice(0, -'relay'.length)}coil`)
  const of = closedIn?.switch ?? relay ?? owners.find((owner) => id.startsWith(`${owner}.`))
  const role = id.startsWith('decoder.rail-')
    ? 'decoder-rail-lead'
    : id.startsWith('decoder.motor-')
      ? 'decoder-motor-lead'
      : kind === 'insulation' && name.startsWith('Separation: ')
        ? 'decoder-separation'
        : id.endsWith('.cup')
          ? 'axle-cup'
          : undefined
  return { ...(of ? { of } : {}), ...(role ? { role } : {}) }
}
