import { answer } from '../../answer'
import { liveBenches } from '../../measuring/live-benches'

/** Every supply of the shop and who is at it. */
export default answer((_event, database) => liveBenches.rows(database))
