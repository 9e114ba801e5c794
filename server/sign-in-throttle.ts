import { RateLimiterMySQL, RateLimiterRes } from 'rate-limiter-flexible'
import { theBook } from './open-book'
import { databaseErrorCode, Problem } from './problems'

/**
 * Tries to sign in, counted before the password is looked at, so that many at once count too, and in the book, so
 * that a restart forgets none. Somebody elsewhere who knows a name cannot lock its owner out: they are counted by name
 * *and* address, and a device that was signed in once with this name is counted by itself.
 */
interface Tries {
  readonly byName: RateLimiterMySQL
  readonly byAddress: RateLimiterMySQL
  readonly byDevice: RateLimiterMySQL
}

const PERIOD_SECONDS = 300

let opened: { readonly pool: unknown; readonly tries: Tries } | null = null

function theTries(): Tries {
  const { pool, databaseName } = theBook()
  if (opened?.pool !== pool) {
    // The package speaks to the driver's pool with callbacks, which the one with promises wraps. By any other name it
    // would spread one transaction over several connections.
    const shared = {
      storeClient: pool.pool,
      storeType: 'pool',
      dbName: databaseName,
      tableName: 'sign_in_try',
      tableCreated: true,
      duration: PERIOD_SECONDS,
      blockDuration: PERIOD_SECONDS,
    }
    opened = {
      pool,
      tries: {
        byName: new RateLimiterMySQL({ ...shared, keyPrefix: 'name', points: 5 }),
        byAddress: new RateLimiterMySQL({ ...shared, keyPrefix: 'address', points: 40 }),
        byDevice: new RateLimiterMySQL({ ...shared, keyPrefix: 'device', points: 10 }),
      },
    }
  }
  return opened.tries
}

/** Who tries: which name, from where, and the device's own number where it was signed in with that name before. */
export interface Trying {
  readonly name: string
  readonly address: string
  readonly knownDevice: string | null
}

/** Counts a try before it is looked at. @throws Problem 429 with how long to wait */
export async function countTry(trying: Trying): Promise<void> {
  const { byName, byAddress, byDevice } = theTries()
  const outcomes =
    trying.knownDevice === null
      ? await Promise.allSettled([consume(byName, nameKey(trying)), consume(byAddress, trying.address)])
      : await Promise.allSettled([consume(byDevice, trying.knownDevice)])
  const refusals: number[] = []
  for (const outcome of outcomes) {
    if (outcome.status === 'fulfilled') continue
    if (!(outcome.reason instanceof RateLimiterRes)) throw outcome.reason
    refusals.push(outcome.reason.msBeforeNext)
  }
  if (refusals.length === 0) return
  const seconds = Math.ceil(Math.max(...refusals) / 1000)
  throw new Problem(
    429,
    'too-many-tries',
    `Too many wrong tries: wait ${Math.ceil(seconds / 60)} min, then try again.`,
    { retryAfterSeconds: seconds },
  )
}

/** A try that was right was none to be counted. */
export async function forgiveTries(trying: Trying): Promise<void> {
  const { byName, byAddress, byDevice } = theTries()
  if (trying.knownDevice !== null) await byDevice.delete(trying.knownDevice)
  else await Promise.all([byName.delete(nameKey(trying)), byAddress.reward(trying.address, 1)])
}

const MOST_LOOKS = 8

/** Many tries at once wait for one row, and the database may choose one of them to begin anew. */
async function consume(limiter: RateLimiterMySQL, key: string): Promise<void> {
  for (let look = 1; ; look++) {
    try {
      await limiter.consume(key)
      return
    } catch (error) {
      if (databaseErrorCode(error) !== 'ER_LOCK_DEADLOCK' || look >= MOST_LOOKS) throw error
    }
  }
}

const nameKey = ({ name, address }: Trying): string => `${name}@${address}`
