import { v7 as newId } from 'uuid'
import { fire } from './attack'
import { sampleMessages, type SampleIds } from './sample-messages'
import type { TestShop } from './test-shop'

/** A message with every id that names a new row drawn anew: what stands in the book stays named. */
export function fresh<T>(sample: T, standing: ReadonlySet<string>): T {
  return JSON.parse(
    JSON.stringify(sample).replace(/[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[0-9a-f]{4}-[0-9a-f]{12}/g, (id) =>
      standing.has(id) ? id : newId(),
    ),
  ) as T
}

/** A job, its sheet and its finding in a shop, and one sound message of every command about them. */
export async function preparedSamples(
  shop: TestShop,
  headers: Record<string, string>,
): Promise<{ ids: SampleIds; standing: ReadonlySet<string>; samples: ReturnType<typeof sampleMessages> }> {
  const nobody = newId()
  const made = sampleMessages({
    jobId: nobody,
    engineId: nobody,
    ownerId: nobody,
    typeId: nobody,
    sheetId: nobody,
    findingId: nobody,
    photographId: nobody,
    personId: nobody,
  })
  const send = async (name: string, payload: unknown): Promise<void> => {
    const hit = await fire(shop.url, {
      method: 'POST',
      path: `/api/commands/${name}`,
      headers,
      body: JSON.stringify({ commandId: newId(), capturedAt: new Date().toISOString(), payload }),
    })
    if (hit.status !== 200) throw new Error(`${name} was refused: ${hit.text}`)
  }
  const takeIn = made['job.take-in']
  if (!('made' in takeIn.owner) || takeIn.type === null || !('made' in takeIn.type) || !('made' in takeIn.engine))
    throw new Error('The sample takes in something new.')
  await send('job.take-in', takeIn)
  const ids: SampleIds = {
    jobId: takeIn.jobId,
    ownerId: takeIn.owner.made.id,
    typeId: takeIn.type.made.id,
    engineId: takeIn.engine.made.id,
    sheetId: newId(),
    findingId: newId(),
    photographId: newId(),
    personId: newId(),
  }
  const samples = sampleMessages(ids)
  await send('sheet.save', { ...samples['sheet.save'], id: ids.sheetId })
  await send('finding.save', { ...samples['finding.save'], id: ids.findingId })
  return { ids, standing: new Set(Object.values(ids)), samples }
}
