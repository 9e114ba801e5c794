import type { ComponentState } from '../../core/engine/description-schema'

/** What is wrong with a casualty, part by part, in physical terms. It knows nothing of how a fault is looked for. */
export type CasualtyFault =
  /** A circuit component of the description in a state. */
  | { readonly kind: 'component'; readonly component: string; readonly state: Exclude<ComponentState, 'good'> }
  | { readonly kind: 'open-coil'; readonly motor: string; readonly coil: number }
  | { readonly kind: 'shorted-coil'; readonly motor: string; readonly coil: number }
  | { readonly kind: 'carbon-bridge'; readonly motor: string; readonly gap: number; readonly ohms: number }
  | { readonly kind: 'brush-shift'; readonly motor: string; readonly radians: number }
  /** Magnet strength against a sound one; negative when it is turned. */
  | { readonly kind: 'magnet'; readonly motor: string; readonly strength: number }
  /** Bearings without oil: dry friction times a factor. */
  | { readonly kind: 'dry-bearing'; readonly motor: string; readonly factor: number }
  /** Worn bearings: the armature lies nearer one pole, which pulls it over; dry friction so much with a sound magnet, N·m, growing with the square of its strength. */
  | { readonly kind: 'worn-bearing'; readonly motor: string; readonly torque: number }
  /** Old grease: friction that grows with speed, times a factor, and dry friction with it. */
  | { readonly kind: 'hard-grease'; readonly motor: string; readonly factor: number }
  /** Extra drag, N·m at the motor, only while the part stands within a sector of its turn. */
  | {
      readonly kind: 'tight-spot'
      readonly rotor: string
      readonly torque: number
      readonly at: number
      readonly width: number
    }
  /** Something rubs all the way round: extra dry friction at the motor, N·m. */
  | { readonly kind: 'rubbing'; readonly motor: string; readonly torque: number }
  /** A link that slips: a split muff, a gear loose on its shaft. The motor is relieved of what lies behind it. */
  | { readonly kind: 'slipping-link'; readonly link: string }
  /** Something refitted the other way round, by the turnable's id. */
  | { readonly kind: 'turned'; readonly turnable: string }
  /** A sequence switch with a dirty or worn drum: shares of the interruptions that move it not at all, or two steps, and V that pull it in. */
  | {
      readonly kind: 'sticky-switch'
      readonly missedShare: number
      readonly doubledShare: number
      readonly pullInVolts: number
    }
  /** A relay out of adjustment or with a tired spring: V across its coil that pull it in and that it lets go at, by its switch's id. */
  | { readonly kind: 'sticky-relay'; readonly relay: string; readonly pullInVolts: number; readonly letGoVolts: number }
  /** A contact that fails by chance: share of the time it is broken, and how long a break lasts on average, s. */
  | { readonly kind: 'film'; readonly component: string; readonly brokenShare: number; readonly seconds: number }
  /** A dirty patch on one wheel's tread, rad of its turn. */
  | { readonly kind: 'dirty-patch'; readonly component: string; readonly at: number; readonly width: number }
