import { readdirSync, readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { compileFunction } from 'node:vm'
import { expect, it } from 'vitest'

/** What stands behind `@example` in the docstrings of core, messages and work: an expression, `//`, and what it gives. */
const rooms = ['core', 'messages', 'work']

function filesOf(folder: string): string[] {
  return readdirSync(folder).flatMap((name) => {
    const path = join(folder, name)
    if (statSync(path).isDirectory()) return name === 'generated' ? [] : filesOf(path)
    return /\.ts$/.test(name) && !/\.test/.test(name) ? [path] : []
  })
}

interface Example {
  readonly file: string
  readonly expression: string
  readonly gives: string
}

function examplesOf(file: string): Example[] {
  return [...readFileSync(file, 'utf8').matchAll(/@example((?:(?!\*\/|\n\s*\* @)[\s\S])*)/g)].flatMap(
    ([, text = '']) => {
      const lines = text.split('\n').map((line) => line.replace(/^\s*\*( |$)/, ''))
      // Several may stand below one another, each closed by what it gives.
      return lines
        .join('\n')
        .split(/(?<=\/\/ [^\n]*)\n/)
        .filter((part) => part.trim() !== '')
        .map((part) => {
          const [expression = '', gives = ''] = part.split(/\/\/ (?=[^\n]*$)/)
          return { file, expression: expression.trim(), gives: gives.trim() }
        })
    },
  )
}

/** Figures to the digits that are written, objects by the fields that are named. */
function asWritten(value: unknown, written: unknown): unknown {
  if (typeof value === 'number' && typeof written === 'number')
    return Math.abs(value - written) <= 0.002 * Math.abs(written) ? written : value
  if (Array.isArray(value) && Array.isArray(written))
    return value.map((entry, index) => asWritten(entry, written[index]))
  if (value === null || written === null || typeof value !== 'object' || typeof written !== 'object') return value
  return Object.fromEntries(
    Object.entries(value)
      .filter(([key]) => key in written)
      .map(([key, entry]) => [key, asWritten(entry, (written as Record<string, unknown>)[key])]),
  )
}

it('every example in a docstring gives what is written beside it', async () => {
  const files = rooms.flatMap(filesOf)
  const examples = files.flatMap(examplesOf)
  expect(examples.length).toBeGreaterThan(100)
  const known: Record<string, unknown> = {}
  for (const file of files.filter((path) => path.startsWith('core/')))
    Object.assign(known, await import(/* @vite-ignore */ join(process.cwd(), file)))
  const wrong: string[] = []
  for (const { file, expression, gives } of examples) {
    const scope = { ...known, ...(await import(/* @vite-ignore */ join(process.cwd(), file))) }
    const evaluate = (text: string): unknown =>
      compileFunction(`return (${text})`, Object.keys(scope))(...Object.values(scope)) as unknown
    try {
      const written = evaluate(gives)
      expect(asWritten(evaluate(expression), written)).toEqual(written)
    } catch (error) {
      wrong.push(`${file}: ${expression} // ${gives}\n${error instanceof Error ? error.message : String(error)}`)
    }
  }
  expect(wrong).toEqual([])
})
