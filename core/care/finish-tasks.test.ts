import { describe, expect, it } from 'vitest'
import { describeConstruction, constructionPlans } from '../knowledge/constructions'
import { careKnowledge } from '../knowledge/care/care-knowledge'
import { applyDifferences } from '../engine/apply-differences'
import { finishRows, finishTasks } from './finish-tasks'

const tank = describeConstruction('tank-can')
const asked = { wanted: '', nearMint: false, sentimental: false, consent: '' }
const task = (id: string, more: Partial<typeof asked> = {}) =>
  finishTasks(tank, { ...asked, ...more }).find((entry) => entry.id === id)

describe('finish and detail', () => {
  it('is asked for in the owner’s words, and by nothing else', () => {
    expect(finishTasks(tank, asked).some(({ wished }) => wished)).toBe(false)
    expect(
      finishTasks(tank, { ...asked, wanted: 'Washed, and new transfers on one side' })
        .filter(({ wished }) => wished)
        .map(({ id }) => id),
    ).toEqual(['wash', 'transfers'])
  })

  it('leaves alone what is near mint, but for water and a soft brush', () => {
    expect(task('touch-up', { nearMint: true })?.refused).toContain('near mint')
    expect(task('wash', { nearMint: true })?.refused).toBe('')
  })

  it('waits for consent where it is treasured', () => {
    expect(task('wax', { sentimental: true })?.refused).toContain('consent')
    expect(task('wax', { sentimental: true, consent: 'By letter, 3 November' })?.refused).toBe('')
  })

  it('tries wax on a hidden spot first, compares transfers before they are ordered, and waits where something sets (common practice)', () => {
    expect(task('wax')?.steps[0]).toMatchObject({
      waitMinutes: 30,
      words: expect.stringContaining('hidden spot') as string,
    })
    expect(task('transfers')?.steps[0]?.words).toContain('before anything is ordered')
    for (const id of ['wash', 'touch-up', 'transfers', 'reproduction'])
      expect(task(id)?.steps.some(({ waitMinutes }) => waitMinutes >= 240)).toBe(true)
  })

  it('every agent and tool of a row is known, and a shell of paper is not washed', () => {
    for (const { steps } of finishRows)
      for (const { agent, method } of steps) {
        expect(careKnowledge.methods.map(({ id }) => id)).toContain(method)
        if (agent !== null) expect(careKnowledge.agents.map(({ id }) => id)).toContain(agent)
      }
    const paper = applyDifferences(tank, [{ kind: 'material', part: 'body', materials: ['paper'] }]).description
    expect(finishTasks(paper, asked).find(({ id }) => id === 'wash')?.refused).not.toBe('')
  })

  it('every construction with a body can be washed', () => {
    for (const { id } of constructionPlans) {
      const description = describeConstruction(id)
      const body = description.parts.some(({ kind }) => kind === 'body')
      expect(finishTasks(description, asked).some((entry) => entry.id === 'wash')).toBe(body)
    }
  })
})
