import { availableParallelism } from 'node:os'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const here = (path: string): string => fileURLToPath(new URL(path, import.meta.url))
const alias = { '~~': here('.'), '~': here('./app') }

export default defineConfig({
  resolve: { alias },
  test: {
    // Left to itself it leaves one core idle, which is half of a small machine.
    maxWorkers: Math.max(1, availableParallelism()),
    // No file leaves anything behind in a module; loading the knowledge anew for each is a quarter of the unit tests' time.
    isolate: false,
    projects: [
      {
        resolve: { alias },
        test: {
          name: 'unit',
          include: [
            '{core,bench,messages,work,app,launcher,demo}/**/*.test.ts',
            'tests/{recovery,diagnosis,support}/**/*.test.ts',
          ],
          environment: 'node',
          testTimeout: 120_000,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'server',
          include: ['tests/server/**/*.test.ts'],
          environment: 'node',
          globalSetup: ['tests/support/database-setup.ts'],
          fileParallelism: false,
          testTimeout: 120_000,
          hookTimeout: 120_000,
        },
      },
    ],
  },
})
