import { diagnosisKnowledge } from './diagnosis-knowledge'
import type { Effect } from './knowledge-schema'

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
  return isOldWinding(effect) ? { ...row, effect: effectOf(role, effect) } : row
}

/** Until version 4 every test stood alone; since version 5 it says at which act it is noted, and light is seen lamp by lamp. */
export function testInTodaysForm<T>(row: T): T {
  const { id, act, role, reading } = (row ?? {}) as { id?: unknown; act?: unknown; role?: unknown; reading?: unknown }
  const shipped = diagnosisKnowledge.tests.find((test) => test.id === id)
  const untold = act === undefined && shipped?.act !== undefined
  const ofTheEngine = role === 'engine' && (reading as { kind?: unknown } | null | undefined)?.kind === 'lamp'
  if (!untold && !ofTheEngine) return row
  return { ...row, ...(untold ? { act: shipped.act } : {}), ...(ofTheEngine ? { role: 'lamps' } : {}) }
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
