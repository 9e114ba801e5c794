import { answer } from '../../../answer'
import { makeFeed } from '../../../services/calendar-feed'

/** A secret address a calendar may come back to. */
export default answer((_event, database, actor) => makeFeed(database, actor))
