import type { Hazard, Replaceability } from '../core/engine/description-schema'

/** The caution at the step, with its reason. Common practice. */
export const hazardWords: Readonly<Record<Hazard, string>> = {
  'flies-away': 'It flies: a finger or a bag over it, cloth underneath.',
  eyes: 'Glasses on.',
  brittle: 'Brittle with age: warm it, do not lever.',
  'hot-iron': 'Iron hot first; draw the fumes off, wash your hands after leaded solder.',
  'strong-magnet': 'Strong magnet: away from pacemakers, fingers out from between.',
  sharp: 'Sharp edges.',
  'small-parts': 'Small: over the tray, never over the floor; not where children are.',
}

export const replaceabilityWords: Readonly<Record<Replaceability, string>> = {
  'scrap-box': 'in the scrap box',
  easy: 'easily had',
  order: 'on order',
  rare: 'rare',
  none: 'not to be had',
}
