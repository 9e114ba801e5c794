import type { ContinuityPlan } from '../core/continuity/expected-continuity'
import type { SheetCell } from '../core/continuity/judge-continuity'
import type { EngineDescription } from '../core/engine/description-schema'
import { inSentence } from '../core/engine/name-in-sentence'

/** What is measured, and how it is done and should read. */
export interface CellInWords {
  readonly what: string
  readonly how: string
}

/** A cell of the sheet as a hand with two probes is told of it. */
export function cellInWords(
  description: EngineDescription,
  plan: ContinuityPlan,
  { point, column }: SheetCell,
): CellInWords {
  const wheel = plan.wheels.find((entry) => entry.point === point)
  const name = wheel?.name ?? point
  const rail = wheel?.rail ?? 'plus'
  const lead = (of: 'plus' | 'minus'): string =>
    inSentence(description.nodes.find((node) => node.id === plan.leads[of])?.name ?? 'lead')
  if (column === 'rim')
    return {
      what: `${name}: both probes on its rim`,
      how: 'Opposite each other on its tread. It must read a short, or an open reading behind it proves nothing.',
    }
  if (column === 'own')
    return {
      what: `${name}, to its own lead`,
      how: wheel?.collects
        ? `One probe on the tread, one at the ${lead(rail)}: closed.`
        : `One probe on the tread, one at the ${lead(rail)}: this wheel leads nowhere, so open.`,
    }
  const expected = wheel?.expected[column]
  const should =
    expected?.kind === 'through'
      ? `about ${Math.round(expected.ohms)} Ω through the motor; near nothing is a bridge`
      : expected?.kind === 'closed'
        ? 'closed'
        : 'open'
  if (column === 'other')
    return {
      what: `${name}, to the other lead`,
      how: `One probe on the tread, one at the ${lead(rail === 'plus' ? 'minus' : 'plus')}: ${should}.`,
    }
  return {
    what: `${name}, to the frame`,
    how: `One probe on the tread, one on bright metal of the frame: ${should}.`,
  }
}
