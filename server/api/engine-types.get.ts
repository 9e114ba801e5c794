import { answer, searchWords, wholeNumber } from '../answer'
import { listEngineTypes } from '../services/engines-and-owners'

export default answer(async (event, database) => {
  const { search, page, pageSize } = getQuery(event)
  return listEngineTypes(
    database,
    searchWords(search),
    wholeNumber(page, 1, 1, 100_000),
    wholeNumber(pageSize, 20, 1, 100),
  )
})
