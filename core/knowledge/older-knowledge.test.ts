import { expect, it } from 'vitest'
import { diagnosisKnowledge } from './diagnosis-knowledge'
import { faultInTodaysForm, knowledgeInTodaysForm, testInTodaysForm } from './older-knowledge'

/** As version 3 had them. */
const before: Readonly<Record<string, object>> = {
  'gap-bridged': { kind: 'winding', pull: 0.85, ohmsTimes: 0.85, leak: 0.15, catches: 0.08 },
  'gap-shorted': { kind: 'winding', pull: 0.65, ohmsTimes: 0.65, leak: 1.2, catches: 0.25 },
  'coil-open': { kind: 'winding', pull: 0.62, ohmsTimes: 1.5, leak: 0, catches: 0.25 },
  'coil-shorted': { kind: 'winding', pull: 0.6, ohmsTimes: 0.65, leak: 1.2, catches: 0.25 },
}

it('a file of the form before, with all it says of windings, becomes the knowledge that ships', () => {
  const old = {
    ...diagnosisKnowledge,
    faults: diagnosisKnowledge.faults.map((fault) =>
      before[fault.id] ? { ...fault, effect: before[fault.id] } : fault,
    ),
  }
  expect(knowledgeInTodaysForm(old)).toEqual(diagnosisKnowledge)
})

it('leaves alone what is in today’s form, and what is no row at all', () => {
  for (const fault of diagnosisKnowledge.faults) expect(faultInTodaysForm(fault)).toBe(fault)
  for (const nothing of [null, undefined, 3, 'x', [], { effect: null }])
    expect(faultInTodaysForm(nothing)).toBe(nothing)
  for (const nothing of [null, 3, [], { faults: 'none' }]) expect(knowledgeInTodaysForm(nothing)).toBe(nothing)
})

it('reads the light of an engine, as it was noted once, of its lamps', () => {
  const light = diagnosisKnowledge.tests.find(({ id }) => id === 'lamp-on-track')
  expect(testInTodaysForm({ ...light, act: undefined, role: 'engine' })).toEqual(light)
  for (const nothing of [null, 3, [], light, { role: 'engine', reading: null }])
    expect(testInTodaysForm(nothing)).toBe(nothing)
})

it('reads lamps by their functions, a matter of signs once, from the circuit', () => {
  const sign = { test: 'function-lamp', outcome: 'dark', chance: 0.9 }
  const today = (id: string) => {
    const row = diagnosisKnowledge.faults.find((fault) => fault.id === id)
    if (!row) throw new Error(id)
    return row
  }
  const dead = today('output-dead')
  expect(faultInTodaysForm({ ...dead, effect: { kind: 'none' }, signs: [sign, ...dead.signs] })).toEqual(dead)
  const burnt = today('lamp-burnt')
  expect(faultInTodaysForm({ ...burnt, signs: [...burnt.signs, sign] })).toEqual(burnt)
  const test = diagnosisKnowledge.tests.find(({ id }) => id === 'function-lamp')
  expect(testInTodaysForm({ ...test, reading: { kind: 'signs' } })).toEqual(test)
})
