import type { Material, Part } from '../engine/description-schema'

/** One of the shop's trays, as it lies on the bench. */
export interface Tray {
  readonly id: string
  readonly name: string
  readonly rows: number
  readonly columns: number
  readonly magnetic: boolean
  readonly lid: boolean
}

/** A cell of a tray, rows and columns counted from 1. */
export interface Cell {
  readonly tray: string
  readonly row: number
  readonly column: number
}

const magnetic: ReadonlySet<Material> = new Set(['steel', 'ferrite', 'alnico'])

/**
 * Why a thing is better not laid there; empty where it may lie.
 *
 * @example
 * whyNotThere(
 *   { name: 'Spring', kind: 'motor-part', materials: ['steel'], removal: null },
 *   { id: 'a', name: 'A', rows: 1, columns: 1, magnetic: false, lid: false },
 * ) // ''
 */
export function whyNotThere(part: Pick<Part, 'materials' | 'kind' | 'name' | 'removal'>, tray: Tray): string {
  const held = part.materials.some((material) => magnetic.has(material))
  if (tray.magnetic && !held && !tray.lid)
    return `${part.name} is not magnetic: a magnet does not hold it, it wants a cell under a lid.`
  if (tray.magnetic && part.materials.includes('alnico'))
    return `${part.name} is a magnet itself: laid on another it loses strength.`
  if (!tray.lid && (part.removal?.hazards ?? []).some((hazard) => hazard === 'flies-away' || hazard === 'small-parts'))
    return `${part.name} rolls or springs away: it wants a cell under a lid.`
  return ''
}

/**
 * The next free cell that suits a part: one that holds it first, any other free one if none does.
 *
 * @param taken cells that something lies in
 * @returns null where every tray is full
 * @example
 * nextCell([{ id: 'a', name: 'A', rows: 2, columns: 3, magnetic: true, lid: false }], [], {
 *   name: 'Screw',
 *   kind: 'fastener',
 *   materials: ['steel'],
 *   removal: null,
 * }) // { tray: 'a', row: 1, column: 1 }
 */
export function nextCell(
  trays: readonly Tray[],
  taken: readonly Cell[],
  part: Pick<Part, 'materials' | 'kind' | 'name' | 'removal'>,
): Cell | null {
  const used = new Set(taken.map(cellKey))
  const free = (tray: Tray): Cell | null => {
    for (let row = 1; row <= tray.rows; row++)
      for (let column = 1; column <= tray.columns; column++) {
        const cell = { tray: tray.id, row, column }
        if (!used.has(cellKey(cell))) return cell
      }
    return null
  }
  const suiting = trays.filter((tray) => whyNotThere(part, tray) === '')
  // Steel goes on the magnet where there is one: the cells under a lid are few.
  const magnet = part.materials.includes('steel') ? suiting.filter((tray) => tray.magnetic) : []
  for (const tray of [...magnet, ...suiting, ...trays]) {
    const cell = free(tray)
    if (cell) return cell
  }
  return null
}

/**
 * @example cellKey({ tray: 'a', row: 2, column: 3 }) // 'a/2/3'
 */
export const cellKey = ({ tray, row, column }: Cell): string => `${tray}/${row}/${column}`

/**
 * What kind of cell a part wants.
 *
 * @example goesTo({ materials: ['steel'], removal: null }) // 'magnet'
 */
export function goesTo(part: Pick<Part, 'materials' | 'removal'>): 'magnet' | 'lid' | 'any' {
  const springs = (part.removal?.hazards ?? []).some((hazard) => hazard === 'flies-away' || hazard === 'small-parts')
  if (springs) return 'lid'
  return part.materials.includes('steel') ? 'magnet' : 'any'
}

/**
 * A cell as it is called: rows by letter, columns by number.
 *
 * @example cellName({ row: 2, column: 3 }) // 'B3'
 */
export const cellName = ({ row, column }: Pick<Cell, 'row' | 'column'>): string =>
  `${String.fromCharCode(64 + row)}${column}`
