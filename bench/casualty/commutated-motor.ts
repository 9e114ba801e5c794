/** How an armature is wound and what may be wrong with it. SI units. */
export interface ArmatureBuild {
  readonly segments: number
  readonly connection: 'ring' | 'star'
  /** Ω of the armature at 20 °C as a mean over the turn: volts held at over the mean current they drive. */
  readonly meanOhms: number
  /** V·s/rad between the brushes, averaged over a turn: per unit of flux. */
  readonly backEmf: number
  /** Inductance over resistance of one coil, s; shorter the more segments share the turns. */
  readonly coilSeconds: number
  /** Width of a brush as an angle, rad. */
  readonly brushWidth: number
  /** Ω of one brush fully on its segments. */
  readonly brushOhms: number
  /** How far the plus brush is off its place opposite the other, rad. */
  readonly brushShift: number
  readonly openCoil: number | null
  readonly shortedCoil: number | null
  /** Carbon across one gap of the commutator. */
  readonly bridge: { readonly gap: number; readonly ohms: number } | null
}

const SHORTED_COIL_SHARE = 0.02
const OPEN_SIEMENS = 1e-9
/** Steps of the turn over which means are taken. */
const MEAN_STEPS = 720
const COPPER_PER_KELVIN = 0.00393

/**
 * A brushed armature followed coil by coil: N segments, brushes of finite width that bridge them, coils with
 * resistance, inductance and the voltage their turning in the field makes. Each step is one implicit Euler solution
 * of its own small network, together with the supply as seen from its terminals.
 */
export class CommutatedMotor {
  /** A in each coil. */
  readonly coilAmps: Float64Array
  /** A from the plus to the minus brush. */
  amps = 0
  /** V between the brushes. */
  volts = 0
  /** N·m per unit of flux. */
  torquePerFlux = 0
  /** W turned to heat in the coils, and at the brushes and bridges. */
  coilWatts = 0
  brushWatts = 0
  private readonly coilOhms: number
  private readonly coilFlux: number
  private readonly order: number
  private readonly matrix: Float64Array
  private readonly right: Float64Array
  private readonly shape: Float64Array
  private readonly onPlus: Float64Array
  private readonly onMinus: Float64Array

  constructor(readonly build: ArmatureBuild) {
    const { segments, connection } = build
    this.coilAmps = new Float64Array(segments)
    this.shape = new Float64Array(segments)
    this.onPlus = new Float64Array(segments)
    this.onMinus = new Float64Array(segments)
    // Unknown: potentials of the segments, of the star point if there is one, and of the plus brush; minus is 0 V.
    this.order = segments + (connection === 'star' ? 1 : 0) + 1
    this.matrix = new Float64Array(this.order * this.order)
    this.right = new Float64Array(this.order)
    this.coilOhms = 1
    this.coilFlux = 1
    const sound = measured(build)
    this.coilOhms = (build.meanOhms - 2 * build.brushOhms) / sound.ohmsPerCoilOhm
    this.coilFlux = build.backEmf / sound.emfPerCoilFlux
  }

  /** Ohms of one coil at 20 °C, as wound. */
  get windingOhms(): number {
    return this.coilOhms
  }

  /**
   * One step of time.
   *
   * @param angle of the armature, rad
   * @param speed rad/s
   * @param flux of the field against a sound magnet, signed
   * @param source open-circuit volts at the terminals and inner ohms behind them
   * @param seconds length of the step; Infinity gives the steady state without inductance
   * @param kelvin of the winding above 20 °C
   * @returns amps through the terminals
   */
  step(
    angle: number,
    speed: number,
    flux: number,
    source: { volts: number; ohms: number },
    seconds: number,
    kelvin: number,
  ): number {
    const { segments, connection } = this.build
    const coilHenry = this.build.coilSeconds * this.coilOhms
    const { order, matrix, right, shape } = this
    matrix.fill(0)
    right.fill(0)
    const plus = order - 1
    const warm = 1 + COPPER_PER_KELVIN * kelvin
    const steady = !Number.isFinite(seconds)
    for (let coil = 0; coil < segments; coil++) {
      shape[coil] = this.coilFlux * coilShape(angle - (2 * Math.PI * coil) / segments)
      if (coil === this.build.openCoil) continue
      const emf = (shape[coil] as number) * speed * flux
      const inductive = steady ? 0 : coilHenry / seconds
      const shorted = coil === this.build.shortedCoil
      const siemens =
        1 / ((shorted ? this.coilOhms * SHORTED_COIL_SHARE : this.coilOhms * warm) + (shorted ? 0 : inductive))
      // i = g·(v_from − v_to − e + L/dt·i_before); a shorted coil makes no voltage between its ends.
      const driven = siemens * ((shorted ? 0 : -emf) + (shorted ? 0 : inductive * (this.coilAmps[coil] as number)))
      const from = coil
      const to = connection === 'star' ? segments : (coil + 1) % segments
      this.branch(from, to, siemens, driven)
    }
    const { bridge } = this.build
    if (bridge) this.branch(bridge.gap, (bridge.gap + 1) % segments, 1 / bridge.ohms, 0)
    for (let segment = 0; segment < segments; segment++) {
      const onPlus = (this.onPlus[segment] = brushShare(this.build, segment, angle, 0) / this.build.brushOhms)
      if (onPlus > 0) this.branch(segment, plus, onPlus, 0)
      const onMinus = (this.onMinus[segment] = brushShare(this.build, segment, angle, Math.PI) / this.build.brushOhms)
      matrix[segment * order + segment] = (matrix[segment * order + segment] as number) + onMinus + OPEN_SIEMENS
    }
    matrix[plus * order + plus] = (matrix[plus * order + plus] as number) + 1 / source.ohms
    if (connection === 'star')
      matrix[segments * order + segments] = (matrix[segments * order + segments] as number) + OPEN_SIEMENS
    right[plus] = (right[plus] as number) + source.volts / source.ohms
    solveInPlace(matrix, right, order)
    this.readBack(speed, flux, seconds, warm)
    this.brushWatts = this.lostAtBrushes()
    this.volts = right[plus] as number
    this.amps = (source.volts - this.volts) / source.ohms
    return this.amps
  }

  /** Adds a conductance between two unknowns with a driven current from the first to the second. */
  private branch(from: number, to: number, siemens: number, driven: number): void {
    const { order, matrix, right } = this
    matrix[from * order + from] = (matrix[from * order + from] as number) + siemens
    matrix[to * order + to] = (matrix[to * order + to] as number) + siemens
    matrix[from * order + to] = (matrix[from * order + to] as number) - siemens
    matrix[to * order + from] = (matrix[to * order + from] as number) - siemens
    right[from] = (right[from] as number) - driven
    right[to] = (right[to] as number) + driven
  }

  private readBack(speed: number, flux: number, seconds: number, warm: number): void {
    const { segments, connection, openCoil, shortedCoil } = this.build
    const coilHenry = this.build.coilSeconds * this.coilOhms
    const steady = !Number.isFinite(seconds)
    let torque = 0
    let heat = 0
    for (let coil = 0; coil < segments; coil++) {
      if (coil === openCoil) {
        this.coilAmps[coil] = 0
        continue
      }
      const to = connection === 'star' ? segments : (coil + 1) % segments
      const across = (this.right[coil] as number) - (this.right[to] as number)
      const made = this.shape[coil] as number
      if (coil === shortedCoil) {
        // Its own loop brakes: what it makes drives a current round inside it.
        const loop = (-made * speed * flux) / (this.coilOhms * warm)
        torque += loop * made
        this.coilAmps[coil] = across / (this.coilOhms * SHORTED_COIL_SHARE)
        heat += loop ** 2 * this.coilOhms * warm + (this.coilAmps[coil] as number) * across
        continue
      }
      const inductive = steady ? 0 : coilHenry / seconds
      this.coilAmps[coil] =
        (across - made * speed * flux + inductive * (this.coilAmps[coil] as number)) /
        (this.coilOhms * warm + inductive)
      torque += (this.coilAmps[coil] as number) * made
      heat += (this.coilAmps[coil] as number) ** 2 * this.coilOhms * warm
    }
    this.torquePerFlux = torque
    this.coilWatts = heat
  }

  private lostAtBrushes(): number {
    const { segments, bridge } = this.build
    const plus = this.right[this.order - 1] as number
    let watts = 0
    for (let segment = 0; segment < segments; segment++) {
      const volts = this.right[segment] as number
      watts += (volts - plus) ** 2 * (this.onPlus[segment] as number) + volts ** 2 * (this.onMinus[segment] as number)
    }
    if (bridge)
      watts +=
        ((this.right[bridge.gap] as number) - (this.right[(bridge.gap + 1) % segments] as number)) ** 2 / bridge.ohms
    return watts
  }
}

/** Half the gap between the pole tips, where a coil makes no voltage while it is commutated, as a sine. */
const NEUTRAL_ZONE = 0.13
const POLE_RISE = 1.6

/** The field a coil turns through: nothing between the pole tips, flat under the poles, reversing from one to the other. */
export function coilShape(angle: number): number {
  const sine = Math.sin(angle)
  const under = (Math.abs(sine) - NEUTRAL_ZONE) / (1 - NEUTRAL_ZONE)
  return under <= 0 ? 0 : Math.sign(sine) * Math.min(1, POLE_RISE * under)
}

function wrapped(angle: number): number {
  const turn = 2 * Math.PI
  const within = ((angle % turn) + turn) % turn
  return within > Math.PI ? within - turn : within
}

/** Share of a brush that lies on a segment. */
function brushShare(build: ArmatureBuild, segment: number, angle: number, brush: number): number {
  const { segments, brushWidth, brushShift } = build
  const half = Math.PI / segments
  // The brush bridges a ring coil just where that coil lies between the poles; a star coil it feeds in the middle of one.
  const lead = build.connection === 'ring' ? Math.PI - half : Math.PI / 2
  const distance = wrapped(angle - (2 * Math.PI * segment) / segments - lead - brush - (brush === 0 ? brushShift : 0))
  const overlap = Math.min(distance + brushWidth / 2, half) - Math.max(distance - brushWidth / 2, -half)
  return Math.max(0, Math.min(1, overlap / brushWidth))
}

const known = new Map<string, { readonly ohmsPerCoilOhm: number; readonly emfPerCoilFlux: number }>()

/** An armature is wound the same whatever went wrong with it since: measured with its brushes in their place, once for each build. */
function measured(build: ArmatureBuild): { readonly ohmsPerCoilOhm: number; readonly emfPerCoilFlux: number } {
  const key = `${build.segments}/${build.connection}/${build.brushWidth}`
  const before = known.get(key)
  if (before) return before
  const sound = new Measure({ ...build, brushShift: 0 })
  const found = { ohmsPerCoilOhm: sound.meanOhmsPerCoilOhm(), emfPerCoilFlux: sound.meanEmfPerCoilFlux() }
  known.set(key, found)
  return found
}

/** What a sound armature of this build measures over a turn, for one ohm and one unit of flux a coil. */
class Measure {
  constructor(private readonly build: ArmatureBuild) {}

  meanOhmsPerCoilOhm(): number {
    return 1 / this.mean((angle) => 1 / this.terminal(angle, 0).ohms)
  }

  meanEmfPerCoilFlux(): number {
    return this.mean((angle) => this.terminal(angle, 1).emf)
  }

  private mean(at: (angle: number) => number): number {
    let sum = 0
    for (let step = 0; step < MEAN_STEPS; step++) sum += at((2 * Math.PI * (step + 0.5)) / MEAN_STEPS)
    return sum / MEAN_STEPS
  }

  /** Ω between the brushes and volts they stand at without a load, brushes taken as perfect. */
  private terminal(angle: number, speed: number): { ohms: number; emf: number } {
    const { segments, connection } = this.build
    const order = segments + (connection === 'star' ? 1 : 0) + 1
    const solve = (injected: number, turning: number): number => {
      const matrix = new Float64Array(order * order)
      const right = new Float64Array(order)
      const add = (row: number, column: number, value: number): void => {
        matrix[row * order + column] = (matrix[row * order + column] as number) + value
      }
      for (let coil = 0; coil < segments; coil++) {
        const emf = coilShape(angle - (2 * Math.PI * coil) / segments) * turning
        const to = connection === 'star' ? segments : (coil + 1) % segments
        add(coil, coil, 1)
        add(to, to, 1)
        add(coil, to, -1)
        add(to, coil, -1)
        right[coil] = (right[coil] as number) + emf
        right[to] = (right[to] as number) - emf
      }
      const tight = 1e5
      for (let segment = 0; segment < segments; segment++) {
        const onPlus = brushShare(this.build, segment, angle, 0) * tight
        add(segment, segment, onPlus + brushShare(this.build, segment, angle, Math.PI) * tight + OPEN_SIEMENS)
        add(order - 1, order - 1, onPlus)
        add(segment, order - 1, -onPlus)
        add(order - 1, segment, -onPlus)
      }
      if (connection === 'star') add(segments, segments, OPEN_SIEMENS)
      add(order - 1, order - 1, OPEN_SIEMENS)
      right[order - 1] = (right[order - 1] as number) + injected
      solveInPlace(matrix, right, order)
      return right[order - 1] as number
    }
    const emf = speed === 0 ? 0 : solve(0, speed)
    return { ohms: solve(1, 0), emf }
  }
}

/** Gauss elimination without pivoting: these matrices are symmetric and dominated by their diagonal. */
function solveInPlace(matrix: Float64Array, right: Float64Array, order: number): void {
  for (let pivot = 0; pivot < order; pivot++) {
    const inverse = 1 / (matrix[pivot * order + pivot] as number)
    for (let row = pivot + 1; row < order; row++) {
      const factor = (matrix[row * order + pivot] as number) * inverse
      if (factor === 0) continue
      for (let column = pivot; column < order; column++)
        matrix[row * order + column] =
          (matrix[row * order + column] as number) - factor * (matrix[pivot * order + column] as number)
      right[row] = (right[row] as number) - factor * (right[pivot] as number)
    }
  }
  for (let row = order - 1; row >= 0; row--) {
    let sum = right[row] as number
    for (let column = row + 1; column < order; column++)
      sum -= (matrix[row * order + column] as number) * (right[column] as number)
    right[row] = sum / (matrix[row * order + row] as number)
  }
}
