import { expect, it } from 'vitest'
import { constructionPlans } from '../knowledge/constructions'
import { Case } from './worked-case.test-data'

it('a sign is seen at one place at least wherever the engine has both the fault and the look', () => {
  const unseen: string[] = []
  for (const { id } of constructionPlans)
    for (const power of ['dc', 'dcc'] as const) {
      const { engine } = new Case(id, power).diagnosis
      for (const [index, { fault, id: suspect }] of engine.suspects.entries())
        for (const sign of fault.signs) {
          const looks = [...engine.tests.keys()].filter((test) => engine.tests[test]?.test.id === sign.test)
          if (looks.length > 0 && !looks.some((test) => engine.givesSign(test, index)))
            unseen.push(`${id} ${power}: ${suspect} at ${sign.test}`)
        }
    }
  expect(unseen).toEqual([])
})
