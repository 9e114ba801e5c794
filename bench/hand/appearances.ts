/**
 * What one sees, hears, smells and feels with something wrong, for the benchmark: chances of its own, written down
 * apart from the knowledge they are to prove. From memory.
 */
interface Appearance {
  /** Outcome when none of the faults below is there, and how often something else is seen all the same. */
  readonly sound: string
  readonly stray: readonly (readonly [outcome: string, chance: number])[]
  /** Later ones hide earlier ones. */
  readonly shows: readonly (readonly [fault: string, outcome: string, chance: number])[]
}

export const appearances: Readonly<Record<string, Appearance>> = {
  smell: {
    sound: 'none',
    stray: [['oily', 0.08]],
    shows: [
      ['oiled', 'oily', 0.6],
      ['shorted coil', 'burnt', 0.5],
      ['suppressor short', 'burnt', 0.4],
      ['decoder dead', 'burnt', 0.4],
      ['coil shorted', 'burnt', 0.6],
      ['field shorted', 'burnt', 0.6],
      ['not separated', 'burnt', 0.3],
    ],
  },
  'treads-look': {
    sound: 'bright',
    stray: [['dull', 0.18]],
    shows: [
      ['even layer', 'dull', 0.8],
      ['film', 'dull', 0.55],
      ['film', 'black', 0.5],
      ['dead film', 'black', 0.6],
      ['dead film', 'dull', 0.6],
    ],
  },
  'rim-check': {
    sound: 'short',
    stray: [['open', 0.03]],
    shows: [
      ['film', 'open', 0.5],
      ['dead film', 'open', 0.8],
      ['even layer', 'open', 0.4],
    ],
  },
  'contacts-look': {
    sound: 'clean',
    stray: [['green', 0.07]],
    shows: [
      ['tarnish', 'green', 0.85],
      ['bent', 'bent', 0.8],
      ['do not touch', 'bent', 0.92],
    ],
  },
  'linkage-look': {
    sound: 'bright',
    stray: [['dull', 0.12]],
    shows: [
      ['open', 'dull', 0.75],
      ['loose', 'loose', 0.6],
    ],
  },
  'leads-tug': {
    sound: 'hold',
    stray: [['stiff', 0.05]],
    shows: [
      ['by a strand', 'stiff', 0.35],
      ['by a strand', 'off', 0.5],
      ['lead off', 'off', 0.9],
    ],
  },
  'brushes-look': {
    sound: 'good',
    stray: [['oily', 0.05]],
    shows: [
      ['oiled', 'oily', 0.85],
      ['black commutator', 'oily', 0.1],
      ['brush worn', 'short', 0.92],
      ['brush sticks', 'stuck', 0.75],
      ['brush stands off', 'stuck', 0.93],
    ],
  },
  'springs-look': {
    sound: 'equal',
    stray: [['unequal', 0.04]],
    shows: [
      ['spring weak', 'unequal', 0.85],
      ['spring off', 'collapsed', 0.9],
    ],
  },
  'commutator-look': {
    sound: 'bright',
    stray: [['black', 0.08]],
    shows: [
      ['oiled', 'black', 0.4],
      ['open coil', 'black', 0.4],
      ['black commutator', 'black', 0.93],
      ['carbon bridge', 'bridged', 0.8],
    ],
  },
  'turn-ohms': {
    sound: 'even',
    stray: [['jumps', 0.05]],
    shows: [
      ['black commutator', 'jumps', 0.7],
      ['oiled', 'jumps', 0.4],
      ['carbon bridge', 'one-off', 0.6],
      ['open coil', 'one-off', 0.92],
      ['shorted coil', 'one-off', 0.75],
    ],
  },
  'segment-ohms': {
    sound: 'alike',
    stray: [],
    shows: [
      ['carbon bridge', 'one-off', 0.85],
      ['shorted coil', 'one-off', 0.95],
      ['open coil', 'dead', 0.96],
    ],
  },
  'start-anywhere': {
    sound: 'anywhere',
    stray: [['needs-push', 0.06]],
    shows: [
      ['hard grease', 'needs-push', 0.3],
      ['out of quarter', 'needs-push', 0.35],
      ['bent rods', 'needs-push', 0.35],
      ['film', 'needs-push', 0.2],
      ['tarnish', 'needs-push', 0.2],
      ['oiled', 'needs-push', 0.3],
      ['spring weak', 'needs-push', 0.3],
      ['black commutator', 'needs-push', 0.6],
      ['brush worn', 'needs-push', 0.3],
      ['brush sticks', 'needs-push', 0.3],
      ['carbon bridge', 'needs-push', 0.7],
      ['shorted coil', 'needs-push', 0.6],
      ['open coil', 'dead-spot', 0.75],
    ],
  },
  'both-ways': {
    sound: 'alike',
    stray: [['one-way-worse', 0.08]],
    shows: [
      ['end play', 'one-way-worse', 0.7],
      ['brush sticks', 'one-way-worse', 0.4],
      ['spring weak', 'one-way-worse', 0.3],
      ['black commutator', 'one-way-worse', 0.2],
    ],
  },
  'light-speed': {
    sound: 'usual',
    stray: [['slow', 0.08]],
    shows: [
      ['dry bearing', 'slow', 0.3],
      ['hair in the gears', 'slow', 0.3],
      ['shorted coil', 'slow', 0.5],
      ['open coil', 'slow', 0.4],
      ['oiled', 'slow', 0.4],
      ['out of quarter', 'slow', 0.3],
      ['bent rods', 'slow', 0.3],
      ['dry axles', 'slow', 0.5],
      ['hard grease', 'slow', 0.75],
      ['weak magnet', 'fast', 0.8],
    ],
  },
  'stop-pattern': {
    sound: 'none',
    stray: [['at-random', 0.06]],
    shows: [
      ['out of quarter', 'once-a-turn', 0.45],
      ['bent rods', 'once-a-turn', 0.4],
      ['split gear', 'once-a-turn', 0.35],
      ['brush sticks', 'at-random', 0.3],
      ['spring weak', 'at-random', 0.25],
      ['film', 'at-random', 0.7],
      ['dead film', 'at-random', 0.8],
      ['tarnish', 'at-random', 0.7],
      ['bent', 'at-random', 0.6],
      ['loose', 'at-random', 0.6],
      ['by a strand', 'at-random', 0.6],
      ['off gauge', 'same-place', 0.4],
    ],
  },
  noise: {
    sound: 'quiet',
    stray: [
      ['growls', 0.09],
      ['squeals', 0.03],
    ],
    shows: [
      ['bent rods', 'thumps', 0.35],
      ['hard grease', 'growls', 0.1],
      ['dry axles', 'squeals', 0.45],
      ['dry bearing', 'squeals', 0.8],
      ['worn bearings', 'growls', 0.6],
      ['end play', 'growls', 0.2],
      ['oval holes', 'thumps', 0.7],
      ['split gear', 'thumps', 0.8],
      ['out of quarter', 'thumps', 0.4],
      ['joint out', 'thumps', 0.3],
    ],
  },
  warm: {
    sound: 'cool',
    stray: [['hot', 0.02]],
    shows: [
      ['hard grease', 'hot', 0.3],
      ['dry bearing', 'hot', 0.2],
      ['stuck armature', 'hot', 0.5],
      ['jammed gears', 'hot', 0.4],
      ['weak magnet', 'hot', 0.35],
      ['carbon bridge', 'hot', 0.3],
      ['shorted coil', 'hot', 0.85],
      ['field shorted', 'hot', 0.7],
    ],
  },
  'armature-feel': {
    sound: 'free',
    stray: [['gritty', 0.08]],
    shows: [
      ['dry bearing', 'gritty', 0.35],
      ['hard grease', 'gritty', 0.7],
      ['out of quarter', 'one-place', 0.7],
      ['bent rods', 'one-place', 0.55],
      ['split gear', 'one-place', 0.5],
      ['jammed gears', 'stuck', 0.85],
      ['stuck armature', 'stuck', 0.97],
    ],
  },
  roll: {
    sound: 'free',
    stray: [['tight', 0.04]],
    shows: [
      ['hard grease', 'tight', 0.3],
      ['dry axles', 'tight', 0.6],
      ['split gear', 'once-a-turn', 0.6],
      ['out of quarter', 'once-a-turn', 0.95],
      ['bent rods', 'once-a-turn', 0.92],
    ],
  },
  'gears-look': {
    sound: 'clean',
    stray: [['fouled', 0.08]],
    shows: [
      ['hard grease', 'fouled', 0.88],
      ['jammed gears', 'fouled', 0.8],
      ['hair in the gears', 'fouled', 0.95],
      ['split gear', 'split', 0.85],
    ],
  },
  'joint-look': { sound: 'seated', stray: [], shows: [['joint out', 'off', 0.97]] },
  'worm-twist': { sound: 'holds', stray: [], shows: [['worm slips', 'slips', 0.95]] },
  'gear-hold': { sound: 'holds', stray: [], shows: [['gear loose', 'slips', 0.9]] },
  'casting-look': { sound: 'sound', stray: [['cracked', 0.01]], shows: [] },
  'weight-look': { sound: 'there', stray: [], shows: [] },
  'muff-check': { sound: 'sound', stray: [['cracked', 0.02]], shows: [] },
  'axle-muff-check': { sound: 'sound', stray: [['cracked', 0.02]], shows: [] },
  'lead-look': {
    sound: 'whole',
    stray: [],
    shows: [
      ['by a strand', 'strand', 0.8],
      ['lead off', 'off', 0.94],
    ],
  },
  'lamp-look': { sound: 'whole', stray: [], shows: [['burnt out', 'burnt', 0.8]] },
  creep: {
    sound: 'steady',
    stray: [['jerky', 0.08]],
    shows: [
      ['hard grease', 'jerky', 0.35],
      ['split gear', 'jerky', 0.45],
      ['bent rods', 'jerky', 0.5],
      ['open coil', 'jerky', 0.5],
      ['carbon bridge', 'jerky', 0.4],
      ['spring weak', 'jerky', 0.3],
      ['brush worn', 'jerky', 0.3],
      ['oval holes', 'jerky', 0.3],
      ['film', 'jerky', 0.65],
      ['dead film', 'jerky', 0.8],
      ['tarnish', 'jerky', 0.6],
      ['bent', 'jerky', 0.5],
      ['loose', 'jerky', 0.5],
      ['black commutator', 'jerky', 0.5],
      ['out of quarter', 'jerky', 0.6],
    ],
  },
  'motor-noise': {
    sound: 'quiet',
    stray: [['growls', 0.03]],
    shows: [
      ['dry bearing', 'squeals', 0.8],
      ['worn bearings', 'growls', 0.75],
      ['end play', 'growls', 0.2],
    ],
  },
  'rods-watch': {
    sound: 'free',
    stray: [['bind', 0.03]],
    shows: [
      ['out of quarter', 'bind', 0.97],
      ['bent rods', 'bind', 0.95],
    ],
  },
  'rods-look': {
    sound: 'good',
    stray: [['dry', 0.1]],
    shows: [
      ['oval holes', 'oval', 0.9],
      ['bent rods', 'bent', 0.85],
    ],
  },
  'free-run': {
    sound: 'same',
    stray: [['better', 0.03]],
    shows: [
      ['hard grease', 'better', 0.9],
      ['jammed gears', 'better', 0.98],
      ['hair in the gears', 'better', 0.55],
      ['split gear', 'better', 0.7],
      ['out of quarter', 'better', 0.9],
      ['bent rods', 'better', 0.9],
      ['dry axles', 'better', 0.6],
    ],
  },
  'free-current': {
    sound: 'usual',
    stray: [['high', 0.03]],
    shows: [
      ['weak magnet', 'high', 0.65],
      ['carbon bridge', 'high', 0.9],
      ['shorted coil', 'high', 0.95],
      ['dry bearing', 'high', 0.35],
      ['stuck armature', 'high', 0.95],
      ['suppressor short', 'high', 0.9],
      ['field shorted', 'high', 0.9],
    ],
  },
  'rods-off': {
    sound: 'same',
    stray: [['free', 0.02]],
    shows: [
      ['out of quarter', 'free', 0.98],
      ['bent rods', 'free', 0.98],
    ],
  },
  'quartering-look': { sound: 'alike', stray: [['one-out', 0.03]], shows: [['out of quarter', 'one-out', 0.85]] },
  'back-to-back': { sound: 'right', stray: [['off', 0.02]], shows: [['off gauge', 'off', 0.96]] },
  'tyres-look': {
    sound: 'good',
    stray: [['cracked', 0.03]],
    shows: [
      ['perished tyres', 'cracked', 0.94],
      ['missing tyre', 'missing', 0.98],
    ],
  },
  haul: {
    sound: 'usual',
    stray: [['slips', 0.06]],
    shows: [
      ['perished tyres', 'slips', 0.65],
      ['missing tyre', 'slips', 0.6],
    ],
  },
  'decoder-look': {
    sound: 'none',
    stray: [['burnt', 0.01]],
    shows: [
      ['decoder dead', 'burnt', 0.45],
      ['not separated', 'burnt', 0.2],
    ],
  },
  'sound-restarts': {
    sound: 'never',
    stray: [['often', 0.05]],
    shows: [
      ['film', 'often', 0.75],
      ['dead film', 'often', 0.8],
      ['tarnish', 'often', 0.75],
      ['bent', 'often', 0.6],
      ['loose', 'often', 0.6],
      ['by a strand', 'often', 0.55],
    ],
  },
  'sequence-step': {
    sound: 'each',
    stray: [['misses', 0.04]],
    shows: [
      ['dirty drum', 'misses', 0.45],
      ['drum sticks', 'misses', 0.85],
      ['coil open', 'never', 0.98],
      ['coil shorted', 'never', 0.96],
    ],
  },
  'horn-test': { sound: 'sounds', stray: [['silent', 0.03]], shows: [['horn dead', 'silent', 0.97]] },
  'body-off': { sound: 'same', stray: [['better', 0.03]], shows: [] },
  'end-play': { sound: 'little', stray: [['much', 0.04]], shows: [['end play', 'much', 0.92]] },
  'bearing-play': { sound: 'none', stray: [['plays', 0.05]], shows: [['worn bearings', 'plays', 0.92]] },
  'magnet-pull': { sound: 'pulls', stray: [['weak', 0.05]], shows: [['weak magnet', 'weak', 0.88]] },
  'other-engine': { sound: 'runs', stray: [], shows: [] },
  'rails-look': { sound: 'clean', stray: [['dirty', 0.12]], shows: [] },
  'assembly-look': { sound: 'right', stray: [['wrong', 0.03]], shows: [['mirrored', 'wrong', 0.6]] },
}
