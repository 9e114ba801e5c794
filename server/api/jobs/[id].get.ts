import { answer, pathId } from '../../answer'
import { readJob } from '../../services/read-job'

export default answer(async (event, database) => readJob(database, pathId(event)))
