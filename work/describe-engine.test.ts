import { describe, expect, it } from 'vitest'
import { isSound } from '../core/engine/check-description'
import { engineTypes } from '../demo/engine-types'
import { engines } from '../demo/engines'
import { constructionPlans } from '../core/knowledge/constructions'
import type { ComponentRow, EngineTypeRow } from '../messages/book'
import { describeEngine } from './describe-engine'
import { constructions } from '../messages/vocabulary'

const typeOf = (key: string): EngineTypeRow => {
  const found = engineTypes.find((type) => type.key === key)
  if (!found) throw new Error(`The scenario has no type “${key}”.`)
  return { ...found.fields, id: key, version: 1, templateId: null, adaptations: [] }
}
const decoder: ComponentRow = {
  id: 'd',
  version: 1,
  engineId: 'e',
  kind: 'decoder',
  description: 'Decoder',
  fittedOn: null,
  removedOn: null,
  notes: '',
}

describe('the description of an engine', () => {
  it.each(engines.map((engine) => [engine.key, engine] as const))(
    'demo engine %s has one: sound, not the generic machine, every difference applied',
    (_key, engine) => {
      const { description, generic, differences } = describeEngine({
        type: typeOf(engine.type),
        adaptations: engine.adaptations ?? [],
        components: engine.decoder ? [decoder] : [],
        template: null,
      })
      expect(generic).toBe(false)
      expect(isSound(description)).toBe(true)
      expect(differences.filter((entry) => entry.problem !== null)).toEqual([])
      expect(description.power === 'dcc').toBe(Boolean(engine.decoder))
    },
  )

  it('every construction somebody can choose is one that is written down, and the other way round', () => {
    expect(Object.keys(constructions).sort()).toEqual(constructionPlans.map((plan) => plan.id).sort())
  })

  it('says what it does to a type’s figures: ratio and wheels as the book has them', () => {
    const { description, differences } = describeEngine({
      type: { ...typeOf('saltmark'), gearRatio: 18, wheelDiameterMm: 10.4 },
      adaptations: [],
      components: [],
      template: null,
    })
    expect(differences.map((entry) => [entry.origin, entry.words])).toEqual([
      ['figures', '18 motor turns to one of the wheels'],
      ['figures', 'Wheels of 10.4 mm on motor bogie, first axle, motor bogie, second axle'],
    ])
    expect(
      description.wheelSets
        .filter((wheelSet) => wheelSet.truck === 'motor-bogie')
        .map((wheelSet) => wheelSet.diameterMm),
    ).toEqual([10.4, 10.4])
  })
})
