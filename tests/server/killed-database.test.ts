import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { eq } from 'drizzle-orm'
import { v7 as newId } from 'uuid'
import { afterAll, expect, it } from 'vitest'
import { startMariaDb } from '../../launcher/private-mariadb'
import { openBook } from '../../server/db/book'
import { bringUpToDate } from '../../server/db/migrate'
import { journal, note } from '../../server/db/schema'
import { problemOf } from '../../server/problems'
import { openWorkshop } from '../../server/services/open-workshop'
import { send, takeInSomething } from '../support/test-book'

const folder = mkdtempSync(join(tmpdir(), 'ech-kill-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

it('keeps every acknowledged write, each once, when mariadbd is killed with -9 amid writes and the senders try again', async () => {
  const data = join(folder, 'database')
  let mariadb = await startMariaDb(data)
  let book = openBook(mariadb.address)
  await bringUpToDate(book, 'server/db/migrations')
  const maren = await openWorkshop(book.database, {
    workshopName: 'x',
    name: 'Maren',
    signInName: 'maren',
    password: 'harbour-festival',
  })
  const { jobId } = await takeInSomething(book, maren)

  const writes = Array.from({ length: 120 }, (_, i) => ({ commandId: newId(), id: newId(), text: `note ${i}` }))
  const acknowledged = new Set<string>()
  const deliver = async ({ commandId, id, text }: (typeof writes)[number]): Promise<void> => {
    await send(
      book,
      maren,
      'note.add',
      { id, jobId, fields: { station: 'find', text, minutes: 1, supersedesId: null } },
      { commandId },
    )
    acknowledged.add(id)
  }
  const sending = Promise.allSettled(writes.map(deliver))
  while (acknowledged.size < 20) await new Promise((resolve) => setImmediate(resolve))
  process.kill(mariadb.pid, 'SIGKILL')
  const outcomes = await sending
  await mariadb.ended
  await book.close().catch(() => undefined)
  const acknowledgedBeforeTheKill = new Set(acknowledged)
  expect(acknowledgedBeforeTheKill.size).toBeLessThan(writes.length)
  const refusals = outcomes.flatMap((outcome) =>
    outcome.status === 'rejected' ? [problemOf(outcome.reason)?.status] : [],
  )
  expect(new Set(refusals)).toEqual(new Set([503]))

  mariadb = await startMariaDb(data)
  book = openBook(mariadb.address)
  const kept = new Set((await book.database.select({ id: note.id }).from(note)).map((row) => row.id))
  expect([...acknowledgedBeforeTheKill].filter((id) => !kept.has(id))).toEqual([])
  // What the browser's queue does: everything that was not acknowledged is sent again.
  await Promise.all(writes.filter((write) => !acknowledged.has(write.id)).map(deliver))
  expect(await book.database.select({ id: note.id }).from(note)).toHaveLength(writes.length)
  expect(
    await book.database.select({ id: journal.sequence }).from(journal).where(eq(journal.command, 'note.add')),
  ).toHaveLength(writes.length)
  await book.close()
  await mariadb.stop()
})
