import { answer, pathId } from '../../answer'
import { readEngine } from '../../services/engines-and-owners'

export default answer(async (event, database) => readEngine(database, pathId(event)))
