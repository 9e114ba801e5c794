/**
 * The start command holds the other end of this process's input. When it is killed alone that end closes, and this
 * process goes too, so that nothing is left behind that nobody can stop.
 */
export default defineNitroPlugin(() => {
  if (process.env.ECHOPPE_ENDS_WITH_INPUT !== 'yes') return
  process.stdin
    .on('end', () => process.kill(process.pid, 'SIGTERM'))
    .on('error', () => {})
    .resume()
})
