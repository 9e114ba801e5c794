import { cutText } from '~~/messages/cut-text'
import { v7 as newId } from 'uuid'
import { continuityColumns, expectedContinuity } from '~~/core/continuity/expected-continuity'
import { judgeContinuity, nextCell, type SheetCell } from '~~/core/continuity/judge-continuity'
import type { EngineDescription } from '~~/core/engine/description-schema'
import { readTypedQuantity } from '~~/core/measure/typed-quantity'
import type { JobBook } from '~~/messages/book'
import { cellInWords, type CellInWords } from '~~/work/continuity-cell'
import { continuitySheet, continuityStates } from '~~/work/continuity-sheet'
import type { ContinuityFields } from '~~/messages/continuity-entries'

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
  const placeOf = (cell: SheetCell): CellInWords => cellInWords(description(), plan.value, cell)
  /** A cell chosen by hand; the next unmeasured one otherwise. */
  const chosen = ref<SheetCell | null>(null)
  const current = computed<SheetCell | null>(() => chosen.value ?? nextCell(plan.value, readings.value))
  const trail = ref<SheetCell[]>([])

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
