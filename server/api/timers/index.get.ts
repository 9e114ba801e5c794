import { answer } from '../../answer'
import { readTimers } from '../../services/timers'

/** Every timer that runs or rings, with the clock here. */
export default answer((_event, database) => readTimers(database))
