import { commandNames, largestMessage, type CommandName, type CommandPayload } from '../../../messages/commands'
import { answer } from '../../answer'
import { runCommand } from '../../commands/run-command'
import { theReckoner } from '../../open-reckoner'
import { Problem } from '../../problems'
import { readJson } from '../../read-json'
import { mustHaveRoom } from '../../services/disk-room'

/** Every write of the product comes through here. */
export default answer(async (event, database, actor) => {
  const name = getRouterParam(event, 'name') as CommandName
  if (!commandNames.includes(name))
    throw new Problem(
      404,
      'unknown-command',
      'This server does not know that kind of entry: reload the page, it may be older than the server.',
    )
  const message = await readJson(event, largestMessage(name))
  mustHaveRoom(0)
  const receipt = await runCommand(database, actor, name, message)
  if (name === 'search.add') theReckoner()?.wake((message as { payload: CommandPayload<'search.add'> }).payload.jobId)
  return receipt
})
