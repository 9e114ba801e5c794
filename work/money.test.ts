import { describe, expect, it } from 'vitest'
import { priceOfMinutes, priceOfWork } from './money'

describe('what a job comes to', () => {
  it('taxes parts as well as minutes', () => {
    // 90 min at 36.00 are 54.00; with parts of 2.40 that is 56.40, and 20 % of it 11.28 (worked by hand).
    expect(priceOfWork({ minutes: 90, hourlyRate: 3600, parts: 240, taxPercent: 20 })).toEqual({
      work: 5400,
      tax: 1128,
      gross: 6768,
    })
  })

  it('is the minutes alone without parts and tax', () => {
    expect(priceOfWork({ minutes: 50, hourlyRate: 3600, parts: 0, taxPercent: 0 })).toEqual({
      work: 3000,
      tax: 0,
      gross: priceOfMinutes(50, 3600),
    })
  })
})
