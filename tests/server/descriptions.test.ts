import { v7 as newId } from 'uuid'
import { describe, expect, it } from 'vitest'
import type { EngineDescription } from '../../core/engine/description-schema'
import type { Difference } from '../../core/engine/difference-schema'
import { describeConstruction } from '../../core/knowledge/constructions'
import { checkConstruction } from '../../server/services/check-construction'
import { listConstructions, readEngine } from '../../server/services/engines-and-owners'
import { describeEngine } from '../../work/describe-engine'
import { send, takeInSomething, useTestBook } from '../support/test-book'

const shop = useTestBook()

async function described(engineId: string) {
  const { type, engine, components, template } = await readEngine(shop.book.database, engineId)
  return describeEngine({ type, adaptations: engine.adaptations, components, template })
}

const weight: Difference = { kind: 'weight', unit: 'locomotive', grams: 25, place: 'over the rear axle' }
const pickup: Difference = { kind: 'pickup', wheelSet: 'driver-1', side: 'left', to: 'frame' }

describe('the description of an engine in the book', () => {
  it('comes from its construction, the type’s figures, the type’s differences and its own, in that order', async () => {
    const { engineId, typeId } = await takeInSomething(shop.book, shop.maren)
    await send(
      shop.book,
      shop.maren,
      'engine-type.adapt',
      { id: typeId, fields: { templateId: null, adaptations: [pickup] } },
      { expectedVersion: 1 },
    )
    await send(
      shop.book,
      shop.maren,
      'engine.adapt',
      { id: engineId, fields: { adaptations: [weight] } },
      { expectedVersion: 1 },
    )
    const { description, differences, generic } = await described(engineId)
    // The type says 15 mm wheels and an open-frame motor; its 30 : 1 is what the construction has anyway.
    expect(differences.map((entry) => [entry.origin, entry.difference.kind, entry.problem])).toEqual([
      ['figures', 'wheels', null],
      ['figures', 'motor', null],
      ['type', 'pickup', null],
      ['engine', 'weight', null],
    ])
    expect(description.units[0]?.massGrams).toBe(235)
    expect(description.wheelSets.every((wheelSet) => wheelSet.diameterMm === 15)).toBe(true)
    expect(description.parts.some((part) => part.name.startsWith('Added wiper'))).toBe(true)
    expect(generic).toBe(false)
  })

  it('counts a decoder that is fitted, and no longer once it is taken out', async () => {
    const { engineId } = await takeInSomething(shop.book, shop.maren)
    const id = newId()
    const fields = {
      kind: 'decoder' as const,
      description: 'Decoder, 1 A',
      fittedOn: '2026-01-10',
      removedOn: null,
      notes: '',
    }
    await send(shop.book, shop.maren, 'component.save', { id, engineId, fields })
    expect((await described(engineId)).description.power).toBe('dcc')
    await send(
      shop.book,
      shop.maren,
      'component.save',
      { id, engineId, fields: { ...fields, removedOn: '2026-03-01' } },
      { expectedVersion: 1 },
    )
    expect((await described(engineId)).description.power).toBe('dc')
  })

  it('stays readable when the type gets another construction: what no longer fits is named', async () => {
    const { engineId, typeId } = await takeInSomething(shop.book, shop.maren)
    await send(
      shop.book,
      shop.maren,
      'engine.adapt',
      { id: engineId, fields: { adaptations: [pickup, weight] } },
      { expectedVersion: 1 },
    )
    const { type } = await readEngine(shop.book.database, engineId)
    const { id: _id, version, templateId: _template, adaptations: _adaptations, ...fields } = type
    await send(
      shop.book,
      shop.maren,
      'engine-type.save',
      { id: typeId, fields: { ...fields, construction: 'narrow-gauge' } },
      { expectedVersion: version },
    )
    const { differences, description } = await described(engineId)
    expect(differences.filter((entry) => entry.origin === 'engine').map((entry) => entry.problem)).toEqual([
      'It speaks of an axle “driver-1”, which this construction does not have.',
      null,
    ])
    expect(description.units[0]?.massGrams).toBe(95)
  })

  it('is a generic machine, said to be so, while nobody knows the construction', async () => {
    const { engineId, typeId } = await takeInSomething(shop.book, shop.maren)
    const { type } = await readEngine(shop.book.database, engineId)
    const { id: _id, version, templateId: _template, adaptations: _adaptations, ...fields } = type
    await send(
      shop.book,
      shop.maren,
      'engine-type.save',
      { id: typeId, fields: { ...fields, construction: 'other' } },
      { expectedVersion: version },
    )
    expect(await described(engineId)).toMatchObject({
      generic: true,
      construction: { name: 'Generic, construction not known' },
    })
  })

  it('two hands noting differences at once: the second is told, and sees the row as it stands', async () => {
    const { engineId } = await takeInSomething(shop.book, shop.maren)
    await send(
      shop.book,
      shop.maren,
      'engine.adapt',
      { id: engineId, fields: { adaptations: [weight] } },
      { expectedVersion: 1 },
    )
    await expect(
      send(
        shop.book,
        shop.maren,
        'engine.adapt',
        { id: engineId, fields: { adaptations: [pickup] } },
        { expectedVersion: 1 },
      ),
    ).rejects.toMatchObject({ status: 409, extra: { current: { adaptations: [weight] } } })
  })

  it('refuses a difference that is not one, with the field named', async () => {
    const { engineId } = await takeInSomething(shop.book, shop.maren)
    const wrong = { kind: 'gear', link: 'worm.mesh', teethFrom: 1, teethTo: 0 } as Difference
    await expect(
      send(
        shop.book,
        shop.maren,
        'engine.adapt',
        { id: engineId, fields: { adaptations: [wrong] } },
        { expectedVersion: 1 },
      ),
    ).rejects.toMatchObject({ status: 422 })
  })
})

describe('a construction of the shop’s own', () => {
  const own: EngineDescription = {
    ...describeConstruction('tank-can'),
    id: 'harbour-tank',
    name: 'Harbour tank, drawn up here',
  }

  it('goes out and comes in unchanged, and a type can be made as it says', async () => {
    const { engineId, typeId } = await takeInSomething(shop.book, shop.maren)
    const file = JSON.parse(JSON.stringify(own)) as EngineDescription
    expect(checkConstruction(file).problems).toEqual([])
    const id = newId()
    await send(shop.book, shop.maren, 'construction.save', { id, fields: { name: own.name, description: file } })
    await send(
      shop.book,
      shop.maren,
      'engine-type.adapt',
      { id: typeId, fields: { templateId: id, adaptations: [] } },
      { expectedVersion: 1 },
    )
    const { template } = await readEngine(shop.book.database, engineId)
    expect(template).toEqual(file)
    expect(await listConstructions(shop.book.database)).toEqual([{ id, name: own.name, version: 1, power: 'dc' }])
  })

  it('is refused with the place named when it is not sound, at the door and at the check', async () => {
    const looped: EngineDescription = {
      ...own,
      parts: own.parts.map((part) =>
        part.id === 'coupling-rear' && part.removal
          ? { ...part, removal: { ...part.removal, needs: [['body']] } }
          : part,
      ),
    }
    expect(checkConstruction(looped).problems[0]).toMatchObject({ place: 'parts / body.screw-rear', fatal: true })
    await expect(
      send(shop.book, shop.maren, 'construction.save', {
        id: newId(),
        fields: { name: 'Looped', description: looped },
      }),
    ).rejects.toMatchObject({ status: 422, message: expect.stringContaining('waits for') as string })
  })

  it.each([
    [
      'negative ohms',
      { ...own, components: own.components.map((component) => ({ ...component, ohms: -1 })) },
      'components.0.ohms',
      'must be at least 0',
    ],
    [
      'a gear with no teeth',
      { ...own, links: own.links.map((link) => (link.teethTo === null ? link : { ...link, teethTo: 0 })) },
      'links.1.teethTo',
      'must be above 0',
    ],
    ['a newer form', { ...own, version: 9, somethingNew: true }, 'version', 'Update this program'],
    ['something else altogether', { title: 'Shopping list' }, 'version', 'is missing'],
  ])('%s: says where and what', (_name, candidate, place, words) => {
    const { problems } = checkConstruction(candidate)
    expect(problems.some((problem) => problem.place === place && problem.message.includes(words))).toBe(true)
  })
})
