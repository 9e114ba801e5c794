import { v7 as newId } from 'uuid'
import { describe, expect, test } from 'vitest'
import { someJob } from '../tests/support/some-entries'
import { formProblemsOf } from './form-checks'
import { formMessages } from './form-messages'
import { problemsOf } from './validate'

const owner = (fields: object = {}) => ({
  name: 'Wilma Ostergren',
  email: '',
  phone: '',
  address: '',
  notes: '',
  isShop: false,
  ...fields,
})
const takeIn = (ownerFields: object, jobFields: object = {}) => ({
  jobId: newId(),
  owner: { made: { id: newId(), fields: owner(ownerFields) } },
  type: null,
  engine: { existing: newId() },
  job: { ...someJob, ...jobFields },
})

describe('what is wrong with a form', () => {
  test('is said at its field, in the form that was meant and not in the other', async () => {
    const found = await formProblemsOf('job.take-in', takeIn({ phone: '1'.repeat(61) }))
    expect(found).toEqual([
      {
        field: 'owner.made.fields.phone',
        message: '“phone” is longer than 60 characters.',
        beside: 'This is longer than 60 characters.',
      },
    ])
  })

  test('is all said at once where somebody fills it in, and its first thing where it arrives', async () => {
    const bad = takeIn({ phone: '1'.repeat(61), name: ' ' }, { moneyLimit: -1, dueOn: '2026-02-31' })
    const fields = (await formProblemsOf('job.take-in', bad)).map(({ field }) => field)
    expect(new Set(fields)).toEqual(
      new Set(['owner.made.fields.name', 'owner.made.fields.phone', 'job.moneyLimit', 'job.dueOn']),
    )
    expect(problemsOf('job.take-in', bad)).toHaveLength(1)
  })

  test('of a number that may be missing: its limit, and not that it could have been left out', () => {
    const [problem, ...others] = problemsOf('job.take-in', takeIn({}, { moneyLimit: -1 }))
    expect(problem).toEqual({ field: 'job.moneyLimit', message: '“money limit” must be at least 0.' })
    expect(others).toEqual([])
  })

  test('of half a minute: that it must be a whole one', () => {
    expect(problemsOf('job.take-in', takeIn({}, { estimateMinutes: 12.5 }))).toEqual([
      { field: 'job.estimateMinutes', message: '“estimate minutes” must be a whole number.' },
    ])
  })

  test('of something that is neither form: that it is none', () => {
    const neither = { ...takeIn({}), owner: 7 }
    expect(problemsOf('job.take-in', neither).map(({ field }) => field)).toContain('owner')
  })

  test.each(formMessages)('%s is held against the same schema here and there', async (name) => {
    for (const message of [{}, null, { id: 'x' }, { fields: {} }, takeIn({}), { id: newId(), fields: owner() }])
      expect((await formProblemsOf(name, message)).length > 0).toBe(problemsOf(name, message).length > 0)
  })
})
