import { answer, pathId } from '../../../answer'
import { mustMayMeasure } from '../../../measuring/may-measure'
import { supplyClaims } from '../../../measuring/supply-claims'
import { zeroLeads } from '../../../measuring/zero-leads'

/** Resistance of the test leads with their clips together. */
export default answer((event, database, actor) => {
  mustMayMeasure(actor)
  return zeroLeads(database, supplyClaims, pathId(event))
})
