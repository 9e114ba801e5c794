import { expect, it } from 'vitest'
import { recoverMotor } from './recover-motor'
import { recoveryShares } from './recovery-shares'

it('seeded motors come back through simulator, SCPI, client, sweep and fit as well as the sheet promises', async () => {
  const found = []
  for (let seed = 3001; seed <= 3008; seed++) found.push(await recoverMotor(seed))
  expect(found.filter((one) => one.stopped !== null)).toEqual([])
  const shares = recoveryShares(found)
  expect(shares.resistance).toBeGreaterThanOrEqual(0.85)
  expect(shares.backEmf).toBeGreaterThanOrEqual(0.85)
  expect(shares.keepsTurningDownTo).toBeGreaterThanOrEqual(0.85)
}, 60_000)
