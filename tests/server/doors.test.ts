import { v7 as newId } from 'uuid'
import { describe, expect, it } from 'vitest'
import { finding, note, photograph, session } from '../../server/db/schema'
import { keepPhotograph } from '../../server/services/photographs'
import { endSessionsOf } from '../../server/services/end-sessions'
import type { CommandName } from '../../messages/commands'
import { usualCommands } from '../../bench/supply/supply-commands'
import { runCommand } from '../../server/commands/run-command'
import { runningReading, someJob, someSheet } from '../support/some-entries'
import { send, takeInSomething, useTestBook } from '../support/test-book'
import sharp from 'sharp'

const shop = useTestBook()
const refused = (status: number, sentence: RegExp | string) =>
  expect.objectContaining({ status, sentence: expect.stringMatching(sentence) as string }) as Error
const raw = (name: CommandName, payload: unknown, envelope: object = {}) =>
  runCommand(shop.book.database, shop.maren, name, {
    commandId: newId(),
    capturedAt: new Date().toISOString(),
    payload,
    ...envelope,
  })

describe('every row is looked up within the job it is sent for', () => {
  it('a finding, part, sheet or component of another job or engine is as good as none, and stays as it was', async () => {
    const [one, other] = [
      await takeInSomething(shop.book, shop.maren),
      await takeInSomething(shop.book, shop.maren, 'Squeals'),
    ]
    const fields = {
      what: 'Dry bearing',
      place: '',
      state: 'suspected' as const,
      origin: 'arrived' as const,
      remedy: '',
    }
    const id = newId()
    await send(shop.book, shop.maren, 'finding.save', { id, jobId: one.jobId, fields })
    await expect(
      send(
        shop.book,
        shop.maren,
        'finding.save',
        { id, jobId: other.jobId, fields: { ...fields, what: 'Taken over' } },
        { expectedVersion: 1 },
      ),
    ).rejects.toEqual(refused(404, 'This finding is not in the book'))
    expect((await shop.book.database.select().from(finding)).map(({ what, jobId }) => ({ what, jobId }))).toEqual([
      { what: 'Dry bearing', jobId: one.jobId },
    ])

    const part = { what: 'Tyre', quantity: 1, state: 'wanted' as const, price: null }
    await send(shop.book, shop.maren, 'part.save', { id, jobId: one.jobId, fields: part })
    await expect(
      send(shop.book, shop.maren, 'part.save', { id, jobId: other.jobId, fields: part }, { expectedVersion: 1 }),
    ).rejects.toEqual(refused(404, 'part'))
    await send(shop.book, shop.maren, 'sheet.save', { id, jobId: one.jobId, fields: someSheet })
    await expect(
      send(shop.book, shop.maren, 'sheet.save', { id, jobId: other.jobId, fields: someSheet }, { expectedVersion: 1 }),
    ).rejects.toEqual(refused(404, 'sheet'))
    await expect(
      send(shop.book, shop.maren, 'reading.add', {
        id: newId(),
        jobId: other.jobId,
        sheetId: id,
        supersedesId: null,
        fields: runningReading(6, 120),
      }),
    ).rejects.toEqual(refused(404, 'sheet'))
    const motor = { kind: 'motor' as const, description: 'Five-pole', fittedOn: null, removedOn: null, notes: '' }
    await send(shop.book, shop.maren, 'component.save', { id, engineId: one.engineId, fields: motor })
    await expect(
      send(
        shop.book,
        shop.maren,
        'component.save',
        { id, engineId: other.engineId, fields: motor },
        { expectedVersion: 1 },
      ),
    ).rejects.toEqual(refused(404, 'component'))
  })

  it('a note or reading that corrects one that is not there, or one of elsewhere, is refused', async () => {
    const [one, other] = [
      await takeInSomething(shop.book, shop.maren),
      await takeInSomething(shop.book, shop.maren, 'Squeals'),
    ]
    const words = (supersedesId: string | null) => ({
      station: 'find' as const,
      text: 'Looked',
      minutes: 2,
      supersedesId,
    })
    const id = newId()
    await send(shop.book, shop.maren, 'note.add', { id, jobId: one.jobId, fields: words(null) })
    for (const wrong of [newId(), id])
      await expect(
        send(shop.book, shop.maren, 'note.add', { id: newId(), jobId: other.jobId, fields: words(wrong) }),
      ).rejects.toEqual(refused(404, 'note'))
    await send(shop.book, shop.maren, 'note.add', { id: newId(), jobId: one.jobId, fields: words(id) })
    expect(await shop.book.database.select().from(note)).toHaveLength(2)
    await send(shop.book, shop.maren, 'sheet.save', { id, jobId: one.jobId, fields: someSheet })
    await expect(
      send(shop.book, shop.maren, 'reading.add', {
        id: newId(),
        jobId: one.jobId,
        sheetId: id,
        supersedesId: newId(),
        fields: runningReading(6, 120),
      }),
    ).rejects.toEqual(refused(404, 'reading'))
  })
})

describe('what no bench has is not written', () => {
  it('dates that never were, years out of reach, text that cannot be seen', async () => {
    const { engineId, jobId } = await takeInSomething(shop.book, shop.maren)
    const decoder = { kind: 'decoder', description: 'Six functions', removedOn: null, notes: '' }
    for (const fittedOn of ['2023-02-30', '2023-13-01', '0000-01-01', '9999-01-01', '2023-04-31']) {
      await expect(raw('component.save', { id: newId(), engineId, fields: { ...decoder, fittedOn } })).rejects.toEqual(
        refused(422, 'no date that can have been'),
      )
    }
    await raw('component.save', { id: newId(), engineId, fields: { ...decoder, fittedOn: '2024-02-29' } })
    const looked = { station: 'find', text: 'Looked', minutes: 1, supersedesId: null }
    for (const capturedAt of [
      '2026-02-30T10:00:00Z',
      '2026-01-01T25:00:00Z',
      '0000-01-01T00:00:00Z',
      '9999-01-01T00:00:00Z',
    ]) {
      await expect(raw('note.add', { id: newId(), jobId, fields: looked }, { capturedAt })).rejects.toEqual(
        refused(422, 'no date that can have been'),
      )
    }
    for (const complaint of [' ', '\u200b', '\u2060\ufeff'])
      await expect(
        raw('job.edit', { id: jobId, fields: { ...someJob, complaint } }, { expectedVersion: 1 }),
      ).rejects.toEqual(refused(422, 'is empty'))
  })

  it('1e308 V, a negative time or distance, half a trial, a text that says something else than its value', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const sheetId = newId()
    await send(shop.book, shop.maren, 'sheet.save', { id: sheetId, jobId, fields: someSheet })
    const add = (kind: string, quantities: object) =>
      raw('reading.add', {
        id: newId(),
        jobId,
        sheetId,
        supersedesId: null,
        fields: { kind, direction: 'forward', quantities, vouched: false },
      })
    const said = (typed: string, value: number) => ({ typed, value, resolution: 0.1, meter: null })
    await expect(add('running', { voltage: said('1e308', 1e308), current: said('100', 0.1) })).rejects.toEqual(
      refused(422, 'at most'),
    )
    await expect(add('running', { voltage: said('500', 500), current: said('100', 0.1) })).rejects.toEqual(
      refused(422, 'not to be had at a bench'),
    )
    await expect(add('running', { voltage: said('6', 6), current: said('100', 0.2) })).rejects.toEqual(
      refused(422, '“100” does not say the value'),
    )
    await expect(add('running', { voltage: said('six', 6), current: said('100', 0.1) })).rejects.toEqual(
      refused(422, 'is not a number'),
    )
    await expect(add('timed', { distance: said('1 m', 1), duration: said('-5', -5) })).rejects.toEqual(
      refused(422, 'not to be had'),
    )
    await expect(add('timed', { distance: said('-1 m', -1), duration: said('5', 5) })).rejects.toEqual(
      refused(422, 'not to be had'),
    )
    await expect(add('trial', { failures: said('3', 3) })).rejects.toEqual(refused(422, '“attempts” is missing'))
    await expect(add('trial', { failures: said('3', 3), attempts: said('2', 2) })).rejects.toEqual(
      refused(422, 'cannot fail more often'),
    )
    await add('trial', { failures: said('2', 2), attempts: said('3', 3) })
  })

  it('no emoji or accent is cut in two where a long text is shortened for the journal', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    for (const lead of [198, 199, 200]) {
      await send(shop.book, shop.maren, 'note.add', {
        id: newId(),
        jobId,
        fields: { station: 'find', text: `${'a'.repeat(lead)}👩‍🔧é and more`, minutes: 0, supersedesId: null },
      })
    }
    const [rows] = await shop.book.pool.query("select summary from journal where command = 'note.add'")
    for (const { summary } of rows as Array<{ summary: string }>) {
      expect(summary.isWellFormed()).toBe(true)
      expect(summary).toMatch(/^a+(👩‍🔧)?(é)?$/)
    }
  })
})

describe('one command sent twice', () => {
  it('at the same moment: both get the receipt of the one that was done', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    for (let round = 0; round < 12; round++) {
      const commandId = newId()
      const payload = {
        id: newId(),
        jobId,
        fields: {
          what: `Finding ${round}`,
          place: '',
          state: 'suspected' as const,
          origin: 'arrived' as const,
          remedy: '',
        },
      }
      const receipts = await Promise.all(
        [1, 2, 3].map(() => send(shop.book, shop.maren, 'finding.save', payload, { commandId })),
      )
      expect(new Set(receipts.map(({ result }) => JSON.stringify(result))).size).toBe(1)
      expect(receipts.filter(({ repeated }) => !repeated)).toHaveLength(1)
    }
    expect(await shop.book.database.select().from(finding)).toHaveLength(12)
  })

  it('as a photograph with another picture or another caption: refused, not dropped', async () => {
    const { jobId } = await takeInSomething(shop.book, shop.maren)
    const picture = (background: string) =>
      sharp({ create: { width: 8, height: 8, channels: 3, background } })
        .png()
        .toBuffer()
    const [details, commandId] = [
      { id: newId(), jobId, station: 'take-in' as const, caption: 'As it came', about: null, takenAt: new Date() },
      newId(),
    ]
    await keepPhotograph(shop.book.database, shop.maren, commandId, details, await picture('red'))
    await expect(
      keepPhotograph(shop.book.database, shop.maren, commandId, details, await picture('blue')),
    ).rejects.toEqual(refused(422, 'already used for another entry'))
    await expect(
      keepPhotograph(
        shop.book.database,
        shop.maren,
        commandId,
        { ...details, caption: 'Another' },
        await picture('red'),
      ),
    ).rejects.toEqual(refused(422, 'already used for another entry'))
    expect((await shop.book.database.select().from(photograph)).map(({ caption }) => caption)).toEqual(['As it came'])
  })
})

describe('addresses of instruments', () => {
  const accuracy = { percentOfReading: 0.1, digits: 2, resolution: 0.001 }
  const supply = (more: object = {}) => ({
    name: 'Supply',
    kind: 'network',
    host: '192.168.1.40',
    port: 5025,
    leadOhms: 0,
    commands: { ...usualCommands },
    voltage: accuracy,
    current: accuracy,
    retired: false,
    ...more,
  })

  it('are the owner’s to enter, lead nowhere outside the house or into the shop itself, and say one printable line at a time', async () => {
    await raw('instrument.save', { id: newId(), fields: supply() })
    await expect(
      runCommand(shop.book.database, { ...shop.maren, role: 'hand' }, 'instrument.save', {
        commandId: newId(),
        capturedAt: new Date().toISOString(),
        payload: { id: newId(), fields: supply() },
      }),
    ).rejects.toEqual(refused(403, 'Only the owner'))
    for (const host of ['8.8.8.8', '2001:4860:4860::8888', '0.0.0.0'])
      await expect(raw('instrument.save', { id: newId(), fields: supply({ host }) })).rejects.toEqual(
        refused(422, 'not in the shop’s own network'),
      )
    for (const host of ['http://192.168.1.2', '192.168.1.2/x', 'a b', 'host\nQUIT'])
      await expect(raw('instrument.save', { id: newId(), fields: supply({ host }) })).rejects.toEqual(
        refused(422, 'not in the form expected'),
      )
    process.env.ECHOPPE_DATABASE_PORT = '3999'
    try {
      for (const host of ['127.0.0.1', '127.8.8.8', '::1', '::ffff:127.0.0.1'])
        await expect(raw('instrument.save', { id: newId(), fields: supply({ host, port: 3999 }) })).rejects.toEqual(
          refused(422, 'the shop itself'),
        )
    } finally {
      delete process.env.ECHOPPE_DATABASE_PORT
    }
    for (const identify of ['*IDN?\nDROP', '*IDN?\r', 'a\u0000b', 'naïve'])
      await expect(
        raw('instrument.save', { id: newId(), fields: supply({ commands: { ...usualCommands, identify } }) }),
      ).rejects.toEqual(refused(422, 'not in the form expected'))
  })
})

describe('passwords', () => {
  const account = (signInName: string, password: string | null, expectedVersion?: number, id = newId()) =>
    send(
      shop.book,
      shop.maren,
      'person.save',
      { id, fields: { signInName, name: 'Joost', role: 'hand', active: true }, password },
      expectedVersion === undefined ? {} : { expectedVersion },
    )

  it('have twelve characters or more, are not among the commonest, and hardly the name', async () => {
    await expect(account('joost', 'elevenchars')).rejects.toEqual(refused(422, 'at least 12 characters'))
    await expect(account('joost', '1q2w3e4r5t6y')).rejects.toEqual(refused(422, 'ten thousand commonest'))
    await expect(account('joostdevries', 'joostdevries1')).rejects.toEqual(refused(422, 'hardly more than the name'))
    await account('joost', 'a brass worm and gear')
  })

  it('when new, end every session signed in with the old one', async () => {
    const id = newId()
    await account('joost', 'a brass worm and gear', undefined, id)
    const now = new Date()
    for (const personId of [id, id, shop.maren.id])
      await shop.book.database.insert(session).values({ id: newId(), personId, startedAt: now, lastSeenAt: now })
    await account('joost', 'a nickel silver rail', 1, id)
    expect((await shop.book.database.select().from(session)).map(({ personId }) => personId)).toEqual([shop.maren.id])
    await endSessionsOf(shop.book.database, shop.maren.id)
    expect(await shop.book.database.select().from(session)).toEqual([])
  })
})
