import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { killRounds } from './kill-rounds'

/** `npm run kills [TIMES]`: each part of the shop killed so many times amid writes, on a real disk. */
const times = Number(process.argv[2] ?? 20)
const folder = mkdtempSync(join(tmpdir(), 'ech-kills-'))
const began = Date.now()
const { acknowledged, lost, doubled } = await killRounds(
  join(folder, 'shop'),
  { application: times, database: times, launcher: times },
  (line) => console.log(line),
)
rmSync(folder, { recursive: true, force: true })
console.log(
  `${3 * times} kills in ${((Date.now() - began) / 1000).toFixed(0)} s: ${acknowledged} writes acknowledged, ${lost} lost, ${doubled} doubled`,
)
process.exit(lost + doubled === 0 ? 0 : 1)
