import type { StationId } from '../messages/vocabulary'

/** The usual cautions, each at the station where it matters, short, with its reason. Common practice. */
export const cautions: Partial<Record<StationId, readonly string[]>> = {
  'first-run': [
    'A short trial is enough: a filthy machine leaves its dirt on clean track.',
    'Old controllers and transformers with perished leads or a metal case are not used: have them tested or replaced by a qualified person.',
  ],
  strip: [
    'Glasses on: brush springs, retaining clips and hairpin clips fly. Hold them with a clamp or a finger, cloth underneath.',
    'Let a machine that ran cool down a few minutes before opening it.',
    'Strong magnets: keep them from pacemakers, and fingers out from between.',
  ],
  clean: [
    'Solvents: a window open, no flame, nothing that sparks. Let it dry before power, since vapour burns at sparking brushes.',
    'Fibreglass splinters: work over a damp cloth and never blow. Nothing flammable in an ultrasonic bath.',
    'A leaked battery: gloves, neutralise, wipe dry.',
  ],
  mend: [
    'Soldering: draw the fumes off, mind the iron, wash your hands after leaded solder.',
    'Lead weights and old paint are not sanded. Discharge capacitors before touching them, and observe their polarity.',
  ],
  lubricate: ['No oil on commutator, brushes or tyres; no petroleum product on plastic.'],
  rebuild: ['Low voltage after each step: a step that stops it or raises the current is the step that is wrong.'],
}
