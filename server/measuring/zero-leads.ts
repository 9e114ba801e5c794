import { eq } from 'drizzle-orm'
import { SupplyProblem } from '../../bench/supply/supply-client'
import type { Database } from '../db/book'
import { instrument } from '../db/schema'
import { notInTheBook, Problem } from '../problems'
import { openInstrument } from './open-instrument'
import type { SupplyClaims } from './supply-claims'

/** Enough current to read milliohms by, little enough for any lead. */
const TRIAL_AMPS = 0.5
const TRIAL_VOLTS = 1
const LOOKS = 5
/** More than this is no pair of leads. */
const MOST_OHMS = 2
const T_95_OF_FIVE = 2.776

/**
 * Resistance of both test leads with their clips together: a small current driven through them, volts over amps.
 *
 * @returns Ω with its 95 % half width from five looks
 * @throws Problem 404, 409 when the supply is taken, 422 when what is clamped is no pair of leads, 502
 */
export async function zeroLeads(
  database: Database,
  claims: SupplyClaims,
  instrumentId: string,
): Promise<{ ohms: number; halfWidth: number }> {
  const [row] = await database.select().from(instrument).where(eq(instrument.id, instrumentId))
  if (!row || row.retired) throw notInTheBook('instrument')
  await claims.askFor(row.id)
  const release = claims.claim(row.id, row.name, 'having its leads measured')
  try {
    const { client, surroundings, join, close } = await openInstrument(row, null)
    try {
      join(true)
      await client.setVolts(TRIAL_VOLTS)
      await client.setAmpsLimit(TRIAL_AMPS)
      await client.output(true)
      await surroundings.pause(0.3)
      const found: number[] = []
      for (let look = 0; look < LOOKS; look++) {
        const [volts, amps] = [await client.measureVolts(), await client.measureAmps()]
        if (Math.abs(amps) < TRIAL_AMPS / 10)
          throw new Problem(
            422,
            'clips-apart',
            'Hardly anything flows: put the two clips together, metal on metal, with nothing between them.',
          )
        found.push(volts / amps)
      }
      const ohms = found.reduce((sum, value) => sum + value, 0) / LOOKS
      const deviation = Math.sqrt(found.reduce((sum, value) => sum + (value - ohms) ** 2, 0) / (LOOKS - 1))
      if (ohms > MOST_OHMS)
        throw new Problem(422, 'no-leads', `${ohms.toFixed(2)} Ω is no pair of leads: is something still clamped?`)
      return { ohms: Math.max(0, ohms), halfWidth: (T_95_OF_FIVE * deviation) / Math.sqrt(LOOKS) }
    } finally {
      await close()
    }
  } catch (error) {
    if (error instanceof SupplyProblem) throw new Problem(502, 'supply', error.message)
    throw error
  } finally {
    release()
  }
}
