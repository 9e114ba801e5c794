import { eq } from 'drizzle-orm'
import { describe, expect, it } from 'vitest'
import { noChanges, type KnowledgeChanges } from '../../core/knowledge/knowledge-changes'
import { diagnosisKnowledge } from '../../core/knowledge/diagnosis-knowledge'
import { journal, typeKnowledge } from '../../server/db/schema'
import { checkKnowledgeFile } from '../../server/services/check-knowledge-file'
import { readJob } from '../../server/services/read-job'
import { send, takeInSomething, useTestBook } from '../support/test-book'

const shop = useTestBook()
const rowOf = <T extends { id: string }>(rows: readonly T[], id: string): T =>
  structuredClone(rows.find((row) => row.id === id) as T)
const save = (typeId: string, changes: KnowledgeChanges, expectedVersion?: number) =>
  send(
    shop.book,
    shop.maren,
    'type-knowledge.save',
    { id: typeId, fields: { changes } },
    expectedVersion === undefined ? {} : { expectedVersion },
  )
const rarer: KnowledgeChanges = {
  ...noChanges,
  faults: [{ ...rowOf(diagnosisKnowledge.faults, 'treads-film'), prior: 0.02 }],
}

describe('a type’s own copy of the knowledge', () => {
  it('belongs to its type and to no other, and is in the journal with what it was before', async () => {
    const { jobId, typeId } = await takeInSomething(shop.book, shop.maren)
    const other = await takeInSomething(shop.book, shop.maren, 'Another type')
    await save(typeId, rarer)
    expect((await readJob(shop.book.database, jobId)).practice).toMatchObject({
      version: 1,
      changes: { faults: [{ id: 'treads-film', prior: 0.02 }] },
    })
    expect((await readJob(shop.book.database, other.jobId)).practice.changes).toBeNull()
    await save(typeId, noChanges, 1)
    const lines = await shop.book.database.select().from(journal).where(eq(journal.subjectId, typeId))
    expect(lines.filter((line) => line.subject === 'knowledge').map((line) => line.summary)).toEqual([
      expect.stringMatching(/: 1 row differs from what ships$/),
      expect.stringMatching(/was set back to what ships$/),
    ])
  })

  it('kept by an earlier program is read in today’s form', async () => {
    const { jobId, typeId } = await takeInSomething(shop.book, shop.maren)
    const shorted = rowOf(diagnosisKnowledge.faults, 'coil-shorted')
    const old = {
      ...shorted,
      prior: 0.06,
      effect: { kind: 'winding', pull: 0.6, ohmsTimes: 0.65, leak: 1.2, catches: 0.25 },
    }
    await save(typeId, rarer)
    await shop.book.database
      .update(typeKnowledge)
      .set({ changes: { ...noChanges, faults: [old as unknown as typeof shorted] } })
      .where(eq(typeKnowledge.id, typeId))
    expect((await readJob(shop.book.database, jobId)).practice.changes?.faults).toEqual([{ ...shorted, prior: 0.06 }])
  })

  it('refuses an older version with the one that stands', async () => {
    const { typeId } = await takeInSomething(shop.book, shop.maren)
    await save(typeId, rarer)
    await save(typeId, noChanges, 1)
    await expect(save(typeId, rarer, 1)).rejects.toMatchObject({ status: 409, extra: { current: { version: 2 } } })
  })

  it.each<[string, KnowledgeChanges, string]>([
    [
      'a remedy that is missing',
      { ...noChanges, without: { ...noChanges.without, remedies: ['clean-treads'] } },
      'There is no remedy “clean-treads”.',
    ],
    [
      'remedies in a circle',
      {
        ...noChanges,
        remedies: [{ ...rowOf(diagnosisKnowledge.remedies, 'clean-commutator'), after: ['clean-gaps'] }],
      },
      'go round in a circle',
    ],
    [
      'a sign of a test that is not there',
      {
        ...noChanges,
        faults: [
          {
            ...rowOf(diagnosisKnowledge.faults, 'treads-film'),
            signs: [{ test: 'crystal-ball', outcome: 'dark', chance: 0.5 }],
          },
        ],
      },
      'There is no test “crystal-ball”.',
    ],
    [
      'an outcome missing',
      {
        ...noChanges,
        tests: [
          {
            ...rowOf(diagnosisKnowledge.tests, 'track-run'),
            outcomes: rowOf(diagnosisKnowledge.tests, 'track-run').outcomes.slice(0, 3),
          },
        ],
      },
      'The outcome “trips” of “track-run” is missing.',
    ],
  ])('refuses %s with a sentence', async (_, changes, sentence) => {
    const { typeId } = await takeInSomething(shop.book, shop.maren)
    await expect(save(typeId, changes)).rejects.toMatchObject({
      status: 422,
      sentence: expect.stringContaining(sentence),
    })
  })

  it('refuses a chance of 1.2 at the door, naming the field', async () => {
    const { typeId } = await takeInSomething(shop.book, shop.maren)
    await expect(
      save(typeId, { ...noChanges, faults: [{ ...rowOf(diagnosisKnowledge.faults, 'treads-film'), prior: 1.2 }] }),
    ).rejects.toMatchObject({
      status: 422,
      extra: { fields: [expect.objectContaining({ field: expect.stringContaining('prior') })] },
    })
  })
})

describe('a knowledge file', () => {
  it('that ships has nothing to change, and one with another chance changes one row', () => {
    expect(checkKnowledgeFile(structuredClone(diagnosisKnowledge))).toEqual({ flaws: [], changes: noChanges })
    const file = structuredClone(diagnosisKnowledge)
    Object.assign(file.faults.find((fault) => fault.id === 'treads-film') ?? {}, { prior: 0.02 })
    expect(checkKnowledgeFile(file)).toEqual({ flaws: [], changes: rarer })
  })

  it('of the form before is read as it was meant', () => {
    const file = structuredClone(diagnosisKnowledge) as {
      version: number
      faults: Array<{ id: string; effect: object }>
    }
    file.version = 3
    Object.assign(file.faults.find((fault) => fault.id === 'coil-open') ?? {}, {
      effect: { kind: 'winding', pull: 0.62, ohmsTimes: 1.5, leak: 0, catches: 0.25 },
    })
    expect(checkKnowledgeFile(file)).toEqual({ flaws: [], changes: noChanges })
  })

  it.each<[string, unknown, string]>([
    ['no knowledge at all', { hello: 1 }, 'version'],
    ['a list', [], 'the file'],
    ['nothing', null, 'the file'],
    [
      'a chance of 1.2',
      { ...diagnosisKnowledge, faults: [{ ...diagnosisKnowledge.faults[0], prior: 1.2 }] },
      `faults/${diagnosisKnowledge.faults[0]?.id}/prior`,
    ],
    ['a newer form', { ...diagnosisKnowledge, version: 99 }, 'version'],
  ])('with %s says what is wrong, and where', (_, file, place) => {
    const { flaws, changes } = checkKnowledgeFile(file)
    expect(changes).toBeNull()
    expect(flaws.length).toBeGreaterThan(0)
    expect(flaws.some((flaw) => flaw.place.includes(place) && flaw.message.length > 10)).toBe(true)
  })
})
