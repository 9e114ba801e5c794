import { ConstructionPlan } from '../core/engine/assemblies/plan-schema'
import { EngineDescription } from '../core/engine/description-schema'
import { Knowledge } from '../core/knowledge/knowledge-schema'
import { Differences } from '../core/engine/difference-schema'

const published = (title: string, schema: object): object => ({
  $schema: 'http://json-schema.org/draft-07/schema#',
  title,
  ...(JSON.parse(JSON.stringify(schema)) as object),
})

/** The file formats others may read and write, as JSON Schema. */
export const publishedSchemas: Readonly<Record<string, object>> = {
  'construction-plan': published(
    'A construction as it is written down: its assemblies, and how they are joined',
    ConstructionPlan,
  ),
  construction: published('A construction: parts, circuit, drive and precedence of an engine', EngineDescription),
  knowledge: published('Faults, tests and remedies for the diagnosis', Knowledge),
  differences: published('How a type departs from its construction, or an engine from its type', Differences),
}
