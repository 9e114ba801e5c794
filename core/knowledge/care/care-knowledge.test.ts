import Ajv from 'ajv'
import { describe, expect, it } from 'vitest'
import { careKnowledge } from './care-knowledge'
import { CareKnowledge } from './care-schema'
import { checkCareKnowledge } from './check-care-knowledge'

describe('what ships', () => {
  it('is of its schema, with a source in every row, and sound', () => {
    const validate = new Ajv({ strict: false }).compile(JSON.parse(JSON.stringify(CareKnowledge)))
    expect([validate(careKnowledge), validate.errors]).toEqual([true, null])
    expect(checkCareKnowledge(careKnowledge)).toEqual([])
  })
})

describe('a row that cannot be', () => {
  it('is named: a way that harms what it is for, an agent nobody has, a soil without a way', () => {
    const [first, ...others] = careKnowledge.ways
    if (!first) throw new Error('There are ways.')
    const harming = { ...first, subjects: ['treads' as const], ways: [{ agent: null, method: 'steel-wool' }] }
    expect(checkCareKnowledge({ ...careKnowledge, ways: [harming, ...others] })[0]).toMatch(/steel-wool.*harms it/)
    const nowhere = { ...first, ways: [{ agent: 'moonshine', method: 'bud' }] }
    expect(checkCareKnowledge({ ...careKnowledge, ways: [nowhere, ...others] })).toContain(
      'A way takes “moonshine”, which is no agent.',
    )
    const less = careKnowledge.ways.filter((row) => row.soil !== 'paint')
    expect(checkCareKnowledge({ ...careKnowledge, ways: less })).toEqual(['Nothing takes off “paint”.'])
  })
})
