/** One side of the play: what turns together without any. Inertia in kg·m², torque in N·m, both as the motor shaft feels them. */
export interface TurningMass {
  readonly inertia: number
  readonly coulomb: number
  readonly viscous: number
}

/** Flank of the teeth the motor leans on: it pushes the train forward, backward, or crosses the play between. */
type Flank = 1 | -1 | 0

/**
 * Motor and train with play between their teeth. Within the play each turns by itself; where flank meets flank they go
 * on at one speed and what their meeting takes is lost (an inelastic blow: momentum stays, energy does not); they part
 * again as soon as the train would have to be pulled, for a tooth can only push.
 */
export class GearedLoad {
  /** rad and rad/s of the motor shaft. */
  angle: number
  speed = 0
  /** rad/s of the train, as the motor shaft would turn with it. */
  trainSpeed = 0
  /** J turned to heat by friction and by the blows of the teeth. */
  frictionJoules = 0
  private flank: Flank = 1
  /** How far the motor is ahead of the flank that pushes backward, rad of the motor; the play where it pushes forward. */
  private ahead: number

  /**
   * @param train null where the motor drives nothing
   * @param play rad at the motor shaft
   */
  constructor(
    private readonly motor: TurningMass,
    private readonly train: TurningMass | null,
    private readonly play: number,
    startAngle: number,
  ) {
    this.angle = startAngle
    this.ahead = play
  }

  /** A hand holds the shaft: everything stands. */
  holdAt(angle: number): void {
    this.angle = angle
    this.speed = 0
    this.trainSpeed = 0
  }

  /**
   * @param torque of the motor, N·m, signed
   * @param trainDrag dry friction of the train on top of its own at this angle, N·m
   * @param dt s
   */
  step(torque: number, trainDrag: number, dt: number): void {
    const { motor, train } = this
    if (!train) {
      this.speed = this.slowed(this.speed, torque, motor.coulomb, motor.viscous, motor.inertia, dt)
      this.angle += this.speed * dt
      return
    }
    const load = { ...train, coulomb: train.coulomb + trainDrag }
    if (this.flank !== 0 && this.pushes(torque, load)) {
      this.speed = this.slowed(
        this.speed,
        torque,
        motor.coulomb + load.coulomb,
        motor.viscous + load.viscous,
        motor.inertia + load.inertia,
        dt,
      )
      this.trainSpeed = this.speed
      this.angle += this.speed * dt
      return
    }
    this.flank = 0
    this.speed = this.slowed(this.speed, torque, motor.coulomb, motor.viscous, motor.inertia, dt)
    this.trainSpeed = this.slowed(this.trainSpeed, 0, load.coulomb, load.viscous, load.inertia, dt)
    this.angle += this.speed * dt
    this.ahead += (this.speed - this.trainSpeed) * dt
    if (this.ahead >= this.play) this.meet(1, load)
    else if (this.ahead <= 0) this.meet(-1, load)
  }

  /** Whether what the train asks for, moving with the motor, is a push of the flank they touch at. */
  private pushes(torque: number, load: TurningMass): boolean {
    const { motor, flank, speed } = this
    if (speed === 0) return Math.abs(torque) <= motor.coulomb || Math.sign(torque) === flank
    const way = Math.sign(speed)
    const acceleration =
      (torque - way * (motor.coulomb + load.coulomb) - (motor.viscous + load.viscous) * speed) /
      (motor.inertia + load.inertia)
    return (load.inertia * acceleration + way * load.coulomb + load.viscous * speed) * flank >= 0
  }

  private meet(flank: 1 | -1, load: TurningMass): void {
    const { motor } = this
    this.flank = flank
    this.ahead = flank === 1 ? this.play : 0
    const common = (motor.inertia * this.speed + load.inertia * this.trainSpeed) / (motor.inertia + load.inertia)
    this.frictionJoules +=
      0.5 *
      (motor.inertia * this.speed ** 2 +
        load.inertia * this.trainSpeed ** 2 -
        (motor.inertia + load.inertia) * common ** 2)
    this.speed = common
    this.trainSpeed = common
  }

  /** Implicit in the part that grows with speed; dry friction stops it, it does not turn it back. */
  private slowed(
    before: number,
    torque: number,
    coulomb: number,
    viscous: number,
    inertia: number,
    dt: number,
  ): number {
    if (before === 0 && Math.abs(torque) <= coulomb) return 0
    const way = before !== 0 ? Math.sign(before) : Math.sign(torque)
    const next = (before + ((torque - way * coulomb) / inertia) * dt) / (1 + (viscous / inertia) * dt)
    const speed = Math.sign(next) === -way ? 0 : next
    this.frictionJoules += (coulomb + viscous * Math.abs(speed)) * Math.abs(speed) * dt
    return speed
  }
}
