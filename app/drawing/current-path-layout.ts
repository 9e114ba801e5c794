import { Circuit } from '~~/core/engine/circuit'
import type { CircuitComponent, CircuitNode, EngineDescription } from '~~/core/engine/description-schema'
import { operatingPoint } from '~~/core/engine/operating-point'
import { runningPositions } from '~~/core/engine/pickup-map'

export interface DrawnNode {
  readonly id: string
  readonly name: string
  readonly x: number
  readonly y: number
  readonly rail: boolean
  /** The number of the axle for a rim; null elsewhere. */
  readonly axle: number | null
  /** Its name in short lines, where there is room for it. */
  readonly label: readonly string[]
}

export interface DrawnComponent {
  readonly component: CircuitComponent
  readonly path: string
  /** Where its symbol stands. */
  readonly x: number
  readonly y: number
}

export interface CurrentPathLayout {
  readonly width: number
  readonly height: number
  readonly nodes: readonly DrawnNode[]
  readonly components: readonly DrawnComponent[]
  /** Headings over the columns. */
  readonly columns: ReadonlyArray<{ readonly x: number; readonly name: string }>
}

const COLUMN = 88
const WIDE_ROW = 52
const NARROW_ROW = 44
const MANY_ROWS = 5
const TOP = 56
const LANE = 42

/**
 * The current path as a drawing: plus rail at the left, minus rail at the right, every point in the column of its
 * distance from its rail, wheels in the order of their axles. What leads nowhere is left out; what only keeps apart is
 * not drawn, until it no longer does.
 *
 * @param faulty components that are not sound; insulation among them is drawn
 */
export function layOutCurrentPath(
  description: EngineDescription,
  faulty: ReadonlySet<string> = new Set(),
): CurrentPathLayout {
  const leading = description.components.filter(
    (component) =>
      component.ohms !== null ||
      component.closedIn !== null ||
      component.kind === 'capacitor' ||
      faulty.has(component.id),
  )
  const kept = withoutDeadEnds(
    description,
    leading.filter((component) => component.ohms !== null || component.closedIn !== null),
  )
  const shown = leading.filter((component) => kept.has(component.from) && kept.has(component.to))
  const volts = operatingPoint(
    new Circuit(description),
    { switches: runningPositions(description) },
    { ...description.rails, volts: 1 },
  ).nodeVolts
  const plusSide = (id: string): boolean => (volts[id] ?? 0.6) > 0.5
  const distance = distancesFromRails(description, shown, plusSide)
  const nodes = description.nodes.filter((node) => kept.has(node.id) && distance.has(node.id))
  const deepest = (plus: boolean): number =>
    Math.max(0, ...nodes.filter((node) => plusSide(node.id) === plus).map((node) => distance.get(node.id) ?? 0))
  const columnsLeft = deepest(true) + 1
  const columnCount = columnsLeft + deepest(false) + 1
  const column = (id: string): number =>
    plusSide(id) ? (distance.get(id) ?? 0) : columnCount - 1 - (distance.get(id) ?? 0)
  const rows = rowsOf(description, nodes, shown, column, distance)
  const bypasses = shown.filter(
    (component) => isBypass(component) || Math.abs(column(component.from) - column(component.to)) > 1,
  )
  const row = Math.max(...rows.values()) + 1 > MANY_ROWS ? NARROW_ROW : WIDE_ROW
  // Bypasses go over and under the rest in turn.
  const upper = Math.ceil(bypasses.length / 2) * LANE
  const lower = Math.floor(bypasses.length / 2) * LANE
  const bottom = TOP + upper + (Math.max(...rows.values()) + 1) * row
  const at = (id: string) => ({ x: 40 + column(id) * COLUMN, y: TOP + upper + (rows.get(id) ?? 0) * row + row / 2 })
  const axles = axleNumbers(description)
  // Three lines of name need room over the point.
  const alone = (node: CircuitNode): boolean =>
    !axles.has(node.id) &&
    nodes.every(
      (other) =>
        other === node ||
        column(other.id) !== column(node.id) ||
        Math.abs((rows.get(other.id) ?? 0) - (rows.get(node.id) ?? 0)) > 1.2,
    )
  const isRail = (id: string): boolean => id === description.rails.plus || id === description.rails.minus

  return {
    width: 80 + (columnCount - 1) * COLUMN,
    height: bottom + lower + 24,
    nodes: nodes.map((node) => ({
      id: node.id,
      name: node.name,
      ...at(node.id),
      rail: isRail(node.id),
      axle: axles.get(node.id) ?? null,
      label: alone(node) ? linesOf(node.name) : [],
    })),
    components: shown
      .filter((component) => distance.has(component.from) && distance.has(component.to))
      .map((component) => {
        const lane = bypasses.indexOf(component)
        const away = Math.floor(lane / 2) * LANE
        return draw(
          component,
          at,
          isRail,
          lane < 0 ? null : lane % 2 === 0 ? TOP + upper - 14 - away : bottom + 20 + away,
        )
      }),
    columns: columnNames(nodes, column, columnCount).map((name, index, names) => ({
      x: 40 + index * COLUMN,
      name: name === names[index - 1] ? '' : name,
    })),
  }
}

/** A name in at most three lines short enough for a column; whose it is shows from where it stands. */
function linesOf(name: string): string[] {
  const lines: string[] = []
  for (const word of name.replace(/ of the .*$/, '').split(' ')) {
    const last = lines.at(-1)
    if (last !== undefined && last.length + word.length < 13) lines[lines.length - 1] = `${last} ${word}`
    else lines.push(word)
  }
  return lines.slice(0, 3)
}

/** A lamp, relay or suppressor beside the motor goes round it, over or under the rest. */
function isBypass(component: CircuitComponent): boolean {
  return (
    component.lamp !== null ||
    ['relay', 'capacitor', 'insulation'].includes(component.kind) ||
    (component.kind === 'decoder' && component.closedIn === null)
  )
}

function withoutDeadEnds(description: EngineDescription, leading: readonly CircuitComponent[]): Set<string> {
  const kept = new Set(description.nodes.map((node) => node.id))
  for (let pruned = true; pruned;) {
    pruned = false
    for (const id of kept) {
      if (id === description.rails.plus || id === description.rails.minus) continue
      const neighbours = new Set(
        leading
          .filter(({ from, to }) => (from === id && kept.has(to)) || (to === id && kept.has(from)))
          .map(({ from, to }) => (from === id ? to : from)),
      )
      if (neighbours.size < 2) {
        kept.delete(id)
        pruned = true
      }
    }
  }
  return kept
}

function distancesFromRails(
  description: EngineDescription,
  shown: readonly CircuitComponent[],
  plusSide: (id: string) => boolean,
): Map<string, number> {
  const distance = new Map<string, number>()
  for (const start of [description.rails.plus, description.rails.minus]) {
    distance.set(start, 0)
    const queue = [start]
    for (let id = queue.shift(); id !== undefined; id = queue.shift()) {
      for (const component of shown) {
        const other = component.from === id ? component.to : component.to === id ? component.from : null
        if (other === null || distance.has(other) || plusSide(other) !== plusSide(start) || isBypass(component))
          continue
        distance.set(other, (distance.get(id) ?? 0) + 1)
        queue.push(other)
      }
    }
  }
  // What hangs only beside a lamp or relay stands where that ends.
  for (const component of shown) {
    for (const [known, other] of [
      [component.from, component.to],
      [component.to, component.from],
    ] as const) {
      if (distance.has(known) && !distance.has(other))
        distance.set(other, (distance.get(known) ?? 0) + (plusSide(known) === plusSide(other) ? 1 : 0))
    }
  }
  return distance
}

function axleNumbers(description: EngineDescription): Map<string, number> {
  const found = new Map<string, number>()
  let counted = 0
  for (const unit of description.units) {
    const sorted = description.wheelSets
      .filter((wheelSet) => wheelSet.unit === unit.id)
      .sort((first, second) => first.xMm - second.xMm)
    for (const wheelSet of sorted) {
      counted += 1
      for (const wheel of [wheelSet.left, wheelSet.right]) {
        const tread = description.components.find((component) => component.id === wheel.tread)
        if (tread) found.set(tread.to, counted)
      }
    }
  }
  return found
}

/** Wheels from the front down; everything else beside what feeds it, pushed apart where it would lie on another. */
function rowsOf(
  description: EngineDescription,
  nodes: readonly CircuitNode[],
  shown: readonly CircuitComponent[],
  column: (id: string) => number,
  distance: ReadonlyMap<string, number>,
): Map<string, number> {
  const rows = new Map<string, number>()
  const axles = axleNumbers(description)
  const ofColumn = new Map<number, CircuitNode[]>()
  for (const node of nodes) {
    if (node.id === description.rails.plus || node.id === description.rails.minus) continue
    const list = ofColumn.get(column(node.id)) ?? []
    list.push(node)
    ofColumn.set(column(node.id), list)
  }
  const tallest = Math.max(1, ...[...ofColumn.values()].map((list) => list.length))
  rows.set(description.rails.plus, (tallest - 1) / 2)
  rows.set(description.rails.minus, (tallest - 1) / 2)
  const byDistance = [...ofColumn.entries()].sort(
    ([, first], [, second]) => (distance.get(first[0]?.id ?? '') ?? 0) - (distance.get(second[0]?.id ?? '') ?? 0),
  )
  for (const [, list] of byDistance) {
    const wanted = list
      .map((node) => {
        const feeders = shown
          .flatMap(({ from, to }) => (from === node.id ? [to] : to === node.id ? [from] : []))
          .filter((other) => rows.has(other) && (distance.get(other) ?? 0) < (distance.get(node.id) ?? 0))
        const mean =
          feeders.length > 0
            ? feeders.reduce((sum, other) => sum + (rows.get(other) ?? 0), 0) / feeders.length
            : (tallest - 1) / 2
        return { node, order: axles.get(node.id) ?? mean, mean }
      })
      .sort((first, second) => first.order - second.order)
    if (wanted.some(({ node }) => axles.has(node.id))) {
      const start = (tallest - wanted.length) / 2
      for (const [index, { node }] of wanted.entries()) rows.set(node.id, start + index)
      continue
    }
    let previous = -1
    const placed = wanted.map(({ node, mean }) => {
      const row = Math.max(mean, previous + 1)
      previous = row
      return { node, row }
    })
    const over = Math.max(0, (placed.at(-1)?.row ?? 0) - (tallest - 1))
    for (const { node, row } of placed) rows.set(node.id, row - over)
  }
  return rows
}

const stageWords: Readonly<Record<CircuitNode['stage'], string>> = {
  rail: '',
  tread: 'Wheels',
  wheel: 'Axles',
  pickup: 'Pickup',
  lead: 'Leads',
  board: 'Board',
  'motor-lead': 'Terminal',
  brush: 'Brush',
  commutator: 'Commutator',
  auxiliary: 'Beside',
}

function columnNames(nodes: readonly CircuitNode[], column: (id: string) => number, count: number): string[] {
  return Array.from({ length: count }, (_, index) => {
    const stagesHere = nodes.filter((node) => column(node.id) === index).map((node) => node.stage)
    const most = [...new Set(stagesHere)].sort(
      (first, second) =>
        stagesHere.filter((stage) => stage === second).length - stagesHere.filter((stage) => stage === first).length,
    )[0]
    return most ? stageWords[most] : ''
  })
}

function draw(
  component: CircuitComponent,
  at: (id: string) => { x: number; y: number },
  isRail: (id: string) => boolean,
  lane: number | null,
): DrawnComponent {
  const [first, second] = [at(component.from), at(component.to)]
  // A rail is a tall bar: what touches it does so at its own height.
  const from = isRail(component.from) ? { x: first.x, y: second.y } : first
  const to = isRail(component.to) ? { x: second.x, y: first.y } : second
  if (lane !== null) {
    const middle = (from.x + to.x) / 2
    return {
      component,
      x: middle,
      y: lane,
      path: `M${from.x},${from.y} C${from.x},${lane} ${from.x},${lane} ${(from.x + middle) / 2},${lane} L${(to.x + middle) / 2},${lane} C${to.x},${lane} ${to.x},${lane} ${to.x},${to.y}`,
    }
  }
  const middle = (from.x + to.x) / 2
  if (Math.abs(from.x - to.x) < 1) {
    const bulge = from.x + COLUMN * 0.32
    return {
      component,
      x: from.x + COLUMN * 0.24,
      y: (from.y + to.y) / 2,
      path: `M${from.x},${from.y} C${bulge},${from.y} ${bulge},${to.y} ${to.x},${to.y}`,
    }
  }
  return {
    component,
    x: middle,
    y: (from.y + to.y) / 2,
    path: `M${from.x},${from.y} C${middle},${from.y} ${middle},${to.y} ${to.x},${to.y}`,
  }
}
