import { rmSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { buildWhenChanged } from '../../launcher/build-when-changed'
import { killRounds } from '../kills/kill-rounds'
import { throwAwayFolder } from '../support/throw-away-folder'

const folder = throwAwayFolder('kills')
beforeAll(() => buildWhenChanged(process.cwd(), console.log), 240_000)
afterAll(() => rmSync(folder, { recursive: true, force: true }))

it('application, database and start command killed with -9 amid writes: each start gets through, nothing acknowledged is lost or doubled', async () => {
  const outcome = await killRounds(join(folder, 'shop'), { application: 1, database: 1, launcher: 2 }, () => {})
  expect(outcome).toMatchObject({ lost: 0, doubled: 0 })
  expect(outcome.acknowledged).toBeGreaterThan(60)
}, 120_000)
