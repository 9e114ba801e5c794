import { answer } from '../../answer'
import { listConstructions } from '../../services/engines-and-owners'

export default answer(async (_event, database) => listConstructions(database))
