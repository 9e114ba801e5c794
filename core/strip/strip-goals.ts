import type { EngineDescription, PartKind } from '../engine/description-schema'
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
 * @example stripGoals(describeConstruction('tank-open')).map((goal) => goal.id) // ['usual.lid', 'usual.commutator', …]
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
    const places = description.carePoints.filter((point) => kinds.includes(point.kind))
    const found = [...new Set(places.map((point) => point.access))].flatMap(
      (access) => accesses.get(access ?? '') ?? [],
    )
    return {
      id,
      kind: 'usual',
      words,
      off: found.flatMap((access) => access.off),
      on: found.flatMap((access) => access.on),
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
  const boards = description.nodes.filter((node) => node.stage === 'board')
  const atBoard = [...new Set(boards.map((node) => node.access))].flatMap((access) => accesses.get(access ?? '') ?? [])
  return [
    byKind('usual.lid', 'Lid off', 'body'),
    byCare('usual.commutator', 'Reach the commutator', ['commutator']),
    byCare('usual.brushes', 'Reach the brushes', ['brushes']),
    byKind('usual.motor', 'Motor out', 'motor'),
    byKind('usual.tyres', 'Change the tyres', 'tyre'),
    byKind('usual.wheel-sets', 'Wheel sets out', 'axle'),
    byCare('usual.contacts', 'Clean the contacts', ['collecting-contact', 'axle-bearing-live']),
    byCare('usual.gears', 'Reach the gears', ['gear-train', 'worm']),
    {
      id: 'usual.board',
      kind: 'usual',
      words: 'Reach the board',
      off: atBoard.flatMap((access) => access.off),
      on: [],
    },
  ]
}
