import { answer, pathId } from '../../answer'
import { readOwner } from '../../services/engines-and-owners'

export default answer(async (event, database) => readOwner(database, pathId(event)))
