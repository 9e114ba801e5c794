import type { SeededRandom } from '../../bench/casualty/random'

/** Texts that have surprised somebody before: half characters, escapes, other tongues' letters, things that look like others. */
const TEXTS = [
  '',
  ' ',
  '\u200b',
  '\ud83d',
  'a\ud800b',
  '\u0000',
  '\u202Eabc',
  "'; drop table job; --",
  '<img src=x onerror=alert(1)>',
  '../../etc/passwd',
  '%00',
  '${7*7}',
  '{{7*7}}',
  'x'.repeat(70_000),
  '🧑‍🔧'.repeat(200),
  'NaN',
  '1e999',
  '0000-00-00',
  '2026-02-30',
  '9999-12-31T23:59:59Z',
  '__proto__',
  'constructor',
  'null',
  '\ufeff',
]
const NUMBERS = [0, -0, -1, 1, 0.5, 1e308, -1e308, 2 ** 31, 2 ** 32, 2 ** 53, -(2 ** 63), 1e-320, 999_999_999]
const OTHERS: readonly unknown[] = [
  null,
  true,
  false,
  [],
  {},
  [[]],
  [null],
  { length: 5 },
  { toString: 'x' },
  { $ne: null },
  { existing: null },
]
const KEYS = [
  '__proto__',
  'constructor',
  'prototype',
  'toJSON',
  '',
  'id',
  'version',
  'a'.repeat(5000),
  'expectedVersion',
  '\ud800',
]

type Draw = SeededRandom
const pick = <T>(random: Draw, from: readonly T[]): T => from[Math.floor(random.next() * from.length)] as T
const surprise = (random: Draw): unknown =>
  pick(
    random,
    [TEXTS, NUMBERS, OTHERS].flatMap((list) => [pick<unknown>(random, list)]),
  )

/** A message with one to three things about it changed, anywhere in it. */
export function mutateMessage(message: unknown, random: Draw): unknown {
  let changed = structuredClone(message)
  for (let times = 1 + Math.floor(random.next() * 3); times > 0; times--) changed = mutateSomewhere(changed, random)
  return changed
}

function mutateSomewhere(value: unknown, random: Draw): unknown {
  if (value === null || typeof value !== 'object' || random.next() < 0.12) return surprise(random)
  if (Array.isArray(value)) {
    if (value.length === 0 || random.next() < 0.2) return [...value, surprise(random)]
    const at = Math.floor(random.next() * value.length)
    return random.next() < 0.1
      ? Array.from({ length: 300 }, () => value[at] as unknown)
      : value.map((entry, index) => (index === at ? mutateSomewhere(entry, random) : entry))
  }
  const entries = Object.entries(value)
  const draw = random.next()
  if (draw < 0.12) return withKey(entries, pick(random, KEYS), surprise(random))
  if (entries.length === 0) return surprise(random)
  const at = Math.floor(random.next() * entries.length)
  if (draw < 0.2) return Object.fromEntries(entries.filter((_, index) => index !== at))
  return Object.fromEntries(
    entries.map(([key, entry], index) => [key, index === at ? mutateSomewhere(entry, random) : entry]),
  )
}

/** An own key, whatever it is called. */
function withKey(entries: ReadonlyArray<[string, unknown]>, key: string, value: unknown): object {
  const made: Record<string, unknown> = Object.fromEntries(entries)
  Object.defineProperty(made, key, { value, enumerable: true, configurable: true, writable: true })
  return made
}

/** The message as bytes, now and then broken on the way. */
export function brokenText(message: unknown, random: Draw): Buffer {
  const text = JSON.stringify(message) ?? 'undefined'
  const bytes = Buffer.from(text, 'utf8')
  const draw = random.next()
  if (draw < 0.85) return bytes
  if (draw < 0.88) return Buffer.concat([Buffer.from([0xef, 0xbb, 0xbf]), bytes])
  if (draw < 0.91)
    return Buffer.concat([bytes.subarray(0, Math.floor(bytes.length * random.next())), Buffer.from([0xc3, 0x28, 0xff])])
  if (draw < 0.94) return bytes.subarray(0, Math.floor(bytes.length * random.next()))
  if (draw < 0.97) return Buffer.from(`${'['.repeat(5000)}${text}`)
  return Buffer.from(text.replace(/"[^"]{3,}"/, '"\\ud83d"'))
}
