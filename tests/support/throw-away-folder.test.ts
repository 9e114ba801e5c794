import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { sweep, throwAwayFolder } from './throw-away-folder'

it('takes away what a process that is no more left behind, and nothing else', () => {
  const root = throwAwayFolder('sweep')
  const { pid } = spawnSync(process.execPath, ['--version'])
  const folders = [`ech-${pid}-shop-a`, `ech-${process.pid}-shop-b`, 'ech-shop-of-old', 'somebody-elses']
  for (const folder of folders) mkdirSync(join(root, folder, 'database'), { recursive: true })
  sweep(root)
  expect(folders.filter((folder) => existsSync(join(root, folder)))).toEqual(folders.slice(1))
  sweep(join(root, 'not there'))
  rmSync(root, { recursive: true })
})
