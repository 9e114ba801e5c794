import { answer } from '../answer'
import { readLearnedBook } from '../services/read-learned'

export default answer(async (_event, database) => readLearnedBook(database))
