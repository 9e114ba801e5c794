import { RateLimiterMemory, type RateLimiterRes } from 'rate-limiter-flexible'
import { Problem } from './problems'

/** Wrong passwords allowed before a pause, by name and by address. */
const byName = new RateLimiterMemory({ points: 5, duration: 300, blockDuration: 300 })
const byAddress = new RateLimiterMemory({ points: 40, duration: 300, blockDuration: 300 })

export async function refuseWhenThrottled(name: string, address: string): Promise<void> {
  const states = await Promise.all([byName.get(name), byAddress.get(address)])
  const blocked = states.filter((state): state is RateLimiterRes => state !== null && state.remainingPoints <= 0)
  if (blocked.length === 0) return
  const seconds = Math.ceil(Math.max(...blocked.map((state) => state.msBeforeNext)) / 1000)
  throw new Problem(429, 'too-many-tries', `Too many wrong tries: wait ${Math.ceil(seconds / 60)} min, then try again.`, { retryAfterSeconds: seconds })
}

export async function countWrongTry(name: string, address: string): Promise<void> {
  await Promise.allSettled([byName.consume(name), byAddress.consume(address)])
}

export async function forgetWrongTries(name: string): Promise<void> {
  await byName.delete(name)
}
