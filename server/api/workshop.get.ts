import { answer } from '../answer'
import { readWorkshop } from '../services/read-workshop'

export default answer(async (_event, database) => readWorkshop(database))
