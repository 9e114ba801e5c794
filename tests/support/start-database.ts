import { startMariaDb } from '../../launcher/private-mariadb'

/** Starts a database in a process of its own and says which number it has; a test kills this process alone. */
const mariadb = await startMariaDb(process.argv[2] ?? '')
console.log(String(mariadb.pid))
await mariadb.ended
