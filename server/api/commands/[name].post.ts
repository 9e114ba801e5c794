import { commandNames, type CommandName } from '../../../shared/messages/commands'
import { answer } from '../../answer'
import { runCommand } from '../../commands/run-command'
import { Problem } from '../../problems'

/** Every write of the product comes through here. */
export default answer(async (event, database, actor) => {
  const name = getRouterParam(event, 'name') as CommandName
  if (!commandNames.includes(name)) throw new Problem(404, 'unknown-command', 'This server does not know that kind of entry: reload the page, it may be older than the server.')
  return runCommand(database, actor, name, await readBody(event))
})
