import { answer, searchWords, wholeNumber } from '../../answer'
import { listEngines } from '../../services/engines-and-owners'

export default answer(async (event, database) => {
  const { search, page, pageSize } = getQuery(event)
  return listEngines(database, searchWords(search), wholeNumber(page, 1, 1, 100_000), wholeNumber(pageSize, 20, 1, 100))
})
