import { answer, pathId } from '../../../answer'
import { readParcel } from '../../../services/read-parcel'

export default answer(async (event, database) => readParcel(database, pathId(event)))
