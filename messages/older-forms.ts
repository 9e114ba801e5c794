import type { CommandName } from './commands'

type Fields = Readonly<Record<string, unknown>>

const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** Until readings had kinds of their own, every line had a direction or null, and a rebuild's line the step in words. */
function presentReading(fields: Fields): Fields {
  const { direction, step, ...rest } = fields
  if (typeof step === 'string' && step !== '' && (fields.kind === 'running' || fields.kind === 'locked'))
    return { ...rest, kind: 'step', step, turns: fields.kind === 'locked' ? 'stands' : direction }
  return ['stops', 'trial', 'dead'].includes(String(fields.kind)) ? rest : fields
}

/**
 * Forms in which an earlier version of the program sent a write, made into the present one: what waits in a browser, or
 * comes from one that has not been loaded anew, outlives an update.
 */
const olderForms: { readonly [N in CommandName]?: (payload: Fields) => Fields } = {
  'reading.add': (payload) =>
    isFields(payload.fields) && payload.fields.kind !== 'step'
      ? { ...payload, fields: presentReading(payload.fields) }
      : payload,
}

/** A payload in the present form; what was none of an older one is left as it is. */
export function inPresentPayload(name: CommandName, payload: unknown): unknown {
  const older = olderForms[name]
  return older && isFields(payload) ? older(payload) : payload
}
