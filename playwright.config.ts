import { defineConfig } from '@playwright/test'
import { NO_GPU_ARGS } from './scripts/chromium.mjs'

const PORT = 4690

export default defineConfig({
  testDir: 'tests/e2e',
  outputDir: 'test-results',
  globalSetup: './tests/support/makeRecordings.ts',
  // Two files of tests at a time: much of a test is waiting. Nothing in them is measured by the clock; `npm run
  // bench` does that.
  workers: 2,
  // Two renders at a time can starve a third thing; what needs a second try is told of as flaky, and is to be looked
  // into.
  retries: 1,
  timeout: 240_000,
  expect: { timeout: 20_000 },
  reporter: [['list']],
  use: {
    baseURL: `http://localhost:${PORT}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: { executablePath: '/usr/bin/chromium', args: NO_GPU_ARGS },
    // A recording of every action takes as much of two cores as the tests themselves: ask for one with --trace on.
    trace: 'off',
    screenshot: 'only-on-failure',
  },
  webServer: {
    command: `npx next start -p ${PORT} -H localhost`,
    url: `http://localhost:${PORT}`,
    reuseExistingServer: !process.env.CI,
    env: { NEXT_TELEMETRY_DISABLED: '1' },
  },
})
