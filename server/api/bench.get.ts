import { answer } from '../answer'
import { benchToday } from '../services/bench-today'

export default answer(async (_event, database) => benchToday(database, new Date()))
