import { jobStates, stationIds, type JobState, type StationId } from '../../../messages/vocabulary'
import { answer, searchWords, wholeNumber } from '../../answer'
import { jobSorts, listJobs, type JobSort } from '../../services/list-jobs'

export default answer(async (event, database) => {
  const query = getQuery(event)
  const states = String(query.states ?? '')
    .split(',')
    .filter((state): state is JobState => Object.hasOwn(jobStates, state))
  const sort = String(query.sort ?? 'due')
  return listJobs(database, {
    search: searchWords(query.search),
    states,
    station: stationIds.includes(query.station as StationId) ? (query.station as StationId) : null,
    sort: Object.hasOwn(jobSorts, sort) ? (sort as JobSort) : 'due',
    page: wholeNumber(query.page, 1, 1, 100_000),
    pageSize: wholeNumber(query.pageSize, 20, 1, 100),
  })
})
