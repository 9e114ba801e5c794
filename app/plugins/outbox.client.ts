/** Wakes the queue when the application opens, and whenever somebody signs in. */
export default defineNuxtPlugin((nuxtApp) => {
  nuxtApp.hook('app:mounted', async () => {
    const outbox = useOutbox()
    const session = useSessionStore()
    await outbox.start()
    watch(
      () => [session.person?.id, session.ranOut],
      () => outbox.flush(),
    )
  })
})
