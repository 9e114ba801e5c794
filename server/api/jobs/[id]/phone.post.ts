import { answer, pathId } from '../../../answer'
import { readPhoneAim } from '../../../read-phone-aim'
import { openPhone } from '../../../services/phone-access'

const onThisMachine = new Set(['localhost', '127.0.0.1'])

/** Lets a phone in, and says by which names the shop can be reached from it. */
export default answer(async (event, database, actor) => {
  const opened = await openPhone(database, actor, pathId(event), await readPhoneAim(event))
  const hosts = (process.env.ECHOPPE_HOSTS ?? '').split(',').filter((host) => host !== '' && !onThisMachine.has(host))
  return { ...opened, hosts }
})
