import { defineConfig } from '@playwright/test'
import { SIGNED_IN } from './e2e/signedIn.ts'

const port = Number(process.env.E2E_PORT ?? 4790)
const data = process.env.E2E_DATA ?? '/tmp/wardoptic-e2e'

/** The interface in Debian's headless Chromium, over everything that `npm start` starts. */
export default defineConfig({
  testDir: 'e2e',
  globalSetup: './e2e/signIn.ts',
  outputDir: 'test-results',
  workers: 1,
  // A machine that stumbles is given a second chance; the report names what needed it.
  retries: 1,
  timeout: 120_000,
  expect: { timeout: 20_000 },
  reporter: [['list'], ['json']],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    storageState: SIGNED_IN,
    viewport: { width: 1280, height: 800 },
    timezoneId: 'Europe/London',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync'
      ]
    }
  },
  webServer: {
    command: `node scripts/start.mjs --port ${port} --data ${data} --clip-limit 3`,
    url: `http://127.0.0.1:${port}/api/site`,
    timeout: 180_000,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 20_000 }
  }
})
