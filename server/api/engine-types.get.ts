import { answer, wholeNumber } from '../answer'
import { listEngineTypes } from '../services/engines-and-owners'

export default answer(async (event, database) => {
  const { search, page, pageSize } = getQuery(event)
  return listEngineTypes(database, String(search ?? '').slice(0, 200), wholeNumber(page, 1, 1, 100_000), wholeNumber(pageSize, 20, 1, 100))
})
