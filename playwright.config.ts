import { defineConfig } from '@playwright/test'
import { browserLaunch } from './tests/support/browser-launch'

// The simulated supply in a hurry: a sweep of half a minute in a second or two.
process.env.ECHOPPE_BENCH_PACE ??= '15'

/** Debian's Chromium against the built application on a throw-away MariaDB. */
export default defineConfig({
  testDir: 'tests/e2e',
  testMatch: '**/*.spec.ts',
  fullyParallel: false,
  workers: 2,
  retries: 0,
  forbidOnly: true,
  // Patience costs nothing while all goes well, and a machine that others use too stands still for seconds.
  timeout: 240_000,
  expect: { timeout: 30_000 },
  outputDir: 'test-results',
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    timezoneId: 'Europe/London',
    actionTimeout: 30_000,
    launchOptions: browserLaunch,
  },
})
