import { createHash } from 'node:crypto'
import { eq } from 'drizzle-orm'
import { cutText } from '../../messages/cut-text'
import { mayCommand, type CommandName, type CommandPayload, type Envelope } from '../../messages/commands'
import { inPresentPayload } from '../../messages/older-forms'
import { problemsOf } from '../../messages/validate'
import type { Changes } from '../../messages/changes'
import { bookNews } from '../book-news'
import type { Database, Transaction } from '../db/book'
import { journal } from '../db/schema'
import { databaseErrorCode, Problem } from '../problems'
import { readChanges, type Touched } from '../services/read-changes'
import { handlers } from './handlers'
import { Write, type Actor } from './write'

/** What the sender gets back: the same for the first delivery and for every repeat. */
export interface CommandReceipt {
  readonly result: unknown
  /** True when this command had been carried out before. */
  readonly repeated: boolean
  /** The rows it changed, as they are now. */
  readonly changes: Changes
}

const RETRIES = 6

/**
 * Carries out one write: validated, authorised, once. In one transaction the command is looked up (a known one
 * returns its stored result before any version is compared; the same id with another body is refused), done,
 * and entered in the journal.
 *
 * @throws Problem 400, 403, 404, 409 or 422, each with a sentence
 */
export async function runCommand(
  database: Database,
  actor: Actor,
  name: CommandName,
  message: unknown,
): Promise<CommandReceipt> {
  const envelopeProblems = problemsOf('Envelope', message)
  if (envelopeProblems.length > 0)
    throw new Problem(422, 'invalid', envelopeProblems[0]?.message ?? '', { fields: envelopeProblems })
  const envelope = message as Envelope
  if (!mayCommand(actor.role, name)) {
    throw new Problem(
      403,
      'role',
      actor.role === 'reader'
        ? 'Your account may read the book but not write in it.'
        : 'Only the owner of the shop may change this.',
    )
  }
  const payload = inPresentPayload(name, envelope.payload)
  const payloadProblems = problemsOf(name, payload)
  if (payloadProblems.length > 0)
    throw new Problem(422, 'invalid', payloadProblems[0]?.message ?? '', { fields: payloadProblems })

  // By the body as it was sent: repeated after an update it is the same write. A password leaves no trace in the journal, not even a quick hash of it.
  const bodyHash = hashOf(
    name,
    name === 'person.save' ? { ...(envelope.payload as object), password: null } : envelope.payload,
  )
  return runOnce(
    database,
    {
      commandId: envelope.commandId,
      name,
      bodyHash,
      actor,
      capturedAt: new Date(envelope.capturedAt),
      expectedVersion: envelope.expectedVersion,
    },
    (write) => handlers[name](write, payload as CommandPayload<never>),
  )
}

/** What identifies one write, whatever it does. */
export interface CommandHead {
  readonly commandId: string
  readonly name: string
  readonly bodyHash: string
  readonly actor: Actor
  readonly capturedAt: Date
  readonly expectedVersion?: number | undefined
}

/** Does a write exactly once, whatever is repeated, raced or interrupted. */
export async function runOnce(
  database: Database,
  head: CommandHead,
  perform: (write: Write) => Promise<unknown>,
): Promise<CommandReceipt> {
  for (let attempt = 1; ; attempt++) {
    try {
      const receipt = await database.transaction(
        async (transaction): Promise<CommandReceipt> => {
          const known = await knownReceipt(transaction, head)
          if (known) return known
          const write = new Write(transaction, head.actor, head.capturedAt, new Date(), head.expectedVersion)
          const result = (await perform(write)) ?? null
          if (write.entries.length === 0) throw new Error(`${head.name} left no journal entry.`)
          await transaction.insert(journal).values(
            write.entries.map((entry, ordinal) => ({
              commandId: head.commandId,
              ordinal,
              command: head.name,
              bodyHash: head.bodyHash,
              result: ordinal === 0 ? result : null,
              personId: head.actor.id,
              subject: entry.subject,
              subjectId: entry.subjectId,
              jobId: entry.jobId ?? null,
              summary: cutText(entry.summary, 400),
              before: entry.before ?? null,
              after: entry.after ?? null,
              capturedAt: head.capturedAt,
              receivedAt: write.receivedAt,
            })),
          )
          return { result, repeated: false, changes: await readChanges(transaction, head.commandId, write.entries) }
          // Rows are locked one by one where needed; locking the gaps between them as well would only make writers wait for each other.
        },
        { isolationLevel: 'read committed' },
      )
      if (!receipt.repeated) bookNews.tell(receipt.changes)
      return receipt
    } catch (error) {
      // A twin of this very command may have got in first: what it changed is then why this one was refused.
      const twin = error instanceof Problem ? await knownReceipt(database, head) : null
      if (twin) return twin
      const code = databaseErrorCode(error)
      // A twin of this very command got in first, or two writes waited for each other: look again.
      const worthAnotherLook =
        code === 'ER_LOCK_DEADLOCK' ||
        code === 'ER_LOCK_WAIT_TIMEOUT' ||
        code === 'ER_DUP_ENTRY' ||
        code === 'ER_CHECKREAD'
      if (!worthAnotherLook || attempt >= RETRIES) throw duplicateProblem(code) ?? error
    }
  }
}

/** The stored result of a command that was carried out before; the same number with another body is refused. */
async function knownReceipt(database: Database | Transaction, head: CommandHead): Promise<CommandReceipt | null> {
  const lines = await database
    .select({
      bodyHash: journal.bodyHash,
      result: journal.result,
      personId: journal.personId,
      subject: journal.subject,
      subjectId: journal.subjectId,
      jobId: journal.jobId,
    })
    .from(journal)
    .where(eq(journal.commandId, head.commandId))
    .orderBy(journal.ordinal)
  const [known] = lines
  if (!known) return null
  if (known.bodyHash !== head.bodyHash || known.personId !== head.actor.id) {
    throw new Problem(
      422,
      'command-reused',
      'This entry’s number was already used for another entry. Write it once more.',
    )
  }
  return {
    result: known.result,
    repeated: true,
    changes: await readChanges(database, head.commandId, lines as Touched[]),
  }
}

function duplicateProblem(code: string | undefined): Problem | null {
  return code === 'ER_DUP_ENTRY' ? new Problem(422, 'taken', 'This name or number is already taken in the book.') : null
}

/** SHA-256 over the name and payload with keys in order: the version and times of the envelope do not count. */
export function hashOf(name: string, payload: unknown): string {
  return createHash('sha256')
    .update(name)
    .update('\n')
    .update(
      JSON.stringify(payload, (_, value: unknown) =>
        value !== null && typeof value === 'object' && !Array.isArray(value)
          ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
          : value,
      ),
    )
    .digest('hex')
}
