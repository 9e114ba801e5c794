import { closeTheBook } from '../open-book'

export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('close', closeTheBook)
})
