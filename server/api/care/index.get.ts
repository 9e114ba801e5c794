import { answer } from '../../answer'
import { readCareBook } from '../../services/care-book'

/** What is due next on every engine. */
export default answer((_event, database) => readCareBook(database, new Date()))
