import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cutText } from './cut-text'

describe('a text that is cut', () => {
  it('is the beginning of the text, well-formed, no longer than asked, and whole where it fits', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 40 }), fc.integer({ min: 0, max: 60 }), (text, most) => {
        const cut = cutText(text, most)
        expect(text.startsWith(cut)).toBe(true)
        expect(cut.isWellFormed()).toBe(true)
        expect(cut.length).toBeLessThanOrEqual(most)
        if (text.length <= most) expect(cut).toBe(text)
      }),
    )
  })

  it('keeps a family, a flag and an accent together', () => {
    expect(cutText('ab👩‍🔧cd', 5)).toBe('ab')
    expect(cutText('ab👩‍🔧cd', 7)).toBe('ab👩‍🔧')
    expect(cutText('cafe\u0301s', 4)).toBe('caf')
    expect(cutText('🇫🇷', 2)).toBe('')
  })
})
