import { describe, expect, it } from 'vitest'
import { describeConstruction } from '../knowledge/constructions'
import { part } from './bare-description.test-data'
import { checkDescription, isSound } from './check-description'
import type { EngineDescription } from './description-schema'

const sound = describeConstruction('tank-can')
const changed = <K extends keyof EngineDescription>(list: K, id: string, change: object): EngineDescription => ({
  ...sound,
  [list]: (sound[list] as Array<{ id: string }>).map((entry) => (entry.id === id ? { ...entry, ...change } : entry)),
})
const findings = (description: EngineDescription) =>
  checkDescription(description).map(({ code, place, message }) => ({ code, place, message }))

describe('what is wrong with a description is named with its place', () => {
  it('nothing, where nothing is', () => expect(findings(sound)).toEqual([]))

  it('a circuit without a way from rail to rail', () => {
    const cut = {
      ...sound,
      components: sound.components.filter(
        (component) => !component.id.endsWith('.tread') || component.id.includes('.right'),
      ),
    }
    const unhooked = {
      ...cut,
      wheelSets: cut.wheelSets.map((wheelSet) => ({ ...wheelSet, left: { ...wheelSet.left, tread: null } })),
    }
    expect(findings(unhooked)).toContainEqual({
      code: 'no-path',
      place: 'motors / motor',
      message: 'There is no way from rail to rail through Can motor: no track could ever run it.',
    })
    expect(isSound(unhooked)).toBe(false)
  })

  it('a point connected to nothing: worth a look, still readable', () => {
    const loose = {
      ...sound,
      nodes: [...sound.nodes, { id: 'loose', name: 'Loose end', stage: 'lead' as const, access: null }],
    }
    expect(findings(loose)).toEqual([
      { code: 'floating-node', place: 'nodes / loose', message: 'The point “Loose end” is connected to nothing.' },
    ])
    expect(isSound(loose)).toBe(true)
  })

  it('a piece of circuit joined only to itself, named once with its points; a lamp on it that could never light', () => {
    const node = (id: string, name: string) => ({ id, name, stage: 'auxiliary' as const, access: null })
    const lamp = {
      id: 'loose-lamp',
      name: 'Loose lamp',
      kind: 'lamp' as const,
      from: 'one',
      to: 'two',
      ohms: 200,
      highOhms: null,
      part: null,
      unit: 'locomotive',
      faults: [],
      closedIn: null,
      lamp: { volts: 12, amps: 0.06, kind: 'filament' as const },
    }
    const island = {
      ...sound,
      nodes: [...sound.nodes, node('one', 'One end'), node('two', 'Other end')],
      components: [...sound.components, lamp],
    }
    expect(findings(island)).toEqual([
      {
        code: 'no-path',
        place: 'components / loose-lamp',
        message: 'There is no way from the rails to loose lamp: it could never light.',
      },
      {
        code: 'floating-node',
        place: 'nodes / one',
        message: 'The points “One end” and “Other end” are joined to each other and to nothing else.',
      },
    ])
    expect(isSound(island)).toBe(true)
  })

  it('negative ohms, a gear without teeth, half a gear', () => {
    expect(findings(changed('components', 'lead.right', { ohms: -3 }))).toEqual([
      {
        code: 'negative-ohms',
        place: 'components / lead.right / ohms',
        message: '“Pickup lead, right” has -3 Ω: resistance is zero or more.',
      },
    ])
    expect(findings(changed('links', 'worm.mesh', { teethTo: 0 }))[0]).toMatchObject({
      code: 'no-teeth',
      place: 'links / worm.mesh / teethTo',
    })
    expect(findings(changed('links', 'worm.mesh', { teethTo: null }))[0]).toMatchObject({
      code: 'no-teeth',
      place: 'links / worm.mesh',
    })
  })

  it('parts that wait for each other, and a place nothing ever opens', () => {
    const circle = {
      ...sound,
      parts: [
        ...sound.parts,
        ...[part('lid', [['box']]), part('box', [['lid']])].map((entry) => ({ ...entry, unit: 'locomotive' })),
      ],
    }
    expect(findings(circle)).toContainEqual({
      code: 'circle-of-parts',
      place: 'parts / lid',
      message: 'Part lid waits for Part box, which waits for it in turn: nothing of this could ever come off.',
    })
    const never = {
      ...sound,
      accesses: [...sound.accesses, { id: 'core', name: 'Core of the block', off: [['chassis']], on: [] }],
    }
    expect(findings(never)).toEqual([
      {
        code: 'never-reached',
        place: 'accesses / core',
        message: '“Core of the block” can never be reached: Chassis block never comes off.',
      },
    ])
  })

  it('names that point nowhere or stand twice', () => {
    expect(findings(changed('components', 'lead.right', { to: 'feed.wrong' }))).toContainEqual({
      code: 'points-nowhere',
      place: 'components / lead.right / to',
      message: '“components / lead.right / to” points at “feed.wrong”, which is not among the nodes.',
    })
    const [part] = sound.parts
    expect(findings(changed('parts', part?.id ?? '', { of: 'no-wheel' }))).toContainEqual({
      code: 'points-nowhere',
      place: `parts / ${part?.id} / of`,
      message: `“parts / ${part?.id} / of” points at “no-wheel”, which is not among the parts.`,
    })
    expect(findings({ ...sound, nodes: [...sound.nodes, ...sound.nodes.slice(0, 1)] })[0]).toMatchObject({
      code: 'id-twice',
      place: 'nodes / rail.right',
    })
    const machine = describeConstruction('tank-can', 'dcc')
    const wrong = {
      ...machine,
      components: machine.components.map((component) =>
        component.closedIn ? { ...component, closedIn: { ...component.closedIn, positions: ['sideways'] } } : component,
      ),
    }
    expect(checkDescription(wrong)[0]?.message).toContain(
      'closes in a position “sideways” that its switch does not have',
    )
  })

  it('a description of a newer form, without guessing at the rest', () => {
    expect(findings({ ...sound, version: 3 })).toEqual([
      {
        code: 'newer-version',
        place: 'version',
        message: 'This description was written for a newer form (3; known here: 2). Update this program to read it.',
      },
    ])
  })

  it('a train that cannot turn: worth a look', () => {
    const geared = {
      ...sound,
      links: [
        ...sound.links,
        {
          ...(sound.links.find((link) => link.id === 'worm.mesh') as EngineDescription['links'][number]),
          id: 'second-worm',
          name: 'Second worm gear',
          to: 'driver-1',
          teethTo: 28,
        },
      ],
    }
    expect(findings(geared)[0]).toMatchObject({ code: 'drive-binds' })
    expect(isSound(geared)).toBe(true)
  })
})
