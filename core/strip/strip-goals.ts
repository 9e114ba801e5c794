import type { Access, EngineDescription, PartKind, Stage } from '../engine/description-schema'
import { hasDecoder } from '../engine/fit-decoder'
import { inSentence } from '../engine/name-in-sentence'

/** Something one opens an engine for. */
export interface StripGoal {
  readonly id: string
  /** The usual words, a place to reach, or a single part. */
  readonly kind: 'usual' | 'place' | 'part'
  readonly words: string
  /** Every inner list must have one of its parts off. */
  readonly off: readonly (readonly string[])[]
  /** Parts that must still be on for it. */
  readonly on: readonly string[]
}

/**
 * Everything this engine can be opened for: the usual words first, then each place that can be reached, then each part
 * that comes off.
 *
 *
 * @example
 * stripGoals(describeConstruction('tank-open'))
 *   .slice(0, 2)
 *   .map((goal) => goal.id) // [ 'usual.lid', 'usual.commutator' ]
 */
export function stripGoals(description: EngineDescription): StripGoal[] {
  const usual = usualGoals(description).filter((goal) => goal.off.length > 0)
  const places = description.accesses.map(({ id, name, off, on }): StripGoal => ({
    id: `reach.${id}`,
    kind: 'place',
    words: `Reach: ${inSentence(name)}`,
    off,
    on,
  }))
  const parts = description.parts
    .filter((part) => part.removal)
    .map(({ id, name }): StripGoal => ({ id: `off.${id}`, kind: 'part', words: `${name} off`, off: [[id]], on: [] }))
  return [...usual, ...places, ...parts]
}

function usualGoals(description: EngineDescription): StripGoal[] {
  const accesses = new Map(description.accesses.map((access) => [access.id, access]))
  const byCare = (id: string, words: string, kinds: readonly string[]): StripGoal => {
    const found = description.carePoints
      .filter((point) => kinds.includes(point.kind))
      .map(({ access, part }): Pick<Access, 'off' | 'on'> => {
        // A point without an access of its own lies open once what lies over its part is off.
        const over = description.parts.find((entry) => entry.id === part)?.removal?.needs ?? []
        return accesses.get(access ?? '') ?? { off: over, on: [] }
      })
    return {
      id,
      kind: 'usual',
      words,
      off: distinct(found.flatMap((access) => access.off)),
      on: [...new Set(found.flatMap((access) => access.on))],
    }
  }
  const byKind = (id: string, words: string, kind: PartKind): StripGoal => ({
    id,
    kind: 'usual',
    words,
    off: description.parts
      .filter((part) => part.kind === kind && part.removal && part.removal.leaveAlone === '')
      .map((part) => [part.id]),
    on: [],
  })
  const atNodes = (stage: Stage): Access[] => {
    const nodes = description.nodes.filter((node) => node.stage === stage)
    return [...new Set(nodes.map((node) => node.access))].flatMap((access) => accesses.get(access ?? '') ?? [])
  }
  return [
    byKind('usual.lid', 'Lid off', 'body'),
    byCare('usual.commutator', 'Reach the commutator', ['commutator']),
    byCare('usual.brushes', 'Reach the brushes', ['brushes']),
    byKind('usual.motor', 'Motor out', 'motor'),
    byKind('usual.tyres', 'Change the tyres', 'tyre'),
    byKind('usual.wheel-sets', 'Wheel sets out', 'axle'),
    byCare('usual.contacts', 'Clean the contacts', ['collecting-contact', 'axle-bearing-live']),
    byCare('usual.gears', 'Reach the gears', ['gear-train', 'worm']),
    byKind('usual.lamps', 'Reach the lamps', 'lamp'),
    byKind('usual.couplings', 'Change the couplings', 'coupling'),
    {
      id: 'usual.decoder',
      kind: 'usual',
      words: 'Fit a decoder',
      off: hasDecoder(description) ? [] : atNodes('motor-lead').flatMap((access) => access.off),
      on: [],
    },
    {
      id: 'usual.board',
      kind: 'usual',
      words: 'Reach the board',
      off: atNodes('board').flatMap((access) => access.off),
      on: [],
    },
  ]
}

const distinct = (needs: ReadonlyArray<readonly string[]>): Array<readonly string[]> => [
  ...new Map(needs.map((group) => [group.join(), group])).values(),
]
