import { describe, expect, it } from 'vitest'
import { clockTroubleOf } from './clock-trouble'

const at = (text: string): Date => new Date(`2026-11-${text}:00Z`)

describe('clocks that disagree', () => {
  it('are none within a day, and each is named by what it says beyond', () => {
    expect(clockTroubleOf({ device: at('30T10:00'), shop: at('29T10:00'), latestEntry: at('29T09:00') })).toBe('')
    expect(clockTroubleOf({ device: at('03T10:00'), shop: at('30T10:00'), latestEntry: null })).toMatch(
      /This device says it is 3 November 2026.*the shop 30 November 2026/,
    )
  })

  it('the shop’s own is suspected when the book is ahead of it', () => {
    expect(clockTroubleOf({ device: at('30T10:00'), shop: at('03T10:00'), latestEntry: at('29T09:00') })).toMatch(
      /The shop’s clock says 3 November.*latest entry in the book is of 29 November/,
    )
  })
})
