import { answer } from '../../answer'
import { FILE_BODY_BYTES, readJson } from '../../read-json'
import { checkConstruction } from '../../services/check-construction'

/** What is wrong with a construction before it is brought in; writes nothing. */
export default answer(async (event) => checkConstruction(await readJson(event, FILE_BODY_BYTES)))
