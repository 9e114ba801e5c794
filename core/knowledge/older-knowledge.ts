import { diagnosisKnowledge } from './diagnosis-knowledge'
import type { Effect, Fault } from './knowledge-schema'

type Sign = Fault['signs'][number]

/** Until version 3 a bad winding was told by four judged figures; since version 4 by what is wrong with it. */
interface OldWinding {
  readonly kind: 'winding'
  readonly pull: number
  readonly ohmsTimes: number
  readonly leak: number
  readonly catches: number
}

/** Ohms across a gap: a carbon bridge, and one as good as a short; as the knowledge that ships has them. */
const CARBON_OHMS = 6
const HARD_OHMS = 0.5
/** How often only some turns of a shorted coil are; the old form knew no such thing. */
const SOME_TURNS_ONLY = 0.4
/** From so much past the winding on, in times of its own current, the old figures spoke of a short. */
const SHORT_LEAK = 1

/**
 * A fault's row in today's form: one kept or exported by an earlier program says the same in other words.
 *
 * @param row of any version, not yet checked
 * @returns the row itself where it is in today's form or in none
 */
export function faultInTodaysForm<T>(row: T): T {
  const { role, effect } = (row ?? {}) as { role?: unknown; effect?: unknown }
  const now = isOldWinding(effect) ? { ...row, effect: effectOf(role, effect) } : row
  return withoutFunctionSigns(now)
}

/** Read by signs until the circuit told whether a decoder has its current. */
const FUNCTIONS_TEST = 'function-lamp'

/** That a lamp stays dark at its function was a sign; where nothing else of the fault shows in the circuit it is its effect now. */
function withoutFunctionSigns<T>(row: T): T {
  const { signs, effect } = (row ?? {}) as { signs?: unknown; effect?: { kind?: unknown } | null }
  if (!Array.isArray(signs)) return row
  const of = (sign: unknown): Partial<Sign> => (sign ?? {}) as Partial<Sign>
  const told = signs.map(of).filter(({ test }) => test === FUNCTIONS_TEST)
  if (told.length === 0) return row
  const chance = told.find(({ outcome }) => outcome === 'dark')?.chance
  return {
    ...row,
    signs: signs.filter((sign) => of(sign).test !== FUNCTIONS_TEST),
    ...(effect?.kind === 'none' && chance !== undefined ? { effect: { kind: 'function-dark', chance } } : {}),
  }
}

/** Until version 4 every test stood alone; since version 5 it says at which act it is noted, and light is seen lamp by lamp. */
export function testInTodaysForm<T>(row: T): T {
  const { id, act, role, reading } = (row ?? {}) as { id?: unknown; act?: unknown; role?: unknown; reading?: unknown }
  const shipped = diagnosisKnowledge.tests.find((test) => test.id === id)
  const untold = act === undefined && shipped?.act !== undefined
  const kind = (reading as { kind?: unknown } | null | undefined)?.kind
  const ofTheEngine = role === 'engine' && kind === 'lamp'
  const bySigns = id === FUNCTIONS_TEST && kind === 'signs'
  if (!untold && !ofTheEngine && !bySigns) return row
  return {
    ...row,
    ...(untold ? { act: shipped.act } : {}),
    ...(ofTheEngine ? { role: 'lamps' } : {}),
    ...(bySigns ? { reading: { kind: 'functions' } } : {}),
  }
}

/** A whole file of knowledge in today's form; whatever is not one is left for the schema to refuse. */
export function knowledgeInTodaysForm(file: unknown): unknown {
  const { faults, tests, acts } = (file ?? {}) as { faults?: unknown; tests?: unknown; acts?: unknown }
  if (!Array.isArray(faults)) return file
  return {
    ...(file as object),
    acts: acts ?? diagnosisKnowledge.acts,
    faults: faults.map(faultInTodaysForm),
    ...(Array.isArray(tests) ? { tests: tests.map(testInTodaysForm) } : {}),
  }
}

function isOldWinding(effect: unknown): effect is OldWinding {
  const { kind, pull, ohmsTimes, leak } = (effect ?? {}) as Partial<Record<keyof OldWinding, unknown>>
  return kind === 'winding' && typeof pull === 'number' && typeof ohmsTimes === 'number' && typeof leak === 'number'
}

function effectOf(role: unknown, { ohmsTimes, leak }: OldWinding): Effect {
  if (role === 'gaps') return { kind: 'gap-bridge', ohms: leak >= SHORT_LEAK ? HARD_OHMS : CARBON_OHMS }
  return ohmsTimes > 1
    ? { kind: 'winding', defect: 'coil-open' }
    : { kind: 'winding', defect: 'coil-shorted', light: SOME_TURNS_ONLY }
}
