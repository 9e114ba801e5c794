import { refits } from '../../messages/effects'
import { componentKinds } from '../../messages/vocabulary'
import type { CommandPayload } from '../../messages/commands'
import { component, engine } from '../db/schema'
import { cannotBeWritten } from '../problems'
import { stepEngineState } from './step-engine-state'
import type { Write } from './write'

/** A fitted motor or decoder with its dates. Fitting or removing one is a new state of the engine. */
export async function saveComponent(write: Write, { id, engineId, fields }: CommandPayload<'component.save'>) {
  if (fields.fittedOn && fields.removedOn && fields.removedOn < fields.fittedOn) {
    throw cannotBeWritten('It cannot have been removed before it was fitted.', 'fields.removedOn')
  }
  const machine = await write.lock(engine, engineId, 'engine')
  const { before, version } = await write.save(component, id, 'component', fields, { engineId })
  if (refits(before, fields)) await stepEngineState(write, machine)
  write.journal({
    subject: 'component',
    subjectId: id,
    summary: `${componentKinds[fields.kind]}: ${fields.description} ${before ? 'changed' : 'entered'}`,
    before,
    after: { engineId, ...fields },
  })
  return { id, version }
}
