import type { FormProblem } from '../messages/problem-sentences'

/**
 * What is wrong in one part of a message, by the names of its fields. What lies deeper (an entry of a list) has no
 * place of its own on the form and is named in its sentence.
 *
 * @example
 * problemsUnder([{ field: 'fields.units.1.name', message: '“name” is empty.', beside: 'This is empty.' }], 'fields')
 * // { 'units.1.name': 'Units, 2: “name” is empty.' }
 *
 * @param path of the part, for example `owner.made.fields`
 */
export function problemsUnder(problems: readonly FormProblem[], path: string): Record<string, string> {
  return Object.fromEntries(
    problems
      .filter(({ field }) => field.startsWith(`${path}.`))
      .map(({ field, message, beside }) => {
        const name = field.slice(path.length + 1)
        const [list = '', entry = '', ...deeper] = name.split('.')
        const inList = deeper.length > 0 && /^\d+$/.test(entry)
        const place = inList ? `${list[0]?.toUpperCase()}${list.slice(1)}, ${Number(entry) + 1}: ` : ''
        return [name, name.includes('.') ? `${place}${message}` : beside]
      }),
  )
}
