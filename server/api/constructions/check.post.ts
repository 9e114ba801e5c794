import { answer } from '../../answer'
import { checkConstruction } from '../../services/check-construction'

/** What is wrong with a construction before it is brought in; writes nothing. */
export default answer(async (event) => checkConstruction(await readBody(event)))
