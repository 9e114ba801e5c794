import type { EngineDescription } from './description-schema'
import type { Difference, DifferenceKind } from './difference-schema'
import { inSentence } from './name-in-sentence'

/** What each kind of difference is called where one is chosen. */
export const differenceKinds: Readonly<Record<DifferenceKind, string>> = {
  motor: 'Another motor',
  'gear-ratio': 'Another ratio, motor to wheel',
  gear: 'Other teeth on one gear',
  wheels: 'Other wheels',
  tyre: 'Traction tyre fitted or gone',
  pickup: 'A wiper added',
  resistor: 'A resistor added in a lead',
  omitted: 'A part it never had, or has lost',
  weight: 'Weight added or taken out',
  material: 'Another material',
  fastened: 'A part held otherwise',
  covered: 'A part hidden under another',
  opened: 'A closed motor that opens',
  decoder: 'A decoder fitted',
}

/**
 * One difference in a sentence, with the names of the description it is applied to.
 *
 * @example
 * differenceInWords({ kind: 'gear-ratio', turns: 30 }, describeConstruction('tank-can'))
 * // '30 motor turns to one of the wheels'
 */
export function differenceInWords(difference: Difference, description: EngineDescription): string {
  const nameIn = (list: ReadonlyArray<{ id: string; name: string }>, id: string): string =>
    list.find((entry) => entry.id === id)?.name ?? `“${id}”`
  switch (difference.kind) {
    case 'motor':
      return `${difference.name} in place of the ${inSentence(nameIn(description.motors, difference.motor))}: ${difference.ohms} Ω, ${difference.segments} segments`
    case 'gear-ratio':
      return `${difference.turns} motor turns to one of the wheels`
    case 'gear':
      return `${nameIn(description.links, difference.link)}: ${difference.teethFrom} on ${difference.teethTo} teeth`
    case 'wheels':
      return `Wheels of ${difference.diameterMm} mm on ${difference.wheelSets.map((id) => inSentence(nameIn(description.wheelSets, id))).join(', ')}`
    case 'tyre':
      return `${difference.fitted ? 'A tyre' : 'No tyre'} on the ${inSentence(nameIn(description.wheelSets, difference.wheelSet))}, ${difference.side}`
    case 'pickup':
      return `A wiper added on the ${inSentence(nameIn(description.wheelSets, difference.wheelSet))}, ${difference.side}, to the ${inSentence(nameIn(description.nodes, difference.to))}`
    case 'resistor':
      return `${difference.name} of ${difference.ohms} Ω after the ${inSentence(nameIn(description.components, difference.component))}`
    case 'omitted':
      return `Without the ${inSentence(nameIn(description.parts, difference.part))}${difference.bridged ? ', bridged by a wire' : ''}`
    case 'weight':
      return `${difference.grams < 0 ? `${-difference.grams} g taken out` : `${difference.grams} g added`}, ${difference.place}`
    case 'material':
      return `${nameIn(description.parts, difference.part)} of ${difference.materials.map((material) => material.replaceAll('-', ' ')).join(' and ')}`
    case 'fastened':
      return `${nameIn(description.parts, difference.part)} held by ${inSentence(difference.heldBy)}`
    case 'covered':
      return `${difference.name} over the ${inSentence(nameIn(description.parts, difference.part))}, held by ${inSentence(difference.heldBy)}`
    case 'opened':
      return `${nameIn(description.motors, difference.motor)} opens: its end plate held by ${inSentence(difference.heldBy)}`
    case 'decoder':
      return 'A decoder between pickups and motor'
  }
}
