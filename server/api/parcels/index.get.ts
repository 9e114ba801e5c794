import { answer } from '../../answer'
import { listParcels } from '../../services/read-parcel'
import { Problem } from '../../problems'

/** A uuid as the book writes it. */
const ID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/

export default answer(async (event, database) => {
  const { owner } = getQuery(event)
  if (owner !== undefined && (typeof owner !== 'string' || !ID.test(owner)))
    throw new Problem(422, 'owner', 'The owner is named by the id it has in the book.')
  return listParcels(database, owner ?? null)
})
