import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { OutboxQueue, type Delivery, type OutboxStorage } from './outbox-queue'
import type { NewEntry, QueuedEntry } from './outbox-storage'

/** A storage whose every answer comes when the scheduler says, as a browser's database does. */
function slowStorage(later: <T>(value: T) => Promise<T>): OutboxStorage & { rows: Map<number, QueuedEntry> } {
  const rows = new Map<number, QueuedEntry>()
  const jots = new Map<string, NewEntry>()
  let next = 1
  return {
    rows,
    jot: (entry) => void jots.set(entry.commandId, entry),
    jotted: () => [...jots.values()],
    strikeJot: (commandId) => void jots.delete(commandId),
    read: () => later([...rows.values()]),
    add(entry) {
      const kept = { ...entry, sequence: next++ } as QueuedEntry
      rows.set(kept.sequence, kept)
      return later(kept)
    },
    async replace(entry) {
      await later(null)
      rows.set(entry.sequence, entry)
    },
    async remove(sequence) {
      await later(null)
      rows.delete(sequence)
    },
  }
}

let written = 0
function note(lane: string, more: Partial<NewEntry> = {}): NewEntry {
  written += 1
  const entry = {
    kind: 'command',
    name: 'note.add',
    payload: {},
    commandId: `command-${written}`,
    lane,
    subject: `note:${written}`,
    label: 'note',
    capturedAt: '',
    authorId: 'maren',
    authorName: 'Maren',
    state: 'waiting',
    ...more,
  }
  return entry as unknown as NewEntry
}

const immediately = <T>(value: T): Promise<T> => Promise.resolve(value)
const problem = (status: number) => ({ type: 'about:blank', title: '', status, code: '', detail: '' }) as never

function open(options: {
  storage?: OutboxStorage
  deliver: (entry: QueuedEntry) => Promise<Delivery>
  author?: () => string | undefined
  acknowledged?: () => void
}): OutboxQueue {
  const queue = new OutboxQueue({
    storage: options.storage ?? slowStorage(immediately),
    deliver: options.deliver,
    author: options.author ?? (() => 'maren'),
    pause: () => immediately(undefined),
    changed: () => {},
    acknowledged: options.acknowledged ?? (() => {}),
  })
  return queue
}

const settled = async (): Promise<void> => {
  for (let turn = 0; turn < 200; turn++) await Promise.resolve()
}

async function atRest(scheduler: fc.Scheduler): Promise<void> {
  do {
    await scheduler.waitAll()
    await settled()
  } while (scheduler.count() > 0)
}

describe('the queue of writes', () => {
  it('delivers every entry once, in order within its lane, however storage and server interleave', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.scheduler(),
        fc.array(fc.constantFrom('job-a', 'job-b'), { minLength: 1, maxLength: 8 }),
        fc.array(fc.boolean(), { minLength: 12, maxLength: 12 }),
        async (scheduler, lanes, away) => {
          const storage = slowStorage((value) => scheduler.schedule(immediately(value)))
          const delivered: QueuedEntry[] = []
          let acknowledged = 0
          let attempt = 0
          const queue = open({
            storage,
            acknowledged: () => {
              acknowledged += 1
            },
            async deliver(entry) {
              await scheduler.schedule(immediately(null))
              if (away[attempt++]) return { kind: 'later' }
              delivered.push(entry)
              return { kind: 'done' }
            },
          })
          const sent = lanes.map((lane) => note(lane))
          const puts = sent.map((entry) => queue.put(entry))
          await scheduler.waitFor(Promise.all(puts))
          await atRest(scheduler)
          for (const lane of ['job-a', 'job-b']) {
            const ids = (entries: ReadonlyArray<{ lane: string; commandId: string }>) =>
              entries.filter((entry) => entry.lane === lane).map((entry) => entry.commandId)
            expect(ids(delivered)).toEqual(ids(sent))
          }
          expect(queue.entries).toEqual([])
          expect([...storage.rows.values()]).toEqual([])
          expect(acknowledged).toBe(lanes.length)
        },
      ),
      { numRuns: 300 },
    )
  })

  it('shows exactly what the storage holds while things are added, acknowledged and set aside at once', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.scheduler(),
        fc.array(fc.constantFrom('done', 'refused', 'stale'), { minLength: 2, maxLength: 8 }),
        async (scheduler, fates) => {
          const storage = slowStorage((value) => scheduler.schedule(immediately(value)))
          const queue = open({
            storage,
            async deliver(entry) {
              await scheduler.schedule(immediately(null))
              const fate = fates[Number(entry.label)] as 'done' | 'refused' | 'stale'
              return fate === 'done'
                ? { kind: 'done' }
                : { kind: 'set-aside', state: fate, problem: problem(fate === 'stale' ? 409 : 422) }
            },
          })
          const puts = fates.map((_, index) => queue.put(note(`lane-${index % 2}`, { label: String(index) })))
          await scheduler.waitFor(Promise.all(puts))
          await atRest(scheduler)
          expect(queue.entries).toEqual([...storage.rows.values()])
        },
      ),
      { numRuns: 300 },
    )
  })

  it('a conflict holds back its own job only, a refused entry nobody', async () => {
    const delivered: string[] = []
    const queue = open({
      async deliver(entry) {
        delivered.push(entry.label)
        if (entry.label === 'conflicting') return { kind: 'set-aside', state: 'stale', problem: problem(409) }
        if (entry.label === 'refused') return { kind: 'set-aside', state: 'refused', problem: problem(422) }
        return { kind: 'done' }
      },
    })
    for (const [lane, label] of [
      ['a', 'refused'],
      ['a', 'conflicting'],
      ['a', 'behind it'],
      ['b', 'elsewhere'],
    ] as const)
      await queue.put(note(lane, { label }))
    await settled()
    expect(delivered).toEqual(['refused', 'conflicting', 'elsewhere'])
    expect(queue.entries.map((entry) => [entry.label, entry.state])).toEqual([
      ['refused', 'refused'],
      ['conflicting', 'stale'],
      ['behind it', 'waiting'],
    ])

    const stale = queue.entries.find((entry) => entry.label === 'conflicting') as QueuedEntry
    await queue.sendAgain({ ...stale, label: 'settled' })
    await settled()
    expect(delivered).toEqual(['refused', 'conflicting', 'elsewhere', 'settled', 'behind it'])
  })

  it('sends nothing of one author while another is signed in, and goes on when the author is back', async () => {
    const delivered: string[] = []
    let signedIn: string | undefined = 'jonas'
    const queue = open({
      author: () => signedIn,
      async deliver(entry) {
        delivered.push(entry.authorId)
        return { kind: 'done' }
      },
    })
    await queue.put(note('a'))
    await settled()
    expect(delivered).toEqual([])
    signedIn = 'maren'
    queue.flush()
    await settled()
    expect(delivered).toEqual(['maren'])
  })

  it('after a session ran out it stops at the first answer and keeps the rest in order', async () => {
    let signedIn: string | undefined = 'maren'
    const delivered: string[] = []
    const queue = open({
      author: () => signedIn,
      async deliver(entry) {
        if (delivered.length === 0 && signedIn && !ranOutOnce) {
          ranOutOnce = true
          signedIn = undefined
          return { kind: 'signed-out' }
        }
        delivered.push(entry.label)
        return { kind: 'done' }
      },
    })
    let ranOutOnce = false
    for (const label of ['first', 'second', 'third']) await queue.put(note('a', { label }))
    await settled()
    expect(delivered).toEqual([])
    signedIn = 'maren'
    queue.flush()
    await settled()
    expect(delivered).toEqual(['first', 'second', 'third'])
  })

  it('edits made one upon another follow the versions the server gives, also one begun before the answer came', async () => {
    const versions: Array<number | undefined> = []
    let release: () => void = () => {}
    const held = new Promise<void>((resolve) => {
      release = resolve
    })
    let rowVersion = 4
    const queue = open({
      async deliver(entry) {
        if (versions.length === 0) await held
        versions.push(entry.expectedVersion)
        if (entry.expectedVersion !== rowVersion) return { kind: 'set-aside', state: 'stale', problem: problem(409) }
        rowVersion += 1
        return { kind: 'done', version: rowVersion }
      },
    })
    const edit = () => note('a', { subject: 'job:1', expectedVersion: 4 })
    await queue.put(edit())
    await queue.put(edit())
    release()
    await settled()
    await queue.put(edit())
    await settled()
    expect(versions).toEqual([4, 5, 6])
    expect(queue.entries).toEqual([])

    // Somebody else's edit in between is not skipped over: that one is for a person to look at.
    rowVersion += 1
    await queue.put(note('a', { subject: 'job:1', expectedVersion: 4 }))
    await settled()
    expect(queue.entries.map((entry) => entry.state)).toEqual(['stale'])
  })

  it('an edit of something just made here waits for the version its making gives', async () => {
    const versions: Array<number | undefined> = []
    const queue = open({
      async deliver(entry) {
        versions.push(entry.expectedVersion)
        return { kind: 'done', version: (entry.expectedVersion ?? 0) + 1 }
      },
    })
    const making = queue.put(note('a', { subject: 'finding:1' }))
    const editing = queue.put(note('a', { subject: 'finding:1', expectedVersion: 0 }))
    await Promise.all([making, editing])
    await settled()
    await queue.put(note('a', { subject: 'finding:1', expectedVersion: 0 }))
    await settled()
    expect(versions).toEqual([undefined, 1, 2])
  })

  it('an entry the server stumbles over each time is set aside, and what waits behind it goes on; one it is away for waits', async () => {
    const delivered: string[] = []
    let away = 3
    const queue = open({
      async deliver(entry) {
        delivered.push(entry.label)
        if (entry.label === 'poison') return { kind: 'stumbled', problem: problem(500) }
        if (entry.label === 'away' && away-- > 0) return { kind: 'later' }
        return { kind: 'done' }
      },
    })
    for (const label of ['away', 'poison', 'behind']) await queue.put(note('a', { label }))
    await settled()
    expect(delivered).toEqual(['away', 'away', 'away', 'away', 'poison', 'poison', 'poison', 'poison', 'behind'])
    expect(queue.entries.map(({ label, state }) => [label, state])).toEqual([['poison', 'refused']])
  })

  it('what the storage held before a reload goes out first', async () => {
    const storage = slowStorage(immediately)
    await storage.add(note('a', { label: 'before' }))
    const delivered: string[] = []
    const queue = open({
      storage,
      async deliver(entry) {
        delivered.push(entry.label)
        return { kind: 'done' }
      },
    })
    await queue.start()
    await queue.put(note('a', { label: 'after' }))
    await settled()
    expect(delivered).toEqual(['before', 'after'])
  })

  it('edits made one upon another are neither lost nor in conflict after a reload, whichever step of keeping and sending it falls on', async () => {
    const stepsWithout = await editThriceAndReload(Infinity)
    expect(stepsWithout).toBeGreaterThan(6)
    for (let step = 0; step <= stepsWithout; step++) await editThriceAndReload(step)
  })
})

/** Makes three edits upon version 4, lets the page end at a step of the storage or the server, and goes on in a new page. */
async function editThriceAndReload(lastStep: number): Promise<number> {
  const given = new Map<string, number>()
  let rowVersion = 4
  const deliver = async (entry: QueuedEntry): Promise<Delivery> => {
    const before = given.get((entry as { commandId: string }).commandId)
    if (before !== undefined) return { kind: 'done', version: before }
    if (entry.expectedVersion !== rowVersion) return { kind: 'set-aside', state: 'stale', problem: problem(409) }
    rowVersion += 1
    given.set((entry as { commandId: string }).commandId, rowVersion)
    return { kind: 'done', version: rowVersion }
  }
  const kept = slowStorage(immediately)
  let steps = 0
  // A page that has ended does nothing more and hears no answer.
  const whileOpen = async <T>(act: () => Promise<T>): Promise<T> => {
    steps += 1
    if (steps > lastStep) await new Promise(() => {})
    const answer = await act()
    steps += 1
    return steps > lastStep ? new Promise(() => {}) : answer
  }
  let goOnline = (): void => {}
  const online = new Promise<void>((resolve) => {
    goOnline = resolve
  })
  const page = open({
    storage: {
      jot: kept.jot,
      jotted: kept.jotted,
      strikeJot: kept.strikeJot,
      read: () => whileOpen(() => kept.read()),
      add: (entry) => whileOpen(() => kept.add(entry)),
      replace: (entry) => whileOpen(() => kept.replace(entry)),
      remove: (sequence) => whileOpen(() => kept.remove(sequence)),
    },
    async deliver(entry) {
      await online
      return whileOpen(() => deliver(entry))
    },
  })
  for (let edit = 0; edit < 3; edit++) void page.put(note('a', { subject: 'job:1', expectedVersion: 4 }))
  await settled()
  goOnline()
  await settled()
  const reloaded = open({ storage: kept, deliver })
  await reloaded.start()
  await settled()
  expect([...kept.rows.values()], `the page ended at step ${lastStep}`).toEqual([])
  expect(kept.jotted()).toEqual([])
  expect([rowVersion, given.size]).toEqual([7, 3])
  return steps
}
