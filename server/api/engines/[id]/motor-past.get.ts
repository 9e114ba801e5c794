import { answer, pathId } from '../../../answer'
import { readMotorPast } from '../../../services/motor-past'

/** What this engine's motor measured over the years, and what the shop's others of its type do. */
export default answer((event, database) => readMotorPast(database, pathId(event)))
