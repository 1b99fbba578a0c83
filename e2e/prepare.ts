import { rmSync } from 'node:fs'
import { request } from '@playwright/test'
import type { BenchView, SiteView } from '../core/api.ts'
import { demoAccount, preparedFolder, runFolder, RunningSite, signedInFile } from './servers.ts'

const LOOK_MS = 300

/**
 * Starts the demo site once for all tests: its clips are analysed and its installer is signed in. What is left is copied
 * for each file of tests (servers.ts).
 *
 * @returns what clears it away
 */
export default async function prepare(): Promise<() => void> {
  const site = await RunningSite.start(preparedFolder())
  const api = await request.newContext({ baseURL: site.address })
  try {
    const answer = await api.post('/api/session', { data: demoAccount('installer') })
    if (!answer.ok()) throw new Error(`signing in: ${await answer.text()}`)
    await api.storageState({ path: signedInFile() })
    const { cameras } = (await (await api.get('/api/sites/skerrow/site')).json()) as SiteView
    for (const { id } of cameras) {
      const analysed = async (): Promise<boolean> =>
        (
          (await (await api.get(`/api/sites/skerrow/cameras/${id}`)).json()) as BenchView
        ).clips.every(({ state }) => state === 'ready')
      while (!(await analysed())) await new Promise((resolve) => setTimeout(resolve, LOOK_MS))
    }
  } finally {
    await api.dispose()
    await site.stop()
  }
  return () => rmSync(runFolder(), { recursive: true, force: true })
}
