import { answer } from '../../answer'
import { FILE_BODY_BYTES, readJson } from '../../read-json'
import { checkKnowledgeFile } from '../../services/check-knowledge-file'

/** What is wrong with a knowledge file before it is taken over, and how it departs from what ships; writes nothing. */
export default answer(async (event) => checkKnowledgeFile(await readJson(event, FILE_BODY_BYTES)))
