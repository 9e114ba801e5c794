import { expect, test } from 'vitest'
import { problemsUnder } from './problems-under'

test('a field’s problem stands beside it, one in a list names its place, and other parts are left alone', () => {
  const problem = (field: string) => ({ field, message: '“it” is empty.', beside: 'This is empty.' })
  const found = [problem('owner.made.fields.name'), problem('engine.made.fields.units.1.name'), problem('ownerless.x')]
  expect(problemsUnder(found, 'owner.made.fields')).toEqual({ name: 'This is empty.' })
  expect(problemsUnder(found, 'engine.made.fields')).toEqual({ 'units.1.name': 'Units, 2: “it” is empty.' })
  expect(problemsUnder(found, 'owner')).toEqual({ 'made.fields.name': '“it” is empty.' })
})
