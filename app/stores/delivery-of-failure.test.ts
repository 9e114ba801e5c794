import { describe, expect, it } from 'vitest'
import { deliveryOfFailure } from './delivery-of-failure'

const said = (status: number) => ({ status, problem: { type: '', title: '', status, detail: 'Why.' } })

describe('what becomes of an entry that was not taken', () => {
  it('waits where nobody answered, or the server, its database or its disk is away', () => {
    expect(deliveryOfFailure({ status: undefined, problem: null }, 'command')).toEqual({ kind: 'later' })
    for (const status of [429, 502, 503, 504, 507])
      expect(deliveryOfFailure(said(status), 'command')).toEqual({ kind: 'later' })
    expect(deliveryOfFailure(said(401), 'command')).toEqual({ kind: 'signed-out' })
  })

  it('is set aside where it will never pass, with or without a reason, and tried a few times where the server stumbled', () => {
    for (const status of [400, 403, 404, 413, 415, 421, 422])
      expect(deliveryOfFailure(said(status), 'command')).toMatchObject({
        kind: 'set-aside',
        state: 'refused',
        problem: { detail: 'Why.' },
      })
    expect(deliveryOfFailure(said(409), 'command')).toMatchObject({ kind: 'set-aside', state: 'stale' })
    // A proxy's own page, say, with no problem document in it.
    expect(deliveryOfFailure({ status: 413, problem: null }, 'command')).toMatchObject({
      kind: 'set-aside',
      state: 'refused',
      problem: { status: 413 },
    })
    expect(deliveryOfFailure(said(500), 'command')).toMatchObject({ kind: 'stumbled' })
  })

  it('a photograph for which the disk has no room stands aside, so that notes go on', () => {
    expect(deliveryOfFailure(said(507), 'photograph')).toMatchObject({ kind: 'set-aside', state: 'refused' })
  })
})
