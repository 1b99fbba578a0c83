import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { defineConfig } from '@playwright/test'
import { signedInFile } from './e2e/servers.ts'

// Named by the first process that reads this, and made when tests are prepared; those that it starts are told.
process.env.WARDOPTIC_E2E ??= join(tmpdir(), `wardoptic-e2e-${process.pid}`)

/** The interface in Debian's headless Chromium, over everything that `npm start` starts. */
export default defineConfig({
  testDir: 'e2e',
  globalSetup: './e2e/prepare.ts',
  outputDir: 'test-results',
  workers: 2,
  retries: 0,
  timeout: 240_000,
  expect: { timeout: 90_000 },
  reporter: [['list'], ['json']],
  use: {
    storageState: signedInFile(),
    viewport: { width: 1280, height: 800 },
    timezoneId: 'Europe/London',
    // It would stand between a test and the addresses that the test answers itself; e2e/phone.spec.ts has it.
    serviceWorkers: 'block',
    // As for people who want none: what is reached for does not move, and no frames are painted on the way.
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        // A graphics card that is only computed takes more time than painting without one.
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync'
      ]
    }
  }
})
