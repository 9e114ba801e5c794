import type { Programming } from './decoder-says'
import type { Run, Signature } from './electrical-signature'
import type { Reading } from '../../knowledge/knowledge-schema'

/** Below this share of its speed a motor stands for all anyone can see. */
const STANDING = 0.05
/** Below this share it has so little to spare that where its armature stands decides whether it starts. */
const HARDLY = 0.25
export const OPEN_OHMS = 1e4

export type Chances = Readonly<Record<string, number>>

/**
 * How a person at the bench would call what a meter or the engine shows, for one signature: where a figure lies
 * between two words, both have a chance. Bounds are common practice.
 *
 * @param reading how the test is read
 * @param signature what the circuit gives
 * @param sound what a sound engine of the kind gives
 * @param at index of the motor the test is made at; of a lamp among the lamps
 */
export function signatureChances(reading: Reading, signature: Signature, sound: Signature, at: number): Chances {
  switch (reading.kind) {
    case 'motion': {
      const run = signature.run(reading.feed === 'track-rocked' ? 'track' : reading.feed)
      return shared(
        shared(
          motionOf(run, sound.run(reading.feed === 'track-rocked' ? 'track' : reading.feed)),
          run?.sticks ?? 0,
          'stands',
        ),
        run?.catches ?? 0,
        run?.caughtTrips ? 'trips' : 'stands',
      )
    }
    case 'current': {
      const run = signature.run(reading.feed)
      return shared(
        shared(currentOf(run, sound.run(reading.feed), reading.resolutionAmps), run?.sticks ?? 0, 'high'),
        run?.catches ?? 0,
        'high',
      )
    }
    case 'direction':
      return (signature.run(reading.feed)?.way ?? 1) < 0 ? { wrong: 1 } : { right: 1 }
    case 'lamp':
      return shared(lampOf(signature.run(reading.feed)?.lamps[at] ?? 0), givingWay(signature.run(reading.feed)), 'dim')
    case 'motor-volts':
      return shared(
        voltsOf(
          (signature.run(reading.feed)?.motorVolts ?? 0) / Math.max(1e-9, sound.run(reading.feed)?.motorVolts ?? 1),
        ),
        givingWay(signature.run(reading.feed)),
        'low',
      )
    case 'rail-ohms':
      return shared(railOhmsOf(signature.railOhms, sound.railOhms), signature.shortedShare, 'low')
    case 'motor-ohms':
      return shared(
        motorOhmsOf(signature.motorOhms[at] ?? Number.POSITIVE_INFINITY, sound.motorOhms[at] ?? 1),
        signature.shortedShare,
        'low',
      )
    case 'functions':
      return shared(functionsOf(signature), givingWay(signature.run('dcc-track')), 'dark')
    case 'programming':
      return programmingOf(signature.programming, reading.reads)
    default:
      return {}
  }
}

/** Whether what is read hangs on where the armature happens to stand: then it is another matter the next time. */
export function hangsOnArmature(reading: Reading, signature: Signature): boolean {
  switch (reading.kind) {
    case 'motion': {
      const run = signature.run(reading.feed === 'track-rocked' ? 'track' : reading.feed)
      return run !== undefined && (run.catches > 0 || (run.speed >= STANDING && run.speed < HARDLY))
    }
    case 'current':
      return (signature.run(reading.feed)?.catches ?? 0) > 0
    case 'lamp':
    case 'motor-volts':
      return givingWay(signature.run(reading.feed)) > 0
    case 'functions':
      return givingWay(signature.run('dcc-track')) > 0
    case 'rail-ohms':
    case 'motor-ohms':
      return signature.shortedShare > 0
    default:
      return false
  }
}

/** How often the armature is caught where the supply gives way: volts go down with it. */
function givingWay(run: Run | undefined): number {
  return run?.caughtTrips ? run.catches : 0
}

const feedsAsItStands = ['track', 'wheels', 'pickups', 'dcc-track'] as const

/** By motor: whether it turns on the track, or fed at the wheels or pickups: without taking anything off. */
export function turningAsItStands(signature: Signature): boolean[] {
  const turning: boolean[] = []
  for (const feed of feedsAsItStands) {
    const run = signature.run(feed)
    // Caught more often than not, it stands.
    for (const [motor, speed] of (run?.speeds ?? []).entries())
      turning[motor] = turning[motor] === true || (speed >= STANDING && (run?.catches ?? 0) <= 0.5)
    if (turning.length > 0 && turning.every(Boolean)) break
  }
  return turning
}

/** Sometimes the armature stands where it has no pull, or where a meter meets a short circuit. */
export function shared(chances: Chances, share: number, as: string): Chances {
  if (share === 0) return chances
  const rest = Object.fromEntries(Object.entries(chances).map(([outcome, chance]) => [outcome, chance * (1 - share)]))
  return { ...rest, [as]: (rest[as] ?? 0) + share }
}

/** With one of two motors dead the other drags the machine along. */
function motionOf(run: Run | undefined, sound: Run | undefined): Chances {
  if (!run) return { stands: 1 }
  if (run.limited && run.speed < 0.5) return { trips: 0.9, stands: 0.1 }
  if (run.speed < STANDING)
    return run.speeds.some((speed) => speed >= STANDING)
      ? { falters: 0.75, runs: 0.25 }
      : starved(run, sound)
        ? { stands: 0.7, falters: 0.3 }
        : { stands: 1 }
  if (run.speed < HARDLY) return { falters: 0.6, stands: 0.4 }
  if (run.speed < 0.6) return { falters: 0.6, runs: 0.4 }
  return run.speed < 0.8 ? { runs: 0.75, falters: 0.25 } : { runs: 1 }
}

/** Volts arrive, but too few under load: a poor joint lets it start now and then. From memory. */
function starved({ motorVolts, limited }: Run, sound: Run | undefined): boolean {
  const share = motorVolts / Math.max(1e-9, sound?.motorVolts ?? 0)
  return !limited && share > 0.03 && share < 0.6
}

function currentOf(run: Run | undefined, sound: Run | undefined, resolutionAmps: number): Chances {
  if (!run || !sound) return { usual: 1 }
  const share = run.amps / Math.max(1e-9, sound.amps)
  if (run.limited || share > 2) return { high: 1 }
  // Half a step of the display may still show as nothing.
  if (run.amps < 0.5 * resolutionAmps) return { nothing: 1 }
  if (run.amps < 1.5 * resolutionAmps) return { nothing: 0.5, usual: 0.5 }
  const low = tooLittle.find(({ below }) => share < below)
  if (low) return low.called
  return tooMuch.find(({ above }) => share > above)?.called ?? { usual: 1 }
}

/** From how many times the usual current it is called a little or far too much: common practice, the shares from memory. */
const tooMuch: ReadonlyArray<{ readonly above: number; readonly called: Chances }> = [
  { above: 1.8, called: { high: 0.75, raised: 0.25 } },
  { above: 1.6, called: { high: 0.5, raised: 0.45, usual: 0.05 } },
  { above: 1.4, called: { raised: 0.65, high: 0.2, usual: 0.15 } },
  { above: 1.25, called: { usual: 0.5, raised: 0.45, high: 0.05 } },
  { above: 1.12, called: { usual: 0.75, raised: 0.25 } },
]

/** Below which share of the usual current it is called little: what lamps alone take is a third at most. From memory. */
const tooLittle: ReadonlyArray<{ readonly below: number; readonly called: Chances }> = [
  { below: 0.1, called: { little: 0.5, nothing: 0.4, usual: 0.05, flickers: 0.05 } },
  { below: 0.35, called: { little: 0.8, usual: 0.1, nothing: 0.05, flickers: 0.05 } },
  { below: 0.5, called: { usual: 0.5, little: 0.45, flickers: 0.05 } },
  { below: 0.65, called: { usual: 0.85, little: 0.15 } },
]

/** Where a test has no word for something between two others, how often it is called by either. */
const between: Readonly<Record<string, Chances>> = {
  raised: { usual: 0.5, high: 0.5 },
  little: { usual: 0.9, nothing: 0.1 },
}

/**
 * What a figure is called with the words a test has.
 *
 * @param chances by all words there are
 * @param words of the test
 * @example inWordsOf({ raised: 1 }, ['usual', 'high']) // { usual: 0.5, high: 0.5 }
 */
export function inWordsOf(chances: Chances, words: readonly string[]): Chances {
  const spoken: Record<string, number> = {}
  for (const [word, chance] of Object.entries(chances))
    for (const [said, share] of Object.entries(words.includes(word) ? { [word]: 1 } : (between[word] ?? { [word]: 1 })))
      spoken[said] = (spoken[said] ?? 0) + chance * share
  return spoken
}

function lampOf(power: number): Chances {
  if (power > 0.7) return { bright: 1 }
  if (power > 0.35) return { bright: 0.5, dim: 0.5 }
  return power > 0.05 ? { dim: 1 } : power > 0.02 ? { dim: 0.5, dark: 0.5 } : { dark: 1 }
}

/** All lamps light only where the decoder hears and has its current, and each of them has its own. */
function functionsOf({ functions, run }: Signature): Chances {
  const { lamps = [], decoder = 0 } = run('dcc-track') ?? {}
  const reached = lamps.map((power) => 1 - (lampOf(power).dark ?? 0))
  // Half its volts wake a decoder, from memory.
  const awake = decoder > 0.3 ? 1 : decoder > 0.15 ? 0.5 : 0
  const lights = functions?.heard ? reached.reduce((all, chance) => all * chance, awake * (1 - functions.dark)) : 0
  return { ...(lights > 0 ? { lights } : {}), ...(lights < 1 ? { dark: 1 - lights } : {}) }
}

function voltsOf(share: number): Chances {
  if (share < 0.12) return share < 0.05 ? { none: 1 } : { none: 0.5, low: 0.5 }
  // A quarter less is not yet much less to everybody.
  return share > 0.85 ? { full: 1 } : share > 0.6 ? { full: 0.5, low: 0.5 } : { low: 1 }
}

function railOhmsOf(found: number, sound: number): Chances {
  if (found > Math.max(OPEN_OHMS, 100 * sound)) return { open: 1 }
  const share = found / Math.max(1e-9, sound)
  if (share < 0.35) return { low: 1 }
  return share < 0.65 ? { low: 0.5, usual: 0.5 } : share > 3 ? { open: 0.5, usual: 0.5 } : { usual: 1 }
}

function motorOhmsOf(found: number, sound: number): Chances {
  if (found > OPEN_OHMS) return { open: 1 }
  const share = found / Math.max(1e-9, sound)
  if (share > 30 && found > 0.3 * OPEN_OHMS) return { open: 0.5, high: 0.5 }
  if (share < 0.5) return { low: 1 }
  return share < 0.75
    ? { low: 0.5, usual: 0.5 }
    : share > 1.25
      ? { high: 1 }
      : share > 1.12
        ? { high: 0.5, usual: 0.5 }
        : { usual: 1 }
}

function programmingOf(found: Programming | null, reads: Extract<Reading, { kind: 'programming' }>['reads']): Chances {
  if (!found?.answers) return { silent: 1 }
  if (reads === 'anything') return { answers: 1 }
  if (reads === 'dc-operation') return found.dcOperation ? { 'dc-on': 1 } : { 'dc-off': 1 }
  return found.addressKnown ? { 'as-called': 1 } : { another: 1 }
}
