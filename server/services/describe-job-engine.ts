import type { EngineDescription } from '../../core/engine/description-schema'
import type { JobHead } from '../../messages/book'
import { describeEngine } from '../../work/describe-engine'
import type { Database } from '../db/book'
import { readEngine } from './engines-and-owners'

/** The description of a job's engine, with the construction of the shop's own it may be built on. */
export async function describeJobEngine(database: Database, head: JobHead): Promise<EngineDescription> {
  const { type, engine, components, template } = await readEngine(database, head.engine.id)
  return describeEngine({ type, adaptations: engine.adaptations, components, template, units: engine.units })
    .description
}
