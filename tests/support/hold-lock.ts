import { lockFolder } from '../../launcher/folder-lock'

/** Takes the lock of a folder, says so or why not, and holds it until it is killed. */
try {
  await lockFolder(process.argv[2] ?? '')
  console.log('locked')
} catch (error) {
  console.log(error instanceof Error ? error.message : error)
}
setInterval(() => {}, 1000)
