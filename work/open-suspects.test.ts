import { expect, it } from 'vitest'
import { openSuspects } from './open-suspects'

it('what was confirmed stays open until it is repaired or ruled out; a repair that was struck out repaired nothing', () => {
  const row = (id: string, entry: object) => ({ id, entry }) as never
  const confirmed = row('a', { kind: 'confirmed', suspect: 'gap-bridged@motor.gaps' })
  const repaired = row('b', { kind: 'repaired', suspect: 'gap-bridged@motor.gaps' })
  const struck = row('c', { kind: 'struck', entryId: 'b' })
  expect([...openSuspects([confirmed])]).toEqual(['gap-bridged@motor.gaps'])
  expect([...openSuspects([confirmed, repaired])]).toEqual([])
  expect([...openSuspects([confirmed, repaired, struck])]).toEqual(['gap-bridged@motor.gaps'])
})
