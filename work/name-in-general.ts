import type { PlaceRole } from '../core/knowledge/knowledge-schema'

/** Roles whose places are each a single thing, and one whose places are named by what was turned. */
const roleNames: Readonly<Partial<Record<PlaceRole, string>>> = {
  leads: 'lead',
  lamps: 'lamp',
  turnable: 'something put in the wrong way round',
}

/** The name of a fault or test where no engine says which place is meant. */
export function nameInGeneral({ name, role }: { readonly name: string; readonly role: PlaceRole }): string {
  return name.replace('{place}', roleNames[role] ?? role.replaceAll('-', ' '))
}
