import { signedIn } from '../../answer'
import { liveBenches } from '../../measuring/live-benches'
import { theBook } from '../../open-book'

/** All benches in one stream: the last minute first, then every look at a meter. */
export default defineEventHandler(async (event) => {
  await signedIn(event, theBook().database)
  const stream = createEventStream(event)
  const leave = liveBenches.listen((message) => void stream.push(JSON.stringify(message)))
  stream.onClosed(async () => {
    leave()
    await stream.close()
  })
  return stream.send()
})
