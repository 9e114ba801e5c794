import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'

/** Counts lines of code by room, and the share of tests: blank lines and lines of comment alone do not count. */
const files = execFileSync('git', ['ls-files', '*.ts', '*.vue', '*.css', '*.mjs', 'bin/*', '*.sh'], {
  encoding: 'utf8',
})
  .trim()
  .split('\n')
const rooms = new Map<string, { code: number; tests: number }>()
for (const file of files) {
  const lines = readFileSync(file, 'utf8')
    .split('\n')
    .filter((line) => line.trim() !== '' && !/^\s*(\/\/|\/?\*|#)/.test(line)).length
  const room = file.includes('/') ? file.slice(0, file.indexOf('/')) : 'root'
  const isTest = room === 'tests' || /\.test(-data)?\.ts$/.test(file)
  const count = rooms.get(room) ?? { code: 0, tests: 0 }
  count[isTest ? 'tests' : 'code'] += lines
  rooms.set(room, count)
}
const total = { code: 0, tests: 0 }
for (const [room, count] of [...rooms].sort()) {
  total.code += count.code
  total.tests += count.tests
  console.log(`${room.padEnd(12)} ${String(count.code).padStart(6)} code ${String(count.tests).padStart(6)} tests`)
}
console.log(
  `${'all'.padEnd(12)} ${String(total.code).padStart(6)} code ${String(total.tests).padStart(6)} tests, tests are ${((100 * total.tests) / (total.code + total.tests)).toFixed(0)} % of all`,
)
