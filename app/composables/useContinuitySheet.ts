import { cutText } from '~~/messages/cut-text'
import { v7 as newId } from 'uuid'
import { continuityColumns, expectedContinuity, type ContinuityColumn } from '~~/core/continuity/expected-continuity'
import { judgeContinuity, nextCell } from '~~/core/continuity/judge-continuity'
import type { EngineDescription } from '~~/core/engine/description-schema'
import { inSentence } from '~~/core/engine/name-in-sentence'
import { readTypedQuantity } from '~~/core/measure/typed-quantity'
import type { JobBook } from '~~/messages/book'
import { continuitySheet, continuityStates } from '~~/work/continuity-sheet'
import type { ContinuityFields } from '~~/messages/continuity-entries'

export interface SheetCell {
  readonly point: string
  readonly column: ContinuityColumn
}

/** The continuity sheet of a job: what is judged, which cell is next, and how a reading is written down. */
export function useContinuitySheet(book: () => JobBook, description: () => EngineDescription) {
  const outbox = useOutbox()
  const workshop = useWorkshopStore()
  const plan = computed(() => expectedContinuity(description()))
  const readings = computed(() => continuitySheet(book().continuity, book().engine.stateNumber))
  const judged = computed(() => judgeContinuity(plan.value, readings.value))
  /** As it read before the last repair; null where nothing was measured then. */
  const before = computed(() => {
    const state = continuityStates(book().continuity).findLast((entry) => entry < book().engine.stateNumber)
    return state === undefined ? null : continuitySheet(book().continuity, state)
  })
  const columns = computed(() =>
    continuityColumns.filter((column) => plan.value.wheels.some((wheel) => wheel.expected[column])),
  )
  /** A cell chosen by hand; the next unmeasured one otherwise. */
  const chosen = ref<SheetCell | null>(null)
  const current = computed<SheetCell | null>(() => chosen.value ?? nextCell(plan.value, readings.value))
  const trail = ref<SheetCell[]>([])

  const nodeName = (id: string | null): string =>
    inSentence(description().nodes.find((node) => node.id === id)?.name ?? 'lead')
  function placeOf({ point, column }: SheetCell): { readonly what: string; readonly how: string } {
    const wheel = plan.value.wheels.find((entry) => entry.point === point)
    const name = wheel?.name ?? point
    const rail = wheel?.rail ?? 'plus'
    if (column === 'rim')
      return {
        what: `${name}: both probes on its rim`,
        how: 'Opposite each other on its tread. It must read a short, or an open reading behind it proves nothing.',
      }
    if (column === 'own')
      return {
        what: `${name}, to its own lead`,
        how: wheel?.collects
          ? `One probe on the tread, one at the ${nodeName(plan.value.leads[rail])}: closed.`
          : `One probe on the tread, one at the ${nodeName(plan.value.leads[rail])}: this wheel leads nowhere, so open.`,
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
        how: `One probe on the tread, one at the ${nodeName(plan.value.leads[rail === 'plus' ? 'minus' : 'plus'])}: ${should}.`,
      }
    return {
      what: `${name}, to the frame`,
      how: `One probe on the tread, one on bright metal of the frame: ${should}.`,
    }
  }

  async function write(cell: SheetCell, reading: ContinuityFields['reading']): Promise<void> {
    const { id: jobId } = book().job
    const id = newId()
    trail.value = [...trail.value.slice(-40), cell]
    chosen.value = null
    const fields: ContinuityFields = {
      point: cell.point,
      column: cell.column,
      reading,
      words: cutText(placeOf(cell).what, 200),
    }
    await outbox.send('continuity.add', { id, jobId, fields })
  }
  /** @returns a sentence where what was typed is no resistance */
  async function writeOhms(cell: SheetCell, typed: string): Promise<string> {
    const result = readTypedQuantity('resistance', typed)
    if (!result.ok) return result.error.message
    const [meter] = workshop.metersFor('resistance')
    const { value, resolution } = result.quantity
    await write(cell, {
      kind: 'ohms',
      quantity: {
        typed: typed.trim(),
        value,
        resolution,
        meter: meter
          ? { id: meter.id, name: meter.name, percentOfReading: meter.percentOfReading, digits: meter.digits }
          : null,
      },
    })
    return ''
  }
  function back(): void {
    const last = trail.value.at(-1)
    if (!last) return
    trail.value = trail.value.slice(0, -1)
    chosen.value = last
  }
  return {
    plan,
    readings,
    judged,
    before,
    columns,
    current,
    chosen,
    placeOf,
    write,
    writeOhms,
    back,
    latest: computed(() => trail.value.at(-1) ?? null),
  }
}
