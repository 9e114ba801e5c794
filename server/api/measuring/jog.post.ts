import { answer } from '../../answer'
import { jogs } from '../../measuring/jogs'
import { mustMayMeasure } from '../../measuring/may-measure'
import { Problem } from '../../problems'
import { fieldsOf, readJson, SMALL_BODY_BYTES } from '../../read-json'

/** Pulses for as long as a key is held: said again while it is, and once when it is let go. */
export default answer(async (event, database, actor) => {
  mustMayMeasure(actor)
  const { instrumentId, engineId, held, reversed } = fieldsOf(await readJson(event, SMALL_BODY_BYTES))
  if (typeof instrumentId !== 'string' || typeof engineId !== 'string')
    throw new Problem(422, 'instrumentId', 'Say which supply moves which engine.')
  if (held === true) return { says: await jogs.hold(database, instrumentId, engineId, reversed === true) }
  await jogs.letGo(instrumentId)
  return { says: '' }
})
