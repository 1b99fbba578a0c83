import { test as base } from '@playwright/test'
import { SiteOfFile } from './servers.ts'

const START_MS = 120_000

/** Tests of the interface, each file over a demo site of its own. */
export const test = base.extend<object, { siteOfFile: SiteOfFile }>({
  siteOfFile: [
    // Playwright reads from the first argument which fixtures are needed.
    async ({}, use) => {
      const site = new SiteOfFile()
      await use(site)
      await site.close()
    },
    { scope: 'worker', timeout: START_MS }
  ],
  baseURL: [
    async ({ siteOfFile }, use, { file }) => use(await siteOfFile.of(file)),
    { scope: 'test', timeout: START_MS }
  ]
})
export { expect, type Browser, type Locator, type Page } from '@playwright/test'
