import type { EngineDescription } from './description-schema'

/** A description as it was written before it said what belongs where: version 1. */
export function inFirstForm({ decoder: _decoder, ...description }: EngineDescription): EngineDescription {
  return {
    ...description,
    version: 1,
    parts: description.parts.map(({ of: _of, ...part }) => part),
    accesses: description.accesses.map(({ leadsTo: _to, ...access }) => access),
    components: description.components.map(({ of: _of, role: _role, ...component }) => component),
    switches: description.switches.map(({ kind: _kind, ...entry }) => entry),
  }
}
