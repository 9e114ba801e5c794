import { answer, pathId } from '../../answer'
import { readPhoneAim } from '../../read-phone-aim'
import { aimPhone } from '../../services/phone-access'

/** The bench has gone on to another step. */
export default answer(async (event, database, actor) =>
  aimPhone(database, actor, pathId(event), await readPhoneAim(event)),
)
