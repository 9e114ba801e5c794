import { closeTheBook } from '../open-book'
import { closeTheReckoner, theReckoner } from '../open-reckoner'

export default defineNitroPlugin((nitro) => {
  void theReckoner()
    ?.wakeAll()
    .catch((error: unknown) => console.error(`Steps that wait for reckoning were not taken up: ${String(error)}`))
  nitro.hooks.hook('close', async () => {
    await closeTheReckoner()
    await closeTheBook()
  })
})
