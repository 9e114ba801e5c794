import type { Access, EngineDescription } from './description-schema'

type LeadsTo = NonNullable<Access['leadsTo']>

/**
 * The way to a place tests and remedies ask for.
 *
 * @param motor whose; null for what is of no motor
 * @example accessTo(describeConstruction('tank-can'), 'terminals', 'motor')?.name // 'Terminals of the can motor'
 */
export function accessTo(
  { accesses }: EngineDescription,
  to: LeadsTo['to'],
  motor: LeadsTo['motor'],
): Access | undefined {
  return accesses.find(({ leadsTo }) => leadsTo?.to === to && leadsTo.motor === motor)
}
