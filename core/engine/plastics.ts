import type { Material } from './description-schema'

/** Materials that solvents and petroleum may harm; what nobody knows is taken for one of them. */
export const plastics: ReadonlySet<Material> = new Set([
  'acetal',
  'nylon',
  'styrene',
  'abs',
  'polycarbonate',
  'phenolic-resin',
  'unknown-plastic',
  'unknown',
])
