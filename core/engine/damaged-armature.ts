/** What can be wrong with one coil of an armature, or with the gap between its two segments. */
export type ArmatureDefect =
  | { readonly kind: 'coil-open' }
  /** Share of its turns that are; all but the last of them where nothing is said. */
  | { readonly kind: 'coil-shorted'; readonly share?: number }
  | { readonly kind: 'gap-bridged'; readonly ohms: number }

/** One stretch of the turn over which both brushes stay on the same segments, against a sound armature's mean over the turn. */
export interface ArmatureStretch {
  readonly conductanceTimes: number
  /** Torque at rest for one volt. */
  readonly torqueTimes: number
}

/**
 * An armature with a defect as a meter and a supply meet it, all against the sound one. Turning, it is a sound but
 * other motor with a resistor beside it: the motor carries what makes torque, the resistor what only makes heat.
 */
export interface DamagedArmature {
  readonly conductanceTimes: number
  readonly backEmfTimes: number
  /** Conductance of the resistor beside it, in times the motor's. */
  readonly leakTimes: number
  readonly stretches: readonly ArmatureStretch[]
  /** Share of the turn over which an ohmmeter reads clearly less, and what it reads elsewhere. */
  readonly shortedShare: number
  readonly ohmsTimes: number
}

/** Of a coil's own resistance, what is left of it between the ends of a shorted one: judged. */
const SHORTED_COIL_SHARE = 0.02
/** An ohmmeter's reading is clearly low below this share of the usual one. */
const CLEARLY_LOW = 0.6

interface Stretch {
  readonly siemens: number
  readonly torque: number
  readonly damping: number
}

/**
 * A ring of equal coils, each between neighbouring segments of the commutator, with two brushes opposite each other
 * and a field that goes as the sine round the turn. Derived: at every stretch two paths lie in parallel between the
 * brushes; current and torque are linear in volts and speed (i = G0·v − G1·ω, T = G1·v − G2·ω), and so are their means
 * over the turn. A motor of conductance g and constant K with a conductance l beside it has G0 = g + l, G1 = g·K,
 * G2 = g·K², which gives the three figures. What a sound armature loses by its own ripple is left out on both sides.
 *
 * @param segments of the commutator
 * @param meanOhms of the sound armature
 * @param defect of one coil or gap
 */
export function damagedArmature(segments: number, meanOhms: number, defect: ArmatureDefect): DamagedArmature {
  const sound = stretchesOf(segments, null)
  const [soundSiemens, soundTorque, soundDamping] = meansOf(sound)
  // One coil is one ohm above; the sound ring says how many ohms that is here.
  const coilOhms = meanOhms * soundSiemens
  const found = stretchesOf(
    segments,
    defect.kind === 'gap-bridged' ? { kind: defect.kind, ohms: defect.ohms / coilOhms } : defect,
  )
  const [siemens, torque, damping] = meansOf(found)
  const ripple = (soundSiemens * soundDamping) / soundTorque ** 2
  const motorSiemens = (ripple * torque ** 2) / damping
  const low = (stretch: Stretch): boolean => soundSiemens / stretch.siemens < CLEARLY_LOW
  const others = found
    .filter((stretch) => !low(stretch))
    .map((stretch) => soundSiemens / stretch.siemens)
    .sort((first, second) => first - second)
  return {
    conductanceTimes: motorSiemens / soundSiemens,
    backEmfTimes: torque / motorSiemens / (soundTorque / soundSiemens),
    leakTimes: Math.max(0, siemens / motorSiemens - 1),
    stretches: found.map((stretch) => ({
      conductanceTimes: stretch.siemens / soundSiemens,
      torqueTimes: stretch.torque / soundTorque,
    })),
    shortedShare: found.filter(low).length / found.length,
    ohmsTimes: others[others.length >> 1] ?? 1,
  }
}

/** Coils of one ohm and a field of one: G0, G1 and G2 of every stretch of the turn. */
function stretchesOf(segments: number, defect: ArmatureDefect | null): Stretch[] {
  return Array.from({ length: 2 * segments }, (_, stretch) => {
    const axis = (Math.PI * (stretch + 0.5)) / segments
    const under = (angle: number): number => Math.round((angle * segments) / (2 * Math.PI)) % segments
    const [plus, minus] = [under(axis), under(axis + Math.PI)]
    const one = { ohms: 0, emf: 0 }
    const other = { ohms: 0, emf: 0 }
    let braking = 0
    for (let coil = 0; coil < segments; coil++) {
      const onOne = (coil - plus + segments) % segments < (minus - plus + segments) % segments
      const path = onOne ? one : other
      const made = Math.sin((2 * Math.PI * (coil + 0.5)) / segments - axis) * (onOne ? 1 : -1)
      const { ohms, emf, brake } = coil === 0 ? branchOf(defect, made) : branchOf(null, made)
      path.ohms += ohms
      path.emf += emf
      braking += brake
    }
    return {
      siemens: 1 / one.ohms + 1 / other.ohms,
      torque: one.emf / one.ohms + other.emf / other.ohms,
      damping: one.emf ** 2 / one.ohms + other.emf ** 2 / other.ohms + braking,
    }
  })
}

/** A coil with what lies across it, as one source seen from its two segments; what goes round inside brakes. */
function branchOf(
  defect: ArmatureDefect | null,
  emf: number,
): { readonly ohms: number; readonly emf: number; readonly brake: number } {
  switch (defect?.kind) {
    case undefined:
      return { ohms: 1, emf, brake: 0 }
    case 'coil-open':
      return { ohms: Number.POSITIVE_INFINITY, emf: 0, brake: 0 }
    case 'coil-shorted': {
      const { share = 1 } = defect
      // The turns that are left carry on; those that are shorted make a current of their own, which brakes.
      return {
        ohms: Math.max(SHORTED_COIL_SHARE, 1 - share),
        emf: (1 - share) * emf,
        brake: share * emf ** 2,
      }
    }
    case 'gap-bridged':
      return {
        ohms: defect.ohms / (1 + defect.ohms),
        emf: (emf * defect.ohms) / (1 + defect.ohms),
        brake: emf ** 2 / (1 + defect.ohms),
      }
  }
}

function meansOf(stretches: readonly Stretch[]): [siemens: number, torque: number, damping: number] {
  const mean = (of: (stretch: Stretch) => number): number =>
    stretches.reduce((sum, stretch) => sum + of(stretch), 0) / stretches.length
  return [mean((stretch) => stretch.siemens), mean((stretch) => stretch.torque), mean((stretch) => stretch.damping)]
}
